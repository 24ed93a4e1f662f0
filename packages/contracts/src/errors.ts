import { z } from 'zod';

export const errorCodes = [
  'not-signed-in',
  'link-used',
  'not-found',
  'invalid-request',
  'too-large',
  'stale-document',
  'wrong-file',
  'device-absent',
  'target-moves',
  'nothing-connected',
  'already-recording',
  'not-recording',
  'impossible-rate',
  'too-many-requests',
  'fault',
] as const;

export type ErrorCode = (typeof errorCodes)[number];

/** Every refusal over HTTP: a code for programs, a sentence for people. */
export const errorBodySchema = z.object({
  error: z.object({ code: z.enum(errorCodes), message: z.string(), current: z.unknown().optional() }),
});
export type ErrorBody = z.infer<typeof errorBodySchema>;
