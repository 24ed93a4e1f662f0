import { rowsOfPasses } from './passRows';

const passes = (
  times: number[],
  leftOut: { time: number; reason: string }[] = [],
): Parameters<typeof rowsOfPasses>[0][number] => ({
  times: Float64Array.from(times),
  values: Float64Array.from(times, (_, i) => i),
  leftOut,
});

test('what every pass has stands in one row a pass, with what was left out in its place', () => {
  const flicker = { time: 2, reason: 'the beam flickered' };
  const rows = rowsOfPasses([passes([1, 3], [flicker]), passes([1.1, 3.1], [flicker])]);
  expect(rows).toEqual([
    { number: 1, time: 1, places: [0, 0], reason: null },
    { number: null, time: 2, places: [null, null], reason: 'the beam flickered' },
    { number: 2, time: 3, places: [1, 1], reason: null },
  ]);
});

test('quantities of different moments have rows of their own; those of one moment share it', () => {
  const rows = rowsOfPasses([passes([1.5, 2.5]), passes([1, 2, 3]), passes([2])]);
  expect(rows.map(({ time, places }) => [time, ...places])).toEqual([
    [1, null, 0, null],
    [1.5, 0, null, null],
    [2, null, 1, 0],
    [2.5, 1, null, null],
    [3, null, 2, null],
  ]);
  expect(rows.every(({ number }) => number === null)).toBe(true);
});

test('before anything passed there is no row', () => {
  expect(rowsOfPasses([passes([]), passes([])])).toEqual([]);
});
