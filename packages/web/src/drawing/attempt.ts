/**
 * What one part of a picture comes to, or something in its place where the program itself is at fault there, so that one entry never
 * takes the others with it.
 */
export function attempt<T>(work: () => T, otherwise: (error: unknown) => T): T {
  try {
    return work();
  } catch (error) {
    console.error(error);
    return otherwise(error);
  }
}
