import { Failure } from '../failure';

/** While the database is away, work is tried again and again, for ten minutes. */
const [retryMilliseconds, mostTries] = [1000, 600];

/**
 * Does work that knows where it was, and goes on with it when the database was away meanwhile.
 * @param mayGoOn whether anybody still wants it
 * @param onFault hears of each fault, with how many there were before it
 * @throws Failure of the work itself, or what the database said last
 */
export async function goingOn(
  work: () => Promise<void>,
  mayGoOn: () => boolean,
  onFault: (error: unknown, before: number) => void,
): Promise<void> {
  for (let tries = 0; ; tries++) {
    try {
      await work();
      return;
    } catch (error) {
      if (error instanceof Failure || !mayGoOn() || tries >= mostTries) throw error;
      onFault(error, tries);
      await new Promise((resolve) => setTimeout(resolve, retryMilliseconds).unref());
    }
  }
}
