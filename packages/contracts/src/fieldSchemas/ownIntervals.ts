import { z } from 'zod';
import { finite } from '../basics';
import { type FieldSchema } from './fieldSchema';

const ownIntervalsSchema = z
  .array(
    z
      .object({ run: z.string().min(1).max(40), start: finite, end: finite })
      .refine(({ start, end }) => end > start, 'a region ends after it starts'),
  )
  .max(500);

export const ownIntervals: FieldSchema<'ownIntervals'> = ({ usual }) =>
  ownIntervalsSchema.default([...usual]);
