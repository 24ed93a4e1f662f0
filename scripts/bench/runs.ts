import { channelOf, usualPlan } from '@heuristor/contracts';
import { addRun, writeSamples } from '@heuristor/server';

/** A run of made-up channels, as if it had been recorded. */
export async function addSampledRun(
  investigationId: string,
  count: number,
  interval: number,
  channels: Record<string, (t: number) => number>,
): Promise<void> {
  const keys = Object.keys(channels);
  const run = await addRun({
    investigationId,
    origin: 'recorded',
    state: 'ended',
    plan: usualPlan,
    channels: keys.map((key) =>
      channelOf({ key, unit: 'm', timeUnit: 's', sampling: { kind: 'regular', start: 0, interval } }),
    ),
  });
  for (const [i, key] of keys.entries())
    await writeSamples(
      run.channels[i].id,
      Float64Array.from({ length: count }, (_, k) => channels[key](k * interval)),
      null,
    );
}

/** A swing with a fine noise on it. */
export const wave = (t: number) => 0.04 * Math.sin(5.3 * t) + 0.0003 * Math.sin(t * 12_345.678);
