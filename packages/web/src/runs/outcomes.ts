import {
  type OutcomesOfRuns,
  type Plan,
  type Run,
  type WorkingsDocument,
  mostKeptAtOnce,
  mostOutcomesAtOnce,
  outcomesOfRunsSchema,
} from '@heuristor/contracts';
import { conditionsOf } from '@heuristor/evaluation';
import { getJson } from '../api/client';
import { type RunPool } from './pool';

/** What is asked of runs of an investigation: what one's own sheet says. */
interface Asked {
  investigation: string;
  runs: readonly Run[];
  plan: Pick<Plan, 'conditions'>;
  workings: WorkingsDocument;
  onlyKept?: boolean;
  /** Resolves when the sheet is stored as it stands here. */
  stored(): Promise<void>;
}

/** What the sheet says of a run, or why that cannot be determined; or that nothing was kept of it, where nothing was to be worked out. */
export type RunAnswer = OutcomesOfRuns[number];

/**
 * What the sheet says of any runs, worked out where their readings are: by the worker that holds them, or else by the server, whose
 * numbers are the same to the last bit.
 * @param runs as many as can be asked about at once
 * @param onlyKept of runs that no worker holds only what the server has kept
 * @throws Error where the server does not answer
 */
export async function outcomesOfRuns(
  pool: Pick<RunPool, 'holds' | 'demand'>,
  { investigation, runs, plan, workings, stored, onlyKept = false }: Asked,
): Promise<RunAnswer[]> {
  const held = runs.filter(({ id }) => pool.holds(id));
  const others = runs
    .filter(({ id }) => !pool.holds(id))
    .slice(0, onlyKept ? mostKeptAtOnce : mostOutcomesAtOnce);
  const here = Promise.all(
    held.map((run) =>
      pool
        .demand(run.id, 'outcomes', { sheets: [workings], conditions: conditionsOf(run, plan) })
        .catch((error: unknown) => ({
          runId: run.id,
          failed: error instanceof Error ? error.message : String(error),
        })),
    ),
  );
  if (others.length === 0) return here;
  // The server goes by what it has.
  await stored();
  const ids = others.map(({ id }) => id).join();
  const there = await getJson(
    `/investigations/${investigation}/outcomes?runs=${ids}${onlyKept ? '&kept=1' : ''}`,
    outcomesOfRunsSchema,
  );
  return [...(await here), ...there];
}
