import { z } from 'zod';
import { type Evaluations } from '../evaluation/evaluations';
import { documentOf } from '../services/documents';
import { findInvestigation } from '../services/investigations';
import { findRun } from '../services/runs';
import { type JobKind } from './jobKind';

const task = z.object({ investigation: z.uuid(), owner: z.uuid(), runs: z.array(z.uuid()) });

/** What somebody's workings say of many runs, so that it is there when it is asked for. */
export const workOut = ({ evaluations }: { evaluations: Evaluations }): JobKind<z.infer<typeof task>> => ({
  key: 'work-out',
  task,
  attempts: 3,
  async work({ investigation, owner, runs }, { signal, progress }) {
    for (const [i, id] of runs.entries()) {
      if (signal.aborted) return;
      // Read anew for each run: somebody may have changed the sheet meanwhile, and what is old is of no use.
      const [run, { plan }, workings] = await Promise.all([
        findRun(id),
        findInvestigation(investigation),
        documentOf(owner, investigation, 'workings'),
      ]);
      if (run !== null && run.state !== 'recording' && workings !== null)
        await evaluations.of(run, plan, [{ owner, workings }], null);
      progress((i + 1) / runs.length);
    }
  },
});
