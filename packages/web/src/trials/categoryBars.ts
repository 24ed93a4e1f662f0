import { halfWidth, nothing, summaryOf } from '@heuristor/core';
import { cellText } from './cellText';
import { quantitiesOf } from './groups';
import { type TrialRow, type ViewColumn } from './tableView';

/** One bar: the mean of the rows that have its words, or the one value that there is. */
export interface Bar {
  value: number;
  /** Half of the error bar; null of none. */
  half: number | null;
  text: string;
  rows: readonly TrialRow[];
}

export interface BarSeries {
  name: string;
  /** One a category; null where it has none. */
  bars: (Bar | null)[];
}

const wordsOf = (row: TrialRow, column: ViewColumn | undefined): string =>
  column === undefined
    ? row.run === null
      ? row.name
      : `${row.run.number}`
    : cellText(row.cells[column.key] ?? nothing);

/** Bars of a column, by the words of another one, side by side by those of a third. */
export function barsOf(
  rows: readonly TrialRow[],
  value: ViewColumn,
  category: ViewColumn | undefined,
  beside: ViewColumn | undefined,
): { categories: string[]; series: BarSeries[] } {
  const counted = rows.filter(({ cells }) => cells[value.key].kind === 'number');
  const categories = [...new Set(counted.map((row) => wordsOf(row, category)))];
  const names = beside === undefined ? [''] : [...new Set(counted.map((row) => wordsOf(row, beside)))];
  const barOf = (own: readonly TrialRow[]): Bar | null => {
    const { mean } = summaryOf(quantitiesOf(own, value.key), value.unit ?? []);
    if (mean === null) return null;
    const half = halfWidth(mean);
    return {
      value: mean.value,
      half,
      text: cellText({ kind: 'number', quantity: mean, roundTo: null }),
      rows: own,
    };
  };
  return {
    categories,
    series: names.map((name) => ({
      name,
      bars: categories.map((words) =>
        barOf(
          counted.filter(
            (row) =>
              wordsOf(row, category) === words && (beside === undefined || wordsOf(row, beside) === name),
          ),
        ),
      ),
    })),
  };
}
