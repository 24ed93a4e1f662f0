import { z } from 'zod';
import { type FieldSchema, entryId } from './fieldSchema';

export const regions: FieldSchema<'regions'> = ({ usual }) =>
  z
    .array(entryId)
    .max(20)
    .default([...usual]);
