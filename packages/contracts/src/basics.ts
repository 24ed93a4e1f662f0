import { z } from 'zod';

/** A number that is one. */
export const finite = z.number().refine(Number.isFinite, 'must be a finite number');

/** Text that a database and a screen can hold: without NUL. */
export const plainText = z
  .string()
  .refine((text) => !text.includes('\u0000'), 'must not hold the character NUL');

export const idSchema = z.uuid('an id is a UUID');
export const nameSchema = plainText
  .transform((text) => text.trim())
  .pipe(z.string().min(1, 'a name needs at least one character').max(120));
