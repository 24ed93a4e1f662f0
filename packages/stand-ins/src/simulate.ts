import { uniformRandom } from '@heuristor/core';
import { type Rig } from './devices/device';
import { RigClock } from './devices/rigClock';

/**
 * Runs a rig without a link, for made-up runs and for tests: the readings of one stream of a device, channel after channel in
 * each sample.
 * @param at what a hand does, by the second at which it does it
 */
export function simulate(
  { apparatus, devices }: Rig,
  {
    code,
    stream,
    rate,
    count,
    from = 0,
    ranges = {},
    seed = 1,
  }: {
    code: string;
    stream: string;
    rate: number;
    count: number;
    /** When the first sample is taken, in seconds. */
    from?: number;
    ranges?: Record<string, string>;
    seed?: number;
  },
  at: readonly (readonly [number, () => void])[] = [],
): { values: Float64Array; times: Float64Array | null } {
  const plan = devices.find((device) => device.code === code)?.streams.find(({ key }) => key === stream);
  if (plan === undefined) throw new RangeError(`no stream ${stream} of ${code}`);
  const clock = new RigClock(apparatus);
  const acts = [...at].sort(([a], [b]) => a - b);
  const until = (moment: number) => {
    while (acts.length > 0 && acts[0][0] <= moment) {
      const [[when, act]] = acts.splice(0, 1);
      advance(clock, when);
      act();
    }
    advance(clock, moment);
  };
  until(from);
  const running = clock.start(plan, 0, rate, ranges, uniformRandom(seed));
  until(from + (count - 1) / rate + 1e-9);
  const taken = running.take();
  return { values: taken?.values ?? new Float64Array(0), times: taken?.times ?? null };
}

/** In steps short enough that nothing is skipped. */
function advance(clock: RigClock, moment: number): void {
  while (clock.seconds + 0.5 < moment) clock.advanceTo(clock.seconds + 0.5);
  clock.advanceTo(moment);
}
