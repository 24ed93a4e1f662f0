import { defineFieldType } from './fieldType';

export interface ChoiceShape {
  type: 'choice';
  label: string;
  options: readonly { key: string; title: string }[];
}

export const choiceField = <const K extends string>(
  label: string,
  options: readonly { key: K; title: string }[],
) => ({ type: 'choice', label, options }) as const;

/** One of some; the first of them where nothing was said. */
export const choice = defineFieldType<ChoiceShape, string>({ usual: ({ options }) => options[0]?.key });
