import {
  type ConditionColumn,
  type PlannedRow,
  type Run,
  type TrialColumn,
  type TrialTable,
  type TypedRow,
  type WorkingsDocument,
  fillingRuns,
} from '@heuristor/contracts';
import {
  type Cell,
  type Unit,
  calculatedCell,
  inUnit,
  nothing,
  numberCell,
  parseUnit,
  printedUnit,
  resultRef,
  sameName,
  typedQuantityOf,
} from '@heuristor/core';
import { RowMemory } from './rowMemory';
import { asTyped, conditionCell, runFieldCell } from './runCells';
import { plannedName } from './plannedName';
import { resultTitles } from './resultTitles';
import { type RunOutcome, placeOf } from './rowOutcomes';

/** A row of a table of trials, with what stands in it. */
export interface TrialRow {
  id: string;
  /** A planned one is open: no run has filled it. */
  kind: 'run' | 'planned' | 'typed';
  /** Null of a row that is no run. */
  run: Run | null;
  /** Which value of its run it is, where values are the rows. */
  place: number | null;
  name: string;
  /** By the keys of the columns. */
  cells: Readonly<Record<string, Cell>>;
  /** Why it does not count; null where it does. */
  leftOut: string | null;
}

/** A column with what it is called and measured in. */
export interface ViewColumn {
  column: TrialColumn;
  key: string;
  title: string;
  /** What it shows, where the title does not say it. */
  subtitle: string;
  /** Null of words, and of a column without any number. */
  unit: Unit | null;
  /** Why nothing can stand in it; null where something can. */
  fault: string | null;
}

export interface TableView {
  columns: ViewColumn[];
  /** All, in the order of the runs, then those that are planned, then those that were typed. */
  rows: TrialRow[];
}

export interface TableInputs {
  table: TrialTable;
  /** Those that count as rows. */
  runs: readonly Run[];
  conditions: readonly ConditionColumn[];
  workings: WorkingsDocument;
  outcomes: ReadonlyMap<string, RunOutcome>;
  /** Where rows are values of a constant: what follows from each, by run, and how many there are. */
  across?: { count: number; outcomes: ReadonlyMap<string, readonly RunOutcome[]> };
}

/** What a table shows: rows from runs and from what was typed, columns from results, conditions and formulas. */
export function tableView(inputs: TableInputs, memory = new RowMemory<TrialRow>()): TableView {
  const { table, runs } = inputs;
  const namesOf = resultTitles(inputs);
  const heads = titled(table.columns.map((column) => headOf(column, inputs, namesOf)));
  const leftOut = new Map(table.leftOut.map(({ row, why }) => [row, why]));
  const { conditions, workings, outcomes } = inputs;
  memory.begin([
    table.columns,
    table.rows,
    conditions,
    workings,
    outcomes,
    inputs.across?.outcomes,
    inputs.across?.count,
    heads.map(({ title }) => title).join('\n'),
  ]);
  const rows: TrialRow[] = [
    ...runs.flatMap((run) =>
      placesIn(run, inputs).map((place) => {
        const id = place === null ? run.id : `${run.id}/${place}`;
        const why = leftOut.get(id) ?? null;
        return memory.row(run, place, why, () => ({
          id,
          kind: 'run',
          run,
          place,
          name: run.name,
          leftOut: why,
          cells: cellsOf(heads, (column) => runCell(column, { run, place }, inputs), {
            called: (name) => calledInRun(name, { run, place }, inputs),
          }),
        }));
      }),
    ),
    ...openIn(table, runs).map((planned) =>
      memory.row(planned, null, null, () => ({
        id: planned.id,
        kind: 'planned',
        run: null,
        place: null,
        name: plannedName(planned, conditions),
        leftOut: null,
        cells: cellsOf(heads, (column) => plannedCell(column, planned, inputs), {
          called: (name) => calledWhenPlanned(name, planned, inputs),
        }),
      })),
    ),
    ...table.typed.map((typed) => {
      const why = leftOut.get(typed.id) ?? null;
      return memory.row(typed, null, why, () => ({
        id: typed.id,
        kind: 'typed',
        run: null,
        place: null,
        name: typed.name,
        leftOut: why,
        cells: cellsOf(heads, (column) => typedCell(column, typed, heads), {
          called: (name) => calledInAny(name, inputs),
        }),
      }));
    }),
  ];
  const columns = heads.map((head) => ({ ...head, unit: unitOfColumn(head, rows, inputs) }));
  const units = JSON.stringify(columns.map(({ key, unit }) => [key, unit]));
  return {
    columns,
    rows: rows.map((row) =>
      memory.inUnits(units, row, () => ({ ...row, cells: inUnits(row.cells, columns) })),
    ),
  };
}

type Head = Omit<ViewColumn, 'unit'>;

const runTitles = { number: 'run', name: 'name', group: 'group', date: 'date', note: 'note' } as const;

function headOf(
  column: TrialColumn,
  { workings, conditions, outcomes }: TableInputs,
  names: Readonly<Record<string, string>>,
): Head {
  const head = (title: string, subtitle = '', fault: string | null = null): Head => ({
    column,
    key: column.key,
    title: column.name === '' ? title : column.name,
    subtitle,
    fault,
  });
  switch (column.kind) {
    case 'run':
      return head(runTitles[column.of]);
    case 'condition': {
      const found = conditions.find(({ key }) => key === column.condition);
      return found === undefined
        ? head('condition', '', 'This condition is not asked any more. Remove the column, or undo.')
        : head(found.name, column.name === '' || column.name === found.name ? '' : found.name);
    }
    case 'formula':
      return head(
        column.formula === '' ? 'formula' : column.formula,
        column.name === '' ? '' : column.formula,
      );
    case 'value': {
      for (const { repeats } of outcomes.values()) {
        const found = repeats.get(column.of);
        if (found !== undefined) return head(found.symbol);
      }
      return head('values', '', 'No run has such values. Remove the column, or undo.');
    }
    case 'result': {
      const entry = workings.entries.find(({ id }) => id === column.entry);
      if (entry === undefined)
        return head('result', '', 'This entry was removed from the workings. Remove the column, or undo.');
      const called = names[resultRef(column.entry, column.field)] ?? '';
      const some = [...outcomes.values()]
        .map(({ results }) => results.get(placeOf(column.entry, column.field)))
        .find((result) => result !== undefined);
      const own = some?.name ?? column.field;
      const title = entry.name !== '' && (some?.main ?? true) ? entry.name : own;
      return head(
        title,
        called === title
          ? ''
          : called.replace(/^(.{0,60}) of /, (all, first) => (first === title ? '' : all)),
      );
    }
  }
}

/** No two columns are called alike, so that a formula can speak of each. */
function titled(heads: readonly Head[]): Head[] {
  const taken = new Set<string>();
  return heads.map((head) => {
    let { title } = head;
    for (let alike = 2; taken.has(sameName(title)); alike++) title = `${head.title} ${alike}`;
    taken.add(sameName(title));
    return { ...head, title };
  });
}

/** The cells of a row; formulas last, since they speak of the others and of formulas before them. */
function cellsOf(
  heads: readonly Head[],
  plain: (column: TrialColumn) => Cell,
  { called }: { called: (name: string) => Cell | null },
): Record<string, Cell> {
  const cells: Record<string, Cell> = {};
  const byName = new Map<string, Cell>();
  const put = ({ key, title }: Head, cell: Cell) => {
    cells[key] = cell;
    if (!byName.has(sameName(title))) byName.set(sameName(title), cell);
  };
  for (const head of heads) if (head.column.kind !== 'formula') put(head, plain(head.column));
  for (const head of heads) {
    if (head.column.kind !== 'formula') continue;
    const typed = plain(head.column);
    const { formula, unit } = head.column;
    put(
      head,
      typed.kind !== 'nothing'
        ? typed
        : calculatedCell(formula, unit, { called: (name) => byName.get(name) ?? called(name) }),
    );
  }
  return cells;
}

const wait: Cell = { kind: 'nothing', why: 'Not worked out yet.' };

/** The rows of a run: itself, or each value of the series that the table is of. */
function placesIn({ id }: Run, { table, outcomes, across }: TableInputs): (number | null)[] {
  if (table.rows.kind === 'runs') return [null];
  if (table.rows.kind === 'constant') return Array.from({ length: across?.count ?? 0 }, (_, i) => i);
  const { quantities = [] } = outcomes.get(id)?.repeats.get(table.rows.of) ?? {};
  return quantities.map((_, i) => i);
}

/** A run, and which of its values a row is of. */
interface OfRow {
  run: Run;
  place: number | null;
}

/** What the workings say in a row. */
const outcomeOf = (
  { run, place }: OfRow,
  { table, outcomes, across }: TableInputs,
): RunOutcome | undefined =>
  table.rows.kind === 'constant' ? across?.outcomes.get(run.id)?.[place ?? 0] : outcomes.get(run.id);

function runCell(column: TrialColumn, row: OfRow, inputs: TableInputs): Cell {
  const { run, place } = row;
  const { outcomes, conditions } = inputs;
  switch (column.kind) {
    case 'run':
      return runFieldCell(column.of, run);
    case 'condition': {
      const found = conditions.find(({ key }) => key === column.condition);
      return found === undefined ? nothing : conditionCell(run.conditions[found.key], found);
    }
    case 'formula':
      return nothing;
    case 'value': {
      const quantity = outcomes.get(run.id)?.repeats.get(column.of)?.quantities[place ?? -1];
      return quantity === undefined || Number.isNaN(quantity.value) ? nothing : numberCell(quantity);
    }
    case 'result': {
      const outcome = outcomeOf(row, inputs);
      if (outcome === undefined) return wait;
      const result = outcome.results.get(placeOf(column.entry, column.field));
      if (result !== undefined) {
        const { quantity, roundTo } = result;
        return Number.isNaN(quantity.value)
          ? { kind: 'nothing', why: 'This has no value in this run.' }
          : numberCell(quantity, roundTo === null ? null : Number(roundTo));
      }
      const said = outcome.outcomes[column.entry];
      return { kind: 'nothing', why: said?.kind === 'refused' ? said.sentence : null };
    }
  }
}

function typedCell(column: TrialColumn, row: TypedRow, heads: readonly Head[]): Cell {
  if (column.kind === 'run' && column.of === 'name') return { kind: 'word', text: row.name };
  const said = row.cells[column.key];
  if (said === undefined) return nothing;
  if ('word' in said) return { kind: 'word', text: said.word };
  const label = `${heads.find(({ key }) => key === column.key)?.title ?? ''} of ${row.name || 'a typed row'}`;
  return numberCell(
    typedQuantityOf(said.value, said.u, parseUnit(said.unit), {
      root: `typed/${row.id}/${column.key}`,
      label,
    }),
    asTyped,
  );
}

/** What a formula can speak of beside columns: entries of the workings by their names, and conditions. */
function calledInRun(name: string, row: OfRow, inputs: TableInputs): Cell | null {
  const { workings, conditions } = inputs;
  const { run } = row;
  const entry = workings.entries.find((one) => one.name !== '' && sameName(one.name) === name);
  if (entry !== undefined) {
    const outcome = outcomeOf(row, inputs);
    if (outcome === undefined) return wait;
    for (const result of outcome.results.values())
      if (result.entry === entry.id && result.main) return numberCell(result.quantity);
    const said = outcome.outcomes[entry.id];
    return { kind: 'nothing', why: said?.kind === 'refused' ? said.sentence : `${name} has no one value.` };
  }
  const condition = conditions.find((one) => sameName(one.name) === name);
  return condition === undefined ? null : conditionCell(run.conditions[condition.key], condition);
}

/** The planned rows of a table that no run has filled yet. */
function openIn({ planned }: TrialTable, runs: readonly Run[]): PlannedRow[] {
  const filling = fillingRuns(runs);
  return planned.filter(({ id }) => !filling.has(id));
}

function plannedCell(column: TrialColumn, { conditions: said }: PlannedRow, inputs: TableInputs): Cell {
  if (column.kind !== 'condition')
    return column.kind === 'formula' ? nothing : { kind: 'nothing', why: 'Not recorded yet.' };
  const found = inputs.conditions.find(({ key }) => key === column.condition);
  return found === undefined ? nothing : conditionCell(said[found.key], found);
}

function calledWhenPlanned(name: string, { conditions: said }: PlannedRow, inputs: TableInputs): Cell | null {
  const condition = inputs.conditions.find((one) => sameName(one.name) === name);
  return condition === undefined ? calledInAny(name, inputs) : conditionCell(said[condition.key], condition);
}

/** A constant of the workings, which is the same for every row. */
function calledInAny(name: string, { workings, outcomes }: TableInputs): Cell | null {
  const entry = workings.entries.find((one) => one.kind === 'constant' && sameName(one.name) === name);
  if (entry === undefined) return null;
  for (const { results } of outcomes.values())
    for (const result of results.values())
      if (result.entry === entry.id && result.main) return numberCell(result.quantity);
  return null;
}

/** The unit of a column: the one that was chosen, or that of its first number. */
function unitOfColumn(
  { key, column }: Head,
  rows: readonly TrialRow[],
  { conditions }: TableInputs,
): Unit | null {
  for (const { cells } of rows) {
    const cell = cells[key];
    if (cell.kind === 'number') return column.unit === '' ? cell.quantity.unit : parseUnit(column.unit);
  }
  // A number that is asked for is one before anybody has typed it.
  const asked = column.kind === 'condition' && conditions.find((one) => one.key === column.condition);
  return asked !== false && asked?.kind === 'number' ? parseUnit(column.unit || asked.unit) : null;
}

function inUnits(cells: TrialRow['cells'], columns: readonly ViewColumn[]): TrialRow['cells'] {
  return Object.fromEntries(
    columns.map(({ key, unit }): [string, Cell] => {
      const cell = cells[key];
      if (cell.kind !== 'number' || unit === null) return [key, cell];
      const quantity = inUnit(cell.quantity, unit);
      if (quantity === null)
        return [
          key,
          {
            kind: 'nothing',
            why: `This is in ${printedUnit(cell.quantity.unit) || 'plain numbers'}, the column in ${printedUnit(unit) || 'plain numbers'}.`,
          },
        ];
      return [key, quantity === cell.quantity ? cell : { kind: 'number', quantity, roundTo: cell.roundTo }];
    }),
  );
}
