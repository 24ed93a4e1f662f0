import { z } from 'zod';
import { type FieldSchema } from './fieldSchema';

export const choice: FieldSchema<'choice'> = ({ options }) =>
  z.enum(options.map(({ key }) => key) as [string, ...string[]]).default(options[0].key);
