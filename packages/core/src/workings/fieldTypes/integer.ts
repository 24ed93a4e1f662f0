import { defineFieldType } from './fieldType';

export interface IntegerShape {
  type: 'integer';
  label: string;
  low: number;
  high: number;
  odd: boolean;
  usual: number;
  /** To where it is slid; null where it is not. */
  slider: number | null;
}

export const integerField = (
  label: string,
  bounds: { low: number; high: number; odd: boolean; usual: number; slider: number | null },
) => ({ type: 'integer', label, ...bounds }) as const;

export const integer = defineFieldType<IntegerShape, number>({ usual: ({ usual }) => usual });
