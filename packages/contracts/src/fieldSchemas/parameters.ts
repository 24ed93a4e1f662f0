import { z } from 'zod';
import { finite } from '../basics';
import { type FieldSchema } from './fieldSchema';

const parametersSchema = z.record(
  z.string().min(1).max(160),
  z.object({
    start: finite.nullable(),
    held: z.boolean(),
    low: finite.nullable(),
    high: finite.nullable(),
    toldIn: z.string().min(1).max(80).optional(),
  }),
);

export const parameters: FieldSchema<'parameters'> = ({ usual }) => parametersSchema.default(usual);
