import { type Run, channelOf, usualPlan } from '@heuristor/contracts';
import { addRun } from '../services/runs';
import { writeSamples } from '../services/samples';

/** A run of three positions, as if a file had brought it. */
export async function importedRun(investigationId: string): Promise<Run> {
  const run = await addRun({
    investigationId,
    origin: 'imported',
    state: 'ended',
    plan: usualPlan,
    channels: [
      channelOf({
        key: 'x',
        quantity: 'position',
        unit: 'm',
        timeUnit: 's',
        sampling: { kind: 'regular', start: 0, interval: 0.1 },
      }),
    ],
  });
  await writeSamples(run.channels[0].id, Float64Array.from([1, 2, 3]), null);
  return run;
}
