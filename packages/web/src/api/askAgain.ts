import { ApiError } from './client';

/** After so long whoever got no answer asks again. */
export const askAgainMilliseconds = 3000;

/** Whether the same question may get its answer later: the server was not there, had a fault or too much to do. */
export const mayAnswerLater = (error: unknown): boolean =>
  error instanceof ApiError && ['unreachable', 'fault', 'too-many-requests'].includes(error.code);
