import { type PlannedRow, type TrialsDocument } from './trials';

/** What is known of a run that may fill a planned row. */
export interface FillingRun {
  /** The planned row that it was recorded for; null of none. */
  planned: string | null;
  removed: boolean;
  practice: boolean;
}

/** Which run fills each planned row: the first of those that were recorded for it, and stand. */
export function fillingRuns<R extends FillingRun>(runs: readonly R[]): Map<string, R> {
  const filling = new Map<string, R>();
  for (const run of runs)
    if (run.planned !== null && !run.removed && !run.practice && !filling.has(run.planned))
      filling.set(run.planned, run);
  return filling;
}

/** Planned rows that no run has filled, table by table, in their order. */
export function openRows({ tables }: TrialsDocument, runs: readonly FillingRun[]): PlannedRow[] {
  const filling = fillingRuns(runs);
  return tables.flatMap(({ planned }) => planned.filter(({ id }) => !filling.has(id)));
}

/** What is chosen in place of a row where the next run is to be none that was planned. */
export const noPlannedRow = '';

/** The planned row that the next run fills: the one that was chosen while it is open, else the first; null of none. */
export const nextRow = (open: readonly PlannedRow[], chosen: string | null): PlannedRow | null =>
  chosen === noPlannedRow ? null : (open.find(({ id }) => id === chosen) ?? open[0] ?? null);
