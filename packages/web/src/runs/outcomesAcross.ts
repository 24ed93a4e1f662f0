import { type Plan, type Run, type WorkingsDocument, storedEvaluationSchema } from '@heuristor/contracts';
import { type StoredEvaluation, withConstantAt } from '@heuristor/core';
import { conditionsOf } from '@heuristor/evaluation';
import { getJson } from '../api/client';
import { type RunPool } from './pool';

/** What is asked of a run: what follows where a constant has these values. */
export interface AskedAcross {
  run: Run;
  plan: Pick<Plan, 'conditions'>;
  workings: WorkingsDocument;
  constant: string;
  values: readonly number[];
  /** The entries that are wanted. */
  entries: readonly string[];
  /** Resolves when the sheet is stored as it stands here. */
  stored(): Promise<void>;
}

/**
 * What one's own sheet says of a run for each value of a constant, worked out where its readings are. The sheets of the answer are in the
 * order of the values.
 * @throws Error where it cannot be worked out
 */
export async function outcomesAcross(
  pool: Pick<RunPool, 'holds' | 'demand'>,
  { run, plan, workings, constant, values, entries, stored }: AskedAcross,
): Promise<StoredEvaluation> {
  if (pool.holds(run.id))
    return pool.demand(run.id, 'outcomes', {
      sheets: values.map((value) => withConstantAt(workings, constant, value)),
      conditions: conditionsOf(run, plan),
      only: entries,
    });
  // The server goes by what it has.
  await stored();
  const query = new URLSearchParams({ constant, values: values.join(), entries: entries.join() });
  return getJson(`/runs/${run.id}/across?${query}`, storedEvaluationSchema);
}
