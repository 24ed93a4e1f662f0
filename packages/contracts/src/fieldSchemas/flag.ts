import { z } from 'zod';
import { type FieldSchema } from './fieldSchema';

export const flag: FieldSchema<'flag'> = ({ usual }) => z.boolean().default(usual);
