import { type Run, type TrialTable } from '@heuristor/contracts';
import { presentRuns } from '../runs/runs';
import { type TrialRow } from './tableView';

/** Runs that are rows: what was rehearsed, removed, or is not over yet, is none. */
export const countedRuns = <R extends Run>(runs: readonly R[]): R[] =>
  presentRuns(runs).filter(
    ({ practice, state }) => !practice && (state === 'ended' || state === 'interrupted'),
  );

/** Rows that are looked at and count. */
export const countedRows = ({ rows }: { rows: readonly TrialRow[] }, table: TrialTable): TrialRow[] =>
  rows.filter(({ leftOut }) => leftOut === null).filter(isCountedIn(table));

/** Whether a row is looked at, and has something to count: one that is planned has nothing yet. */
export function isCountedIn(table: TrialTable): (row: TrialRow) => boolean {
  const isShown = isShownIn(table);
  return (row) => row.kind !== 'planned' && isShown(row);
}

/** Whether a row is looked at, as the table is filtered. */
export function isShownIn({ only }: TrialTable): (row: TrialRow) => boolean {
  if (only === null) return () => true;
  return ({ cells }) => {
    const cell = cells[only.column];
    return only.words.includes(
      cell?.kind === 'word' ? cell.text : cell?.kind === 'number' ? String(cell.quantity.value) : '',
    );
  };
}
