import {
  type Run,
  type TrialColumn,
  type TrialTable,
  type WorkingsDocument,
  emptyTable,
  emptyWorkings,
  trialTableSchema,
} from '@heuristor/contracts';
import {
  type Entry,
  Evaluator,
  type RunData,
  parseUnit,
  storedEvaluation,
  uniformRandom,
} from '@heuristor/core';
import { runOf, stored } from '../testing/runs';
import { isCountedIn } from './counted';
import { type RunReadings } from '@heuristor/evaluation';
import { type DerivedRun, derivedRuns } from './derivedRun';
import { runOutcome } from './rowOutcomes';
import { tableText } from './copyTable';
import { markedSpans } from './holds';
import { groupsOf } from './groups';
import { barsOf } from './categoryBars';
import { plainCells } from './cellText';
import { RowMemory } from './rowMemory';
import { type TableInputs, type TableView, type TrialRow, tableView } from './tableView';

// Random tables over random runs and sheets: nothing is thrown, what has gone is said in its column, and what counts is what is there.

const entries: Entry[] = [
  {
    kind: 'constant',
    id: 'l',
    name: 'l',
    value: 0.1,
    uncertainty: 0.001,
    unit: 'm',
    source: '',
    ends: '',
    shift: 0,
  },
  { kind: 'statistics', id: 'mean', name: '', of: 'channel:x', region: null },
  { kind: 'slope', id: 'slope', name: 'v', of: 'channel:x', against: 't', region: null },
  { kind: 'calculation', id: 'ratio', name: 'q', formula: { text: 'l/v', names: {} }, unit: '' },
  { kind: 'statistics', id: 'other', name: '', of: 'channel:F', region: null },
];
const conditions = [
  { key: 'm', name: 'm', kind: 'number' as const, unit: 'kg' },
  { key: 'w', name: 'spring', kind: 'word' as const, unit: '' },
];
const formulas = [
  'v/m',
  'v^2',
  'ln(v)',
  'l m',
  '1/(m - m)',
  'nobody + 1',
  'v +',
  'spring',
  '',
  'q v/l',
  'sqrt(m)',
];

function tableBy(uniform: () => number): { inputs: TableInputs; table: TrialTable } {
  const pick = <T>(all: readonly T[]): T => all[Math.floor(uniform() * all.length)];
  const some = <T>(all: readonly T[], share: number): T[] => all.filter(() => uniform() < share);
  const runs: Run[] = Array.from({ length: Math.floor(uniform() * 6) }, (_, i) => ({
    ...runOf(`run-${i}`, ['x']),
    number: i + 1,
    name: `run ${i}`,
    group: pick(['', 'Gulls', 'Terns']),
    conditions: {
      ...(uniform() < 0.8 ? { m: { value: pick([0, 0.5, 1, -2]), u: pick([null, 0, 0.01]) } } : {}),
      ...(uniform() < 0.8 ? { w: { word: pick(['soft', 'stiff', '']) } } : {}),
    },
  }));
  const left = some(entries, 0.8);
  const workings: WorkingsDocument = { ...emptyWorkings, entries: left };
  const outcomes = new Map(
    some(runs, 0.9).map((run) => {
      const count = pick([2, 3, 40]);
      const evaluator = stored(run, [
        Float64Array.from({ length: count }, (_, i) => 0.02 * i + 0.001 * uniform()),
      ]);
      return [
        run.id,
        runOutcome(storedEvaluation(run.id, [{ workings, outcomes: evaluator.evaluate(workings).outcomes }])),
      ] as const;
    }),
  );
  let key = 0;
  const base = () => ({
    key: `k${key++}`,
    name: pick(['', '', 'a', 'v', 'a long name of it']),
    unit: pick(['', '', '', 'cm', 's', 'g']),
    hidden: uniform() < 0.1,
  });
  const columns = Array.from({ length: Math.floor(uniform() * 8) }, (): TrialColumn =>
    pick<() => TrialColumn>([
      () => ({
        ...base(),
        kind: 'result',
        entry: pick(['l', 'mean', 'slope', 'ratio', 'other', 'gone']),
        field: pick(['value', 'mean', 'slope', 'sd', 'nothing']),
      }),
      () => ({ ...base(), kind: 'condition', condition: pick(['m', 'w', 'gone']) }),
      () => ({ ...base(), kind: 'run', of: pick(['number', 'name', 'group', 'date', 'note'] as const) }),
      () => ({ ...base(), kind: 'formula', formula: pick(formulas) }),
      () => ({ ...base(), kind: 'value', of: pick(['channel:x', 'entry:gone'] as const) }),
    ])(),
  );
  const keys = columns.map((column) => column.key);
  const typed = Array.from({ length: Math.floor(uniform() * 4) }, (_, i) => ({
    id: `t${i}`,
    name: pick(['', 'Puffins']),
    cells: Object.fromEntries(
      some(keys, 0.6).map((column) => [
        column,
        uniform() < 0.7
          ? {
              value: pick([0, 1e9, -3.5, 1e-12]),
              u: pick([null, 0.1, 0]),
              unit: pick(['', 'm', 'kg', 'm/s']),
            }
          : { word: 'soft' },
      ]),
    ),
  }));
  const rows = [...runs.map(({ id }) => id), ...typed.map(({ id }) => id), 'gone'];
  const column = () => (keys.length === 0 || uniform() < 0.3 ? null : pick(keys));
  const only = column();
  const table: TrialTable = {
    ...emptyTable,
    id: 'table',
    columns,
    typed,
    rows: pick<TrialTable['rows']>([
      { kind: 'runs' },
      { kind: 'runs' },
      { kind: 'values', of: 'channel:x' },
      { kind: 'constant', entry: pick(['l', 'gone']), ends: '', count: 3 },
    ]),
    leftOut: some(rows, 0.2).map((row) => ({ row, why: pick(['', 'rubbed']) })),
    only: only === null || uniform() < 0.6 ? null : { column: only, words: some(['soft', 'Gulls', ''], 0.5) },
    groupBy: column(),
    plot: {
      kind: 'bars',
      value: column(),
      category: column(),
      beside: column(),
      holds:
        uniform() < 0.5 || keys.length === 0
          ? null
          : { column: pick(keys), is: 'atMost', level: 0, unit: pick(['', 'm', 's']) },
      apart: column(),
      names: column(),
      spread: pick(['sd', 'box', 'histogram'] as const),
    },
  };
  // What follows from values of a constant has come of some runs.
  const across = {
    count: 3,
    outcomes: new Map(some([...outcomes], 0.5).map(([id, outcome]) => [id, [outcome, outcome, outcome]])),
  };
  return { table, inputs: { table, runs, conditions, workings, outcomes, across } };
}

test.each(Array.from({ length: 40 }, (_, block) => block))('random tables, block %p', (block) => {
  const uniform = uniformRandom(9000 + block);
  for (let i = 0; i < 10; i++) {
    const { table, inputs } = tableBy(uniform);
    expect(trialTableSchema.safeParse(table).error?.issues ?? []).toEqual([]);
    const view = tableView(inputs);
    remembered(inputs, view);
    const isCounted = isCountedIn(table);
    // No two columns are called alike; each cell stands in each row; what has gone is said.
    expect(new Set(view.columns.map(({ title }) => title)).size).toBe(view.columns.length);
    for (const row of view.rows)
      expect(Object.keys(row.cells).sort()).toEqual(table.columns.map(({ key }) => key).sort());
    for (const { column, fault } of view.columns) {
      const isGone =
        (column.kind === 'result' && !inputs.workings.entries.some(({ id }) => id === column.entry)) ||
        (column.kind === 'condition' && column.condition === 'gone');
      expect(fault !== null || column.kind === 'value').toBe(isGone || column.kind === 'value');
    }
    const derived = derivedRuns(view, 'trials-table', isCounted, table.plot.apart);
    // Every row that is looked at is a reading of one run, in its place.
    const places = derived.flatMap((one) => [...one.places]).sort((a, b) => a - b);
    expect(places).toEqual(view.rows.filter(isCounted).map((_, i) => i + 1));
    for (const one of derived) checked(one, view);
    expect(tableText(view, isCounted).split('\n').length).toBeLessThanOrEqual(view.rows.length + 1);
    groupsOf(view.rows, table.groupBy);
    const { holds } = table.plot;
    if (holds !== null)
      for (const { from, to } of markedSpans(view.rows, pickOne(table.columns), holds))
        expect(from).toBeLessThanOrEqual(to);
    const value = view.columns.find(({ key }) => key === table.plot.value);
    if (value !== undefined && value.unit !== null)
      barsOf(
        view.rows,
        value,
        view.columns[0],
        view.columns.find(({ key }) => key === table.plot.beside),
      );
  }
});

const pickOne = (columns: readonly TrialColumn[]): string => columns[0].key;

/** The readings of a run that a table is are the numbers that stand in it, no more and no less. */
function checked(derived: DerivedRun, { columns }: TableView) {
  const { values, single = [] } = derived.readings();
  derived.run.channels.forEach(({ key }, c) => {
    derived.rows.forEach(({ cells: { [key]: cell } }, r) => {
      if (cell.kind === 'number') expect(values[c][r]).toBe(cell.quantity.value);
      else expect(values[c][r]).toBeNaN();
    });
    const alone = single[c].together?.reduce(
      (sum, { effect }) => sum.map((whole, r) => whole + effect[r] ** 2),
      new Float64Array(values[c].length),
    );
    alone?.forEach((shared, r) => {
      const u = single[c].uncertainties[r];
      if (u > 0) expect(shared).toBeLessThanOrEqual(u * u * (1 + 1e-9));
    });
  });
  evaluated(
    derived.run,
    derived.readings(),
    columns.map(({ key }) => key),
  );
}

const memory = new RowMemory<TrialRow>();
const textOf = ({ rows }: TableView) =>
  rows.map(({ id, leftOut, cells }) => [
    id,
    leftOut,
    Object.entries(cells).map(([key, cell]) => [key, cell.kind === 'nothing' ? cell.why : plainCells(cell)]),
  ]);

/** What is remembered of rows that were laid out before changes nothing of what stands there, also where one of them is another now. */
function remembered(inputs: TableInputs, view: TableView): void {
  expect(textOf(tableView(inputs, memory))).toEqual(textOf(view));
  const again = tableView(inputs, memory);
  expect(textOf(again)).toEqual(textOf(view));
  const { table } = inputs;
  const [first, ...others] = table.typed;
  if (first === undefined) return;
  const changed = {
    ...inputs,
    table: {
      ...table,
      typed: [{ ...first, cells: {} }, ...others],
      leftOut: [{ row: first.id, why: 'anew' }],
    },
  };
  const after = tableView(changed, memory);
  expect(textOf(after)).toEqual(textOf(tableView(changed)));
  const isLeftOut = new Set(table.leftOut.map(({ row }) => row));
  const units = (one: TableView) => JSON.stringify(one.columns.map(({ unit }) => unit));
  if (units(after) !== units(again)) return;
  for (const { id } of others)
    if (!isLeftOut.has(id))
      expect(after.rows.find((row) => row.id === id)).toBe(again.rows.find((row) => row.id === id));
}

/** Whatever is fitted or summed up over a table gives numbers or a sentence, and never fails. */
function evaluated(run: Run, readings: RunReadings, keys: readonly string[]) {
  const data: RunData = {
    id: run.id,
    channels: run.channels.map(({ key, symbol, quantity, unit }, c) => ({
      key,
      symbol,
      quantity,
      unit: parseUnit(unit),
      timeUnit: [],
      sampling: { kind: 'regular', start: 1, interval: 1, count: readings.values[c].length },
      values: readings.values[c],
      low: null,
      high: null,
      noise: null,
      ...readings.single?.[c],
    })),
  };
  const [a = 'none', b = 'none'] = keys;
  const sheet: Entry[] = (['own', 'equal', 'relative'] as const).flatMap((weights): Entry[] => [
    {
      kind: 'fit',
      id: `line-${weights}`,
      name: '',
      relation: 'line',
      of: `channel:${a}`,
      against: `channel:${b}`,
      region: null,
      weights,
      showResiduals: false,
    },
    { kind: 'statistics', id: `mean-${weights}`, name: '', of: `channel:${b}`, region: null },
  ]);
  for (const outcome of new Evaluator(data).evaluate({ entries: sheet }).outcomes.values())
    if (outcome.kind === 'refused') {
      expect(outcome.isFault).toBeUndefined();
      expect(outcome.sentence).not.toMatch(/NaN|undefined/);
    } else if (outcome.kind === 'results')
      for (const { quantity } of outcome.results) expect(quantity.value).not.toBeUndefined();
}
