import { type StoredEvaluation, restrictedTo } from '@heuristor/core';
import { EvaluationModel } from '../models/evaluation';

/** What decides what sheets say of a run. */
export interface Made {
  runId: string;
  /** The id of him whose sheet it is; of several a hash of their ids, in their order. */
  owners: string;
  /** The program, and all of the run. */
  made: string;
  /** For each sheet what each of its entries depends on. */
  keys: Record<string, string>[];
}

/** Entries that are asked for, sheet by sheet. */
export type Wanted = readonly ReadonlySet<string>[];

/** What was kept of runs, of each of which all that is asked for still depends on the same, by the run. */
export async function findKept(all: readonly Made[], wanted: Wanted): Promise<Map<string, StoredEvaluation>> {
  if (all.length === 0) return new Map();
  const byRun = new Map(all.map((made) => [made.runId, made]));
  const rows = await EvaluationModel.query()
    .whereIn('runId', [...byRun.keys()])
    .where({ owners: all[0].owners });
  return new Map(
    rows.flatMap(({ runId, made, keys, content }) => {
      const now = byRun.get(runId);
      const stands =
        now?.made === made &&
        wanted.every((entries, sheet) =>
          [...entries].every((entry) => keys[sheet]?.[entry] === now.keys[sheet][entry]),
        );
      return stands ? [[runId, restrictedTo(content, (sheet, entry) => wanted[sheet].has(entry))]] : [];
    }),
  );
}

/** Keeps what was said last; one for each run, and those whose sheets said it. */
export async function keep(said: readonly (readonly [Made, StoredEvaluation])[]): Promise<void> {
  const madeAt = new Date();
  await EvaluationModel.query()
    .insert(said.map(([made, content]) => ({ ...made, content, madeAt })))
    .onConflict(['runId', 'owners'])
    .merge();
}
