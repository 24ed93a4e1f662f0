import { acrossTicks, axisTicks, uprightTicks } from './axisTicks';

const texts = (ticks: { text: string }[]) => ticks.map(({ text }) => text);

test('ticks are round numbers without a trail of digits, and a minus is a minus', () => {
  expect(texts(axisTicks({ from: -0.3, to: 0.3 }, 6))).toEqual([
    '−0.3',
    '−0.2',
    '−0.1',
    '0',
    '0.1',
    '0.2',
    '0.3',
  ]);
  expect(texts(axisTicks({ from: 0, to: 8 }, 8))).toEqual(['0', '1', '2', '3', '4', '5', '6', '7', '8']);
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
      const found = acrossTicks({ from: low, to: high }, width, 12);
      for (const { value } of found) {
        expect(value).toBeGreaterThanOrEqual(low);
        expect(value).toBeLessThanOrEqual(high);
      }
      const longest = Math.max(...found.map(({ text }) => text.length)) * 7.2;
      if (found.length > 2) expect(found.length * (longest + 20)).toBeLessThanOrEqual(width);
      expect(uprightTicks({ from: low, to: high }, width, 12).length).toBeLessThanOrEqual(width / 12);
    }
});

test('an axis without a length, or with ends that are none, has no ticks', () => {
  expect(axisTicks({ from: 1, to: 1 }, 5)).toEqual([]);
  expect(axisTicks({ from: NaN, to: 1 }, 5)).toEqual([]);
  expect(axisTicks({ from: 0, to: Infinity }, 5)).toEqual([]);
});

test('an axis that is low but not too low has two numbers at the least', () => {
  expect(texts(uprightTicks({ from: -0.047, to: 0.047 }, 94, 12))).toEqual([
    '−0.04',
    '−0.02',
    '0',
    '0.02',
    '0.04',
  ]);
  expect(uprightTicks({ from: -0.047, to: 0.047 }, 30, 12)).toHaveLength(1);
});

describe('a logarithmic axis', () => {
  const over = (from: number, to: number) => ({ from, to, isLogarithmic: true }) as const;
  const written = (ticks: { text: string }[]) => texts(ticks).filter((text) => text !== '');

  test('has all multiples of powers of ten as lines, and numbers where they have room', () => {
    const wide = acrossTicks(over(1, 100), 900, 12);
    expect(wide.map(({ value }) => value)).toEqual([
      1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 20, 30, 40, 50, 60, 70, 80, 90, 100,
    ]);
    expect(written(wide)).toEqual(expect.arrayContaining(['1', '2', '5', '10', '20', '50', '100']));
    expect(written(acrossTicks(over(1, 100), 100, 12))).toEqual(['1', '10', '100']);
  });

  test('never has numbers that touch, nor one beyond its ends', () => {
    for (const [from, to] of [
      [0.003, 40_000],
      [1.1, 1.9],
      [2.3, 2.31],
      [1e-9, 3e-7],
      [7, 11],
    ])
      for (const width of [60, 150, 400, 1200]) {
        const found = acrossTicks(over(from, to), width, 12).filter(({ text }) => text !== '');
        const edges = found
          .map(({ value, text }) => ({
            at: (Math.log(value / from) / Math.log(to / from)) * width,
            half: text.length * 3.6,
          }))
          .sort((a, b) => a.at - b.at);
        for (const [i, { at, half }] of edges.entries()) {
          expect(at).toBeGreaterThanOrEqual(-1e-6);
          expect(at).toBeLessThanOrEqual(width + 1e-6);
          if (i > 0) expect(at - half).toBeGreaterThan(edges[i - 1].at + edges[i - 1].half);
        }
      }
  });

  test('of less than a power of ten still has two numbers to read it by', () => {
    for (const [from, to] of [
      [1.1, 1.9],
      [2.3, 2.31],
      [7, 11],
    ])
      expect(written(uprightTicks(over(from, to), 300, 12)).length).toBeGreaterThanOrEqual(2);
  });
});
