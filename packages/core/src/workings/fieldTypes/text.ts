import { defineFieldType } from './fieldType';

export interface TextShape {
  type: 'text';
  label: string;
  most: number;
  pattern: RegExp | null;
  usual: string;
}

export const textField = (label: string, most: number, usual = '', pattern: RegExp | null = null) =>
  ({ type: 'text', label, most, usual, pattern }) as const;

export const text = defineFieldType<TextShape, string>({ usual: ({ usual }) => usual });
