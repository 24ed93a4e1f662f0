import { z } from 'zod';
import { nameSchema } from './basics';

/** A device that brings its readings over HTTP, and what lets it in. */
export const deviceTokenSchema = z.object({
  id: z.number().int(),
  /** The code under which it stands among the sensors. */
  code: z.string(),
  name: z.string(),
  madeAt: z.string(),
  /** When it brought something last; null where it never has. */
  usedAt: z.string().nullable(),
});
export type DeviceToken = z.infer<typeof deviceTokenSchema>;
export const newTokenSchema = z.object({ name: nameSchema.pipe(z.string().max(40)) }).strict();
/** The token itself is shown once, when it is made. */
export const madeTokenSchema = deviceTokenSchema.extend({ token: z.string() });
export type MadeToken = z.infer<typeof madeTokenSchema>;
/** A short code that a phone types to let itself in, for a few minutes. */
export const pairingSchema = z.object({ code: z.string(), until: z.string() });
export type Pairing = z.infer<typeof pairingSchema>;
export const redeemPairingSchema = z
  .object({ code: z.string().max(20), name: nameSchema.pipe(z.string().max(40)) })
  .strict();
export const pairedSchema = z.object({ token: z.string(), code: z.string() });
