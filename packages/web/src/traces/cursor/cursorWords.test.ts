import { parseUnit } from '@heuristor/core';
import { runOf } from '../../testing/runs';
import { type DrawnTrace } from '../drawn';
import { cursorTable, differencesOf, tangentsOf } from './cursorWords';
import { type Read } from './cursor';

const [metre, centimetre, newton, second] = ['m', 'cm', 'N', 's'].map(parseUnit);
const empty = {
  key: 'channel:x',
  reference: 'channel:x' as const,
  lacking: [],
  weight: 1,
  lines: [],
  wholes: [],
  curves: [],
  others: [],
  low: 0,
  high: 1,
};
/** One trace: x on the left in metres, F on the right in newtons. */
const traces: DrawnTrace[] = [
  {
    ...empty,
    symbol: 'x',
    unit: metre,
    right: { symbol: 'F', unit: newton, low: 0, high: 10 },
    quantities: [
      { reference: 'channel:x', symbol: 'x', quantity: '', side: 'left' },
      { reference: 'channel:F', symbol: 'F', quantity: '', side: 'right' },
    ],
  },
];
const tangent = { slope: 3, unit: parseUnit('m/s'), window: 0.16 };
const read = (at: number, x: number, F: number, isLaid = false): Read => ({
  at,
  runs: [
    {
      runId: 'a',
      values: {
        'channel:x': { x: at, y: x, unit: metre, noise: null, tangent: isLaid ? tangent : null },
        'channel:F': { x: at, y: F, unit: newton, noise: null, tangent: null },
      },
    },
    {
      runId: 'b',
      values: { 'channel:x': { x: at, y: 100 * x, unit: centimetre, noise: null, tangent: null } },
    },
  ],
});

test('what lies between two cursors is the change from the second to the first, and its slope', () => {
  const [time, x, F] = differencesOf(read(3, 1.5, 4), read(1, 0.5, 10), 'a', traces, second);
  expect([time.symbol, time.change]).toEqual(['t', 2]);
  expect(x).toMatchObject({ symbol: 'x', change: 1, slope: 0.5, slopeUnit: parseUnit('m/s') });
  expect(F).toMatchObject({ symbol: 'F', change: -6, slope: -3, unit: newton });
});

test('a run in another unit is read in that of the axis, and what it has not is left out', () => {
  const found = differencesOf(read(3, 1.5, 4), read(1, 0.5, 10), 'b', traces, second);
  expect(found.map(({ symbol }) => symbol)).toEqual(['t', 'x']);
  expect(found[1].change).toBeCloseTo(1, 12);
});

test('two cursors at one place have no slope between them', () =>
  expect(differencesOf(read(1, 0.5, 4), read(1, 0.5, 4), 'a', traces, second)[1].slope).toBeNull());

test('tangents are those of the run that is asked for', () => {
  expect(tangentsOf(read(1, 0.5, 4, true), 'a', traces)).toEqual([{ symbol: 'x', ...tangent }]);
  expect(tangentsOf(read(1, 0.5, 4, true), 'b', traces)).toEqual([]);
});

test('copied columns have a row a run, with all digits, and empty cells where nothing was read', () => {
  const runs = [runOf('a', ['x', 'F'], { name: 'soft\tspring' }), runOf('b', ['x'], { name: 'stiff' })];
  const axis = { symbol: 't', unit: second, quantity: 'time' };
  const text = cursorTable(read(0.1 + 0.2, 1 / 3, 4), runs, traces, axis);
  const [heading, soft, stiff] = text.split('\n').map((line) => line.split('\t'));
  expect(heading).toEqual(['run', 't / s', 'x / m', 'F / N']);
  expect(soft).toEqual(['soft spring', '0.30000000000000004', String(1 / 3), '4']);
  expect([stiff[0], stiff[3]]).toEqual(['stiff', '']);
  expect(Number(stiff[2])).toBeCloseTo(1 / 3, 14);
});
