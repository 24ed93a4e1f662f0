import { z } from 'zod';

/** Every refusal over HTTP by its code, with the status that goes with it. */
export const errorStatuses = {
  'not-signed-in': 401,
  'link-used': 401,
  'wrong-origin': 403,
  /** Somebody may look at it, and not change it. */
  'not-allowed': 403,
  'not-found': 404,
  'invalid-request': 400,
  'too-large': 413,
  unsupported: 415,
  'stale-document': 409,
  'unreadable-document': 409,
  'wrong-file': 422,
  'device-absent': 409,
  'target-moves': 409,
  'not-still': 409,
  'nothing-connected': 409,
  'already-recording': 409,
  'not-recording': 409,
  'impossible-rate': 422,
  'too-many-requests': 429,
  'database-away': 503,
  fault: 500,
} as const;

export type ErrorCode = keyof typeof errorStatuses;

export const errorCodes = Object.keys(errorStatuses) as [ErrorCode, ...ErrorCode[]];

/** Every refusal over HTTP: a code for programs, a sentence for people. */
export const errorBodySchema = z.object({
  error: z.object({ code: z.enum(errorCodes), message: z.string(), current: z.unknown().optional() }),
});
export type ErrorBody = z.infer<typeof errorBodySchema>;
