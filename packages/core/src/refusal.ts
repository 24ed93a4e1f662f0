/**
 * Thrown where a number cannot honestly be given: too few readings, a gap, constant data, a fit that does not settle.
 * The message is a sentence for the person in front of the screen; it names what is wrong and what would be right.
 */
export class Refusal extends Error {
  override readonly name = 'Refusal';

  /** @param lacks the channel that the run does not have, where that is all that is in the way: it is no fault of anybody */
  constructor(
    message: string,
    readonly lacks: string | null = null,
  ) {
    super(message);
  }
}

/** Runs `work`; a Refusal becomes a value, every other error is a fault of the program and goes on. */
export function orRefusal<T>(work: () => T): T | Refusal {
  try {
    return work();
  } catch (error) {
    if (error instanceof Refusal) return error;
    throw error;
  }
}
