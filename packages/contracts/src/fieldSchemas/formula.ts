import { z } from 'zod';
import { type FieldSchema, resultRefSchema, seriesRefSchema } from './fieldSchema';

const formulaSchema = z.object({
  text: z.string().max(500),
  names: z.record(z.string().min(1).max(160), z.union([seriesRefSchema, resultRefSchema])),
});

export const formula: FieldSchema<'formula'> = () => formulaSchema;
