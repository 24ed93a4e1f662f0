/**
 * Thrown where a number cannot honestly be given: too few readings, a gap, constant data, a fit that does not settle.
 * The message is a sentence for the person in front of the screen; it names what is wrong and what would be right.
 */
export class Refusal extends Error {
  override readonly name = 'Refusal';
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
