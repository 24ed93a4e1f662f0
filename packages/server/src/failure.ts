import { type ErrorCode } from '@heuristor/contracts';

const statuses: Record<ErrorCode, number> = {
  'not-signed-in': 401,
  'link-used': 401,
  'not-found': 404,
  'invalid-request': 400,
  'too-large': 413,
  'stale-document': 409,
  'wrong-file': 422,
  'device-absent': 409,
  'target-moves': 409,
  'nothing-connected': 409,
  'already-recording': 409,
  'not-recording': 409,
  'impossible-rate': 422,
  'too-many-requests': 429,
  fault: 500,
};

/** A refusal with a code for programs and a sentence for people. */
export class Failure extends Error {
  override readonly name = 'Failure';
  readonly status: number;

  constructor(
    readonly code: ErrorCode,
    message: string,
    readonly current?: unknown,
  ) {
    super(message);
    this.status = statuses[code];
  }
}
