import { printedUnit } from '@heuristor/core';
import { copyText } from '../ui/clipboard';
import { plainCells } from './cellText';
import { numberColumns } from './derivedRun';
import { type TableView, type TrialRow } from './tableView';

/** The rows that count, as columns for a spreadsheet: each number with its uncertainty beside it. */
export function tableText({ columns, rows }: TableView, isCounted: (row: TrialRow) => boolean): string {
  const shown = columns.filter(({ column }) => !column.hidden);
  const numbers = new Set(numberColumns(shown).map(({ key }) => key));
  const isUncertain = new Set(
    shown
      .filter(({ key }) => rows.some(({ cells }) => plainCells(cells[key])[1] !== ''))
      .map(({ key }) => key),
  );
  const heads = shown.flatMap(({ key, title, unit }) => {
    const name = printedUnit(unit ?? []);
    const inUnit = numbers.has(key) && name !== '' ? ` / ${name}` : '';
    return [`${title}${inUnit}`, ...(isUncertain.has(key) ? [`u(${title})${inUnit}`] : [])];
  });
  const lines = rows
    .filter((row) => row.leftOut === null && isCounted(row))
    .map(({ name, cells }) => [
      name,
      ...shown.flatMap(({ key }) => {
        const [value, uncertainty] = plainCells(cells[key]);
        return isUncertain.has(key) ? [value, uncertainty] : [value];
      }),
    ]);
  return [['row', ...heads], ...lines].map((line) => line.map(oneCell).join('\t')).join('\n');
}

/** A cell stands on one line, between its tabs. */
const oneCell = (text: string): string => text.replace(/[\t\r\n]+/g, ' ');

export const copyTable = (view: TableView, isCounted: (row: TrialRow) => boolean): Promise<void> =>
  copyText(tableText(view, isCounted), 'The table, with all its digits,');
