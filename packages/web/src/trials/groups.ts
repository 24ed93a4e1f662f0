import { type Quantity, nothing } from '@heuristor/core';
import { cellText } from './cellText';
import { type TrialRow } from './tableView';

/** Rows by the words of a column; all of them together where none is chosen. */
export function groupsOf(rows: readonly TrialRow[], by: string | null): { name: string; rows: TrialRow[] }[] {
  if (by === null) return [{ name: 'all', rows: [...rows] }];
  const groups = new Map<string, TrialRow[]>();
  for (const row of rows) {
    const name = cellText(row.cells[by] ?? nothing) || 'none';
    groups.set(name, [...(groups.get(name) ?? []), row]);
  }
  const all = [...groups].map(([name, own]) => ({ name, rows: own }));
  return all.length > 1 ? [...all, { name: 'all', rows: [...rows] }] : all;
}

/** The numbers that rows have in a column. */
export const quantitiesOf = (rows: readonly TrialRow[], key: string): Quantity[] =>
  rows.flatMap(({ cells }) => {
    const cell = cells[key];
    return cell.kind === 'number' ? [cell.quantity] : [];
  });
