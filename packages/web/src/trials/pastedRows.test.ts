import { emptyTable, emptyWorkings, type TrialColumn } from '@heuristor/contracts';
import { uniformRandom } from '@heuristor/core';
import { tableText } from './copyTable';
import { pastedRows } from './pastedRows';
import { tableView } from './tableView';
import { runOutcome } from './rowOutcomes';
import { runOf } from '../testing/runs';

const columns = [
  { kind: 'result', key: 'c-slope', name: '', unit: '', hidden: false, entry: 'e', field: 'slope' },
  { kind: 'condition', key: 'c-d', name: '', unit: '', hidden: false, condition: 'd' },
] satisfies TrialColumn[];
const run = { ...runOf('r', ['x']), conditions: { d: { value: 0.1, u: null } } };
const inputs = {
  table: { ...emptyTable, id: 't', columns },
  runs: [run],
  conditions: [{ key: 'd', name: 'd', kind: 'number' as const, unit: 'm' }],
  workings: {
    ...emptyWorkings,
    entries: [{ kind: 'statistics' as const, id: 'e', name: '', of: 'channel:x' as const, region: null }],
  },
  outcomes: new Map([
    [
      'r',
      runOutcome({
        runId: 'r',
        sheets: [{}],
        results: [
          {
            sheet: 0,
            entry: 'e',
            region: null,
            field: 'slope',
            name: 'slope',
            value: 0.25,
            unit: 'm/s',
            standardUncertainty: null,
            degreesOfFreedom: null,
            roundTo: null,
            main: true,
          },
        ],
        shared: [],
        own: [],
        repeats: [],
      }),
    ],
  ]),
};
const pasted = (text: string) => pastedRows(text, tableView(inputs), inputs);

test('headings are columns by their names, with units and uncertainties', () => {
  const { rows, unknown, faults } = pasted(
    'whose\td / cm\tslope\tu(slope)\tcolour\nTerns\t50\t1.25\t0.02\tred\nGulls\t60\t1,5\t\tblue\n',
  );
  expect(faults).toEqual([]);
  expect(unknown).toEqual(['colour']);
  expect(rows).toEqual([
    {
      name: 'Terns',
      cells: {
        'c-d': { value: 0.5, u: null, unit: 'm' },
        'c-slope': { value: 1.25, u: 0.02, unit: 'm.s-1' },
      },
    },
    {
      name: 'Gulls',
      cells: {
        'c-d': { value: 0.6, u: null, unit: 'm' },
        'c-slope': { value: 1.5, u: null, unit: 'm.s-1' },
      },
    },
  ]);
});

test('without headings cells are the columns in their order; a cell that is none is named', () => {
  const { rows, faults } = pasted('0.5 ± 0.01\t0.2\nhow many\t0.4\n');
  expect(rows.map(({ cells }) => cells)).toEqual([
    { 'c-slope': { value: 0.5, u: 0.01, unit: 'm.s-1' }, 'c-d': { value: 0.2, u: null, unit: 'm' } },
    { 'c-d': { value: 0.4, u: null, unit: 'm' } },
  ]);
  expect(faults).toHaveLength(1);
  expect(faults[0]).toMatch(/^Row 2, slope: /);
});

test('what was copied from a table and is pasted into it again is the same, number by number', () => {
  const uniform = uniformRandom(12);
  const typed = Array.from({ length: 300 }, (_, i) => {
    const size = 10 ** Math.floor(24 * uniform() - 12);
    return {
      id: `t${i}`,
      name: `row ${i}`,
      cells: {
        'c-slope': {
          value: (uniform() - 0.5) * size,
          u: uniform() < 0.3 ? null : uniform() * size,
          unit: 'm.s-1',
        },
        'c-d': { value: uniform() * size, u: uniform() * 0.1 * size, unit: 'm' },
      },
    };
  });
  const own = { ...inputs, runs: [], table: { ...inputs.table, typed } };
  const view = tableView({ ...own, outcomes: inputs.outcomes });
  const { rows, unknown, faults } = pastedRows(
    tableText(view, () => true),
    view,
    own,
  );
  expect([unknown, faults]).toEqual([[], []]);
  expect(rows).toEqual(typed.map(({ name, cells }) => ({ name, cells })));
});
