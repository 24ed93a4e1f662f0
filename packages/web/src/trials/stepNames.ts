import { type TrialTable, type TrialsDocument, emptyWorkings } from '@heuristor/contracts';
import isEqual from 'fast-deep-equal';
import { sheetStepName } from '../workings/stepNames';

/** What a step has done to the trials, as an order in lower case. */
export function trialsStepName(before: TrialsDocument, after: TrialsDocument): string {
  if (after.tables.length > before.tables.length) return 'add a table';
  if (after.tables.length < before.tables.length) return 'remove a table';
  for (const table of after.tables) {
    const was = before.tables.find(({ id }) => id === table.id);
    if (was !== undefined && was !== table && !isEqual(was, table)) return tableStepName(was, table);
  }
  return 'change the trials';
}

function tableStepName(before: TrialTable, after: TrialTable): string {
  if (!isEqual(before.sheet, after.sheet))
    return withTitles(
      sheetStepName({ ...emptyWorkings, ...before.sheet }, { ...emptyWorkings, ...after.sheet }),
      after,
    );
  if (after.planned.length > before.planned.length) return 'plan runs';
  if (after.planned.length < before.planned.length) return 'remove a planned row';
  if (!isEqual(before.planned, after.planned)) return 'change what is planned';
  if (after.columns.length > before.columns.length) return 'add a column';
  if (after.columns.length < before.columns.length) return 'remove a column';
  if (!isEqual(before.columns, after.columns)) return 'change a column';
  if (after.typed.length > before.typed.length) return 'add a row';
  if (after.typed.length < before.typed.length) return 'remove a row';
  if (!isEqual(before.typed, after.typed)) return 'change a row';
  if (after.leftOut.length > before.leftOut.length) return 'leave out a row';
  if (after.leftOut.length < before.leftOut.length) return 'count a row again';
  if (!isEqual(before.plot.holds, after.plot.holds)) return 'change what is marked';
  if (!isEqual(before.plot, after.plot)) return 'change the plot';
  if (before.name !== after.name) return `rename “${before.name}”`;
  if (!isEqual(before.rows, after.rows)) return 'choose other rows';
  if (!isEqual(before.sort, after.sort)) return 'sort the table';
  if (!isEqual(before.only, after.only)) return 'filter the table';
  return 'change the table';
}

/** Columns are known by keys that mean nothing to people. */
const withTitles = (text: string, { columns }: TrialTable): string =>
  columns.reduce((all, column) => all.replaceAll(column.key, titleOf(column)), text);

function titleOf(column: TrialTable['columns'][number]): string {
  if (column.name !== '') return column.name;
  if (column.kind === 'formula') return column.formula;
  return column.kind === 'result' ? column.field : 'a column';
}
