import {
  type PlannedRow,
  type Plan,
  type Run,
  type TrialsDocument,
  nextRow,
  openRows,
} from '@heuristor/contracts';

/** The planned row that the next run fills; null where it fills none. */
export const nextOf = (
  trials: TrialsDocument,
  runs: readonly Run[],
  { practice, forNext }: Pick<Plan, 'practice' | 'forNext'>,
): PlannedRow | null => (practice ? null : nextRow(openRows(trials, runs), forNext.planned));
