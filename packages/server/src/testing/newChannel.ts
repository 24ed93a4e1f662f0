import { channelOf, usualPlan } from '@heuristor/contracts';
import { onlyTeacher } from '../auth/signIn';
import { createInvestigation } from '../services/investigations';
import { addRun } from '../services/runs';

/** A channel of a run that is being recorded, on the database that the models are bound to. */
export async function newChannel(kind: 'regular' | 'timed' = 'regular'): Promise<number> {
  const run = await addRun({
    investigationId: await createInvestigation(await onlyTeacher(), 'Blocks'),
    origin: 'recorded',
    state: 'recording',
    plan: usualPlan,
    channels: [
      channelOf({
        key: 'x',
        quantity: 'position',
        unit: 'm',
        timeUnit: 's',
        sampling: kind === 'regular' ? { kind, start: 0, interval: 0.02 } : { kind },
      }),
    ],
  });
  return run.channels[0].id;
}
