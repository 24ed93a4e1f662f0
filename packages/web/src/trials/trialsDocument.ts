import {
  type ConditionValue,
  type PlannedRow,
  type TrialColumn,
  type TrialTable,
  type TrialsDocument,
  type TypedCell,
  mostInTrials,
  trialsSchema,
  emptyTable,
  withConditionsChanged,
} from '@heuristor/contracts';
import isEqual from 'fast-deep-equal';
import { nanoid } from 'nanoid';
import { partsBack } from '../investigation/stepBack';

// What people do to the tables of the trials: each takes a document and gives another one.

const shortId = () => nanoid(8);

export const tableIn = ({ tables }: TrialsDocument, id: string | null): TrialTable | undefined =>
  tables.find((table) => table.id === id) ?? tables[0];

export const withTable = (
  trials: TrialsDocument,
  id: string,
  change: (table: TrialTable) => TrialTable,
): TrialsDocument => ({
  ...trials,
  tables: trials.tables.map((table) => (table.id === id ? change(table) : table)),
});

export function withTableAdded(
  trials: TrialsDocument,
  parts: Partial<TrialTable>,
): { trials: TrialsDocument; id: string } {
  const id = shortId();
  return { trials: { ...trials, tables: [...trials.tables, { ...emptyTable, ...parts, id }] }, id };
}

export const withoutTable = (trials: TrialsDocument, id: string): TrialsDocument => ({
  ...trials,
  tables: trials.tables.filter((table) => table.id !== id),
});

/** What of a column is said when it is made. */
export type NewColumn = TrialColumn extends infer C
  ? C extends TrialColumn
    ? Omit<C, 'key' | 'name' | 'unit' | 'hidden'> & { name?: string; unit?: string; hidden?: boolean }
    : never
  : never;

/** A column of its own. Its key is never used again, so that what speaks of one that has gone speaks of no other. */
export const newColumn = (parts: NewColumn): TrialColumn =>
  ({ key: `c${shortId()}`, name: '', unit: '', hidden: false, ...parts }) as TrialColumn;

/** A table of other rows: which of the values of a run did not count says nothing of other values. */
export const withRows = (table: TrialTable, rows: TrialTable['rows']): TrialTable =>
  isEqual(rows, table.rows)
    ? table
    : { ...table, rows, leftOut: table.leftOut.filter(({ row }) => !row.includes('/')) };

export const withColumn = (table: TrialTable, column: TrialColumn): TrialTable => ({
  ...table,
  columns: [...table.columns, column],
});

export const withColumnChanged = (
  table: TrialTable,
  key: string,
  patch: Partial<Pick<TrialColumn, 'name' | 'unit' | 'hidden'>> & { formula?: string },
): TrialTable => ({
  ...table,
  columns: table.columns.map((column) =>
    column.key === key ? ({ ...column, ...patch } as TrialColumn) : column,
  ),
});

const without = (key: string | null, gone: string) => (key === gone ? null : key);

export const withoutColumn = (table: TrialTable, key: string): TrialTable => ({
  ...table,
  columns: table.columns.filter((column) => column.key !== key),
  sort: table.sort?.column === key ? null : table.sort,
  only: table.only?.column === key ? null : table.only,
  groupBy: without(table.groupBy, key),
  plot: {
    ...table.plot,
    value: without(table.plot.value, key),
    category: without(table.plot.category, key),
    beside: without(table.plot.beside, key),
    apart: without(table.plot.apart, key),
    names: without(table.plot.names, key),
  },
});

/** A column laid where another one stands. */
export function withColumnMoved(table: TrialTable, key: string, over: string): TrialTable {
  const from = table.columns.findIndex((column) => column.key === key);
  const to = table.columns.findIndex((column) => column.key === over);
  if (from < 0 || to < 0 || from === to) return table;
  const columns = [...table.columns];
  columns.splice(to, 0, ...columns.splice(from, 1));
  return { ...table, columns };
}

/** A row that does not count, with the reason; null where it counts again. */
export const withLeftOut = (table: TrialTable, row: string, why: string | null): TrialTable => {
  const others = table.leftOut.filter((one) => one.row !== row);
  return { ...table, leftOut: why === null ? others : [...others, { row, why }] };
};

export const withTypedRow = (
  table: TrialTable,
  name: string,
  cells: Readonly<Record<string, TypedCell>> = {},
): TrialTable => ({ ...table, typed: [...table.typed, { id: `t${shortId()}`, name, cells }] });

/** Rows that are to be recorded, and the columns of what is changed in them. */
export function withPlannedRows(table: TrialTable, rows: readonly PlannedRow['conditions'][]): TrialTable {
  const shown = new Set(
    table.columns.flatMap((column) => (column.kind === 'condition' ? [column.condition] : [])),
  );
  const missing = [...new Set(rows.flatMap((row) => Object.keys(row)))].filter((key) => !shown.has(key));
  return {
    ...table,
    columns: [...missing.map((condition) => newColumn({ kind: 'condition', condition })), ...table.columns],
    planned: [...table.planned, ...rows.map((conditions) => ({ id: `p${shortId()}`, conditions }))],
  };
}

/** What is planned of a row; null takes it away. */
export const withPlannedCell = (
  table: TrialTable,
  row: string,
  condition: string,
  value: ConditionValue | null,
): TrialTable => ({
  ...table,
  planned: table.planned.map((planned) =>
    planned.id === row
      ? { ...planned, conditions: withConditionsChanged(planned.conditions, { [condition]: value }) }
      : planned,
  ),
});

export const withoutPlannedRow = (table: TrialTable, row: string): TrialTable => ({
  ...table,
  planned: table.planned.filter(({ id }) => id !== row),
});

/** What stands in a cell of a typed row; null takes it away. */
export const withTypedCell = (
  table: TrialTable,
  row: string,
  key: string,
  value: TypedCell | null,
): TrialTable => ({
  ...table,
  typed: table.typed.map((typed) => {
    if (typed.id !== row) return typed;
    const others = Object.entries(typed.cells).filter(([own]) => own !== key);
    return { ...typed, cells: Object.fromEntries(value === null ? others : [...others, [key, value]]) };
  }),
});

export const withoutTypedRow = (table: TrialTable, row: string): TrialTable => ({
  ...withLeftOut(table, row, null),
  typed: table.typed.filter(({ id }) => id !== row),
});

export const withTypedName = (table: TrialTable, row: string, name: string): TrialTable => ({
  ...table,
  typed: table.typed.map((typed) => (typed.id === row ? { ...typed, name } : typed)),
});

/** The trials with one step taken back, table by table; what others have changed since stays. */
export function trialsSteppedBack(
  present: TrialsDocument,
  after: TrialsDocument,
  before: TrialsDocument,
): { document: TrialsDocument; isWhole: boolean } {
  if (present === after || isEqual(present, after)) return { document: before, isWhole: true };
  const { parts, isWhole } = partsBack(present.tables, after.tables, before.tables, ({ id }) => id);
  return { document: { ...present, tables: parts }, isWhole };
}

/** Why a change makes trials that could not be stored; null where it can be. What stands as before is not looked at again. */
export function faultOfTrials(
  before: TrialsDocument,
  after: TrialsDocument,
  isMoving: boolean,
): string | null {
  if (after.tables.length > mostInTrials.tables)
    return `An investigation keeps ${mostInTrials.tables} tables. Remove one first. Nothing was changed.`;
  const full = after.tables.find(({ columns }) => columns.length > mostInTrials.columns);
  if (full !== undefined)
    return `A table has ${mostInTrials.columns} columns at most. Remove one first. Nothing was changed.`;
  if (after.tables.some(({ typed }) => typed.length > mostInTrials.typedRows))
    return `A table has ${mostInTrials.typedRows} typed rows at most. Remove some first. Nothing was changed.`;
  if (isMoving) return null;
  const issue = trialsSchema.safeParse(whatIsNew(before, after)).error?.issues[0];
  return issue === undefined
    ? null
    : `This could not be kept (${issue.path.join(' ')}: ${issue.message}). Nothing was changed.`;
}

/** Of tables only those that have changed, and of these only the typed rows that have: there may be ten thousand others. */
function whatIsNew(before: TrialsDocument, after: TrialsDocument): TrialsDocument {
  const known = new Set<unknown>(before.tables.flatMap((table) => [table, ...table.typed]));
  return {
    ...after,
    tables: after.tables
      .filter((table) => !known.has(table))
      .map((table) => ({ ...table, typed: table.typed.filter((row) => !known.has(row)) })),
  };
}
