/** How far two clocks may seem apart by the way of a message alone, in seconds. */
const messageSeconds = 0.05;

/** What is known of the clock of a device that was away. */
export interface AwayTiming {
  /** When the run began, by this computer's clock in ms; null where the device's clock was lost. */
  begunAt: number | null;
  sentence: string;
}

/**
 * When a run began that a device kept, and how its clock went meanwhile.
 * @param reported the device's clock in seconds as it was reported at `now`, in ms
 * @param prepared what it said when it was prepared, and when that was
 */
export function awayTiming(
  reported: { clock: number; now: number; begun: number | null },
  prepared: { clock: number | null; at: number },
): AwayTiming {
  const { clock, now, begun } = reported;
  if (begun === null)
    return {
      begunAt: null,
      sentence:
        'The device lost its clock on the way: when this run began is not known. The times within it are right.',
    };
  const begunAt = now - (clock - begun) * 1000;
  const elapsed = (now - prepared.at) / 1000;
  // A clock that stands before where it was has been set anew.
  if (prepared.clock === null || clock < prepared.clock || elapsed <= 0)
    return { begunAt, sentence: 'The times are those of the device’s own clock.' };
  const drift = (clock - prepared.clock) / elapsed - 1;
  const doubt = (2 * messageSeconds) / elapsed;
  const millionths = (value: number) => Number((Math.abs(value) * 1e6).toPrecision(2));
  return {
    begunAt,
    sentence:
      Math.abs(drift) <= doubt
        ? `The times are those of the device’s own clock, which agrees with this computer’s to within ${millionths(doubt)} millionths.`
        : `The times are those of the device’s own clock, which ran ${millionths(drift)} millionths too ${drift > 0 ? 'fast' : 'slow'} since it was prepared.`,
  };
}
