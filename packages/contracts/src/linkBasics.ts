import { z } from 'zod';

export const keySchema = z
  .string()
  .regex(/^[a-z][A-Za-z0-9]{0,31}$/, 'a key is a lower-case letter, then letters and digits');
