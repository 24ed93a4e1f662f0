import { defineFieldType } from './fieldType';

export interface FlagShape {
  type: 'flag';
  label: string;
  usual: boolean;
}

export const flagField = (label: string, usual = false) => ({ type: 'flag', label, usual }) as const;

export const flag = defineFieldType<FlagShape, boolean>({ usual: ({ usual }) => usual });
