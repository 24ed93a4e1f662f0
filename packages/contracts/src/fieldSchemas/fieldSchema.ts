import { type Field, type FieldTypeKey } from '@heuristor/core';
import { z } from 'zod';

/** The schema of the stored value of a field of one type; what was stored before the field was there gets its usual value. */
export type FieldSchema<K extends FieldTypeKey> = (field: Field<K>) => z.ZodType;

export const entryId = z.string().min(1).max(40);

export const seriesRefSchema = z
  .string()
  .max(160)
  .regex(/^(t|channel:.+|entry:.+)$/, 'a series is "t", "channel:<key>" or "entry:<id>"')
  .transform((text) => text as 't' | `channel:${string}` | `entry:${string}`);

export const resultRefSchema = z
  .string()
  .max(160)
  .regex(/^result:.+\/.+$/, 'a result is "result:<entry>/<key>"');
