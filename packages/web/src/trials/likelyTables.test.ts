import { emptyWorkings, trialTableSchema } from '@heuristor/contracts';
import { runOf } from '../testing/runs';
import { likelyTables } from './likelyTables';
import { runOutcome } from './rowOutcomes';

const repeats = (of: `channel:${string}` | `entry:${string}`, symbol: string) => ({
  sheet: 0,
  of,
  symbol,
  unit: 'm',
  values: [1, 2],
  uncertainties: [0.1, 0.1],
  together: [],
});

test('single readings are offered as rows: what was read against what was typed, and what an entry tells of each', () => {
  const outcome = runOutcome({
    runId: 'r',
    sheets: [{}],
    results: [],
    shared: [],
    own: [],
    repeats: [
      repeats('channel:d', 'd'),
      repeats('channel:B', 'B'),
      repeats('entry:swing/period', 'period of x'),
      repeats('entry:swing/amplitude', 'amplitude of x'),
      repeats('entry:alone/peak', 'peak of x'),
    ],
  });
  const found = likelyTables({
    runs: [runOf('r', ['d', 'B'])],
    conditions: [],
    workings: emptyWorkings,
    outcomes: new Map([['r', outcome]]),
  });
  expect(found.map(({ title }) => title)).toEqual([
    'B against d, each of them a row',
    'period of x against amplitude of x, each of them a row',
  ]);
  const [{ table }] = found;
  expect(trialTableSchema.safeParse({ ...table, id: 'made' }).success).toBe(true);
  expect(table.rows).toEqual({ kind: 'values', of: 'channel:B' });
  expect(table.columns.map((column) => column.kind === 'value' && column.of)).toEqual([
    'channel:d',
    'channel:B',
  ]);
  const [across, upright] = table.columns.map(({ key }) => `channel:${key}`);
  expect(table.sheet.pages[0]).toMatchObject({ horizontal: across, panels: [{ series: [upright] }] });
});
