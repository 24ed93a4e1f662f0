import { acrossTicks, axisTicks, uprightTicks } from './axisTicks';

const texts = (ticks: { text: string }[]) => ticks.map(({ text }) => text);

test('ticks are round numbers without a trail of digits, and a minus is a minus', () => {
  expect(texts(axisTicks(-0.3, 0.3, 6))).toEqual(['−0.3', '−0.2', '−0.1', '0', '0.1', '0.2', '0.3']);
  expect(texts(axisTicks(0, 8, 8))).toEqual(['0', '1', '2', '3', '4', '5', '6', '7', '8']);
});

test('none lies beyond the ends, and of a wide or narrow plot there are as many as have room', () => {
  for (const [low, high] of [
    [0, 1],
    [-3.7, 12.9],
    [1e-9, 3e-9],
    [101_300, 101_325],
    [-1e6, 1e6],
  ])
    for (const width of [60, 150, 400, 1200]) {
      const found = acrossTicks(low, high, width, 12);
      for (const { value } of found) {
        expect(value).toBeGreaterThanOrEqual(low);
        expect(value).toBeLessThanOrEqual(high);
      }
      const longest = Math.max(...found.map(({ text }) => text.length)) * 7.2;
      if (found.length > 2) expect(found.length * (longest + 20)).toBeLessThanOrEqual(width);
      expect(uprightTicks(low, high, width, 12).length).toBeLessThanOrEqual(width / 12);
    }
});

test('an axis without a length, or with ends that are none, has no ticks', () => {
  expect(axisTicks(1, 1, 5)).toEqual([]);
  expect(axisTicks(NaN, 1, 5)).toEqual([]);
  expect(axisTicks(0, Infinity, 5)).toEqual([]);
});

test('an axis that is low but not too low has two numbers at the least', () => {
  expect(texts(uprightTicks(-0.047, 0.047, 94, 12))).toEqual(['−0.04', '−0.02', '0', '0.02', '0.04']);
  expect(uprightTicks(-0.047, 0.047, 30, 12)).toHaveLength(1);
});
