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

/** What was kept of a run, where all that is asked for still depends on the same; null else. */
export async function findKept(
  { runId, owners, made, keys }: Made,
  wanted: Wanted,
): Promise<StoredEvaluation | null> {
  const kept = await EvaluationModel.query().findById([runId, owners]).where({ made });
  if (kept === undefined) return null;
  const stands = wanted.every((entries, sheet) =>
    [...entries].every((entry) => kept.keys[sheet]?.[entry] === keys[sheet][entry]),
  );
  return stands ? restrictedTo(kept.content, (sheet, entry) => wanted[sheet].has(entry)) : null;
}

/** Keeps what was said last; one for each run, and those whose sheets said it. */
export async function keep(of: Made, content: StoredEvaluation): Promise<void> {
  await EvaluationModel.query()
    .insert({ ...of, content, madeAt: new Date() })
    .onConflict(['runId', 'owners'])
    .merge();
}
