import { type Quantity, nothing } from '@heuristor/core';
import { calledBy } from './cellText';
import { type TrialRow } from './tableView';

export interface RowGroup {
  name: string;
  rows: TrialRow[];
  /** Whether it is all of them together. */
  isAll: boolean;
}

/** Rows by the words of a column; all of them together where none is chosen. */
export function groupsOf(rows: readonly TrialRow[], by: string | null): RowGroup[] {
  if (by === null) return [{ name: 'all', rows: [...rows], isAll: true }];
  const groups = new Map<string, TrialRow[]>();
  for (const row of rows) {
    const name = calledBy(row.cells[by] ?? nothing) || 'none';
    groups.set(name, [...(groups.get(name) ?? []), row]);
  }
  const all = [...groups].map(([name, own]) => ({ name, rows: own, isAll: false }));
  return all.length > 1 ? [...all, { name: 'all', rows: [...rows], isAll: true }] : all;
}

/** The numbers that rows have in a column. */
export const quantitiesOf = (rows: readonly TrialRow[], key: string): Quantity[] =>
  rows.flatMap(({ cells }) => {
    const cell = cells[key];
    return cell.kind === 'number' ? [cell.quantity] : [];
  });
