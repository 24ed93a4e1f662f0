import { type Plan, type Run, type WorkingsDocument, storedEvaluationSchema } from '@heuristor/contracts';
import { type StoredEvaluation } from '@heuristor/core';
import { conditionsOf } from '@heuristor/evaluation';
import { getJson } from '../api/client';
import { type RunPool } from './pool';

/** What is asked of a run: what one's own sheet says. */
interface Asked {
  run: Run;
  plan: Pick<Plan, 'conditions'>;
  workings: WorkingsDocument;
  /** Resolves when the sheet is stored as it stands here. */
  stored(): Promise<void>;
}

/**
 * What the sheet says of any run, worked out where its readings are: by the worker that holds them, or else by the server, whose numbers
 * are the same to the last bit.
 * @throws Error that says why it cannot be determined
 */
export async function outcomesOfRun(
  pool: Pick<RunPool, 'holds' | 'demand'>,
  { run, plan, workings, stored }: Asked,
): Promise<StoredEvaluation> {
  if (pool.holds(run.id))
    return pool.demand(run.id, 'outcomes', { sheets: [workings], conditions: conditionsOf(run, plan) });
  // The server goes by what it has.
  await stored();
  return getJson(`/runs/${run.id}/outcomes`, storedEvaluationSchema);
}
