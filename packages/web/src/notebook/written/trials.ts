import { type ConditionColumn, type Run, type TrialTable, type WorkingsDocument } from '@heuristor/contracts';
import { type Cell, axisLabel, halfWidth } from '@heuristor/core';
import { cellText } from '../../trials/cellText';
import { countedRows, countedRuns } from '../../trials/counted';
import { type RunOutcome } from '../../trials/rowOutcomes';
import { asTyped } from '../../trials/runCells';
import { shortText } from '../../ui/numberText';
import { tableView } from '../../trials/tableView';
import { type Written } from './table';

interface Inputs {
  workings: WorkingsDocument;
  conditions: readonly ConditionColumn[];
  runs: readonly Run[];
  outcomes: ReadonlyMap<string, RunOutcome>;
}

/** What a table of trials is called where it has no name. */
export const tableName = ({ name }: TrialTable, at: number): string =>
  name === '' ? `Table ${at + 1}` : name;

/** The rows of a table of trials that count, as it is written; null where its rows are worked out on its own page alone. */
export function writtenTrials(
  table: TrialTable,
  { workings, conditions, outcomes, runs: all }: Inputs,
): (Written & { isWaiting: boolean }) | null {
  if (table.rows?.kind === 'constant') return null;
  const runs = countedRuns(all);
  const view = tableView({ table, runs, conditions, workings, outcomes });
  const columns = view.columns.filter(({ column }) => !column.hidden);
  return {
    head: ['', ...columns.map(({ title, unit }) => axisLabel(title, unit ?? []))],
    rows: countedRows(view, table).map(({ name, cells }) => [
      name,
      ...columns.map(({ key }) => written(cells[key])),
    ]),
    isWaiting: runs.some(({ id }) => !outcomes.has(id)),
  };
}

/** What was typed stands as it was typed, as in its own table. */
function written(cell: Cell): string {
  const half = cell.kind === 'number' && cell.roundTo === asTyped ? halfWidth(cell.quantity) : null;
  if (cell.kind !== 'number' || half === null) return cellText(cell);
  return `${shortText(cell.quantity.value, 10)} ± ${shortText(half, 10)}`;
}
