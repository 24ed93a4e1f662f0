import { type ErrorCode, errorStatuses } from '@heuristor/contracts';

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
    this.status = errorStatuses[code];
  }
}
