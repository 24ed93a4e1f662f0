import { Refusal } from '../refusal';
import { normalRandom } from '../random';
import { histogramOf } from './histogram';

const of = (...values: number[]) => Float64Array.from(values);

// Counted by hand.
test('values are counted as a hand counts them; a bin holds its lower end', () => {
  const { edges, counts } = histogramOf(of(0, 0.1, 0.2, 0.5, 0.7, 1, 1.2, 1.49, 1.5, 2.3), 'typed', 0.5);
  expect(Array.from(edges)).toEqual([0, 0.5, 1, 1.5, 2, 2.5]);
  expect(Array.from(counts)).toEqual([3, 2, 3, 1, 1]);
});

test('decimal fractions fall into the bin that they begin, though no computer holds them exactly', () => {
  const { counts } = histogramOf(of(0.1, 0.2, 0.3, 0.31, 0.6, 0.7, 0.05), 'typed', 0.1);
  expect(Array.from(counts)).toEqual([1, 1, 1, 2, 0, 0, 1, 1]);
});

test('negative values and a mean far from zero', () => {
  const { edges, counts } = histogramOf(of(-1.2, -0.9, -0.1, 0.4), 'typed', 1);
  expect(Array.from(edges)).toEqual([-2, -1, 0, 1]);
  expect(Array.from(counts)).toEqual([1, 2, 1]);
});

// 1 … 16: quartiles 4.75 and 12.25 (linear between readings), 2 × 7.5 / ∛16 = 5.953; worked by hand. Rounded: 5.
test('the width by Freedman and Diaconis is the one worked out by hand', () => {
  const values = Float64Array.from({ length: 16 }, (_, i) => i + 1 + (i % 2) * 1e-3);
  const { ruled, width, counts } = histogramOf(values, 'spread');
  expect(ruled).toBeCloseTo(15 / Math.cbrt(16), 2);
  expect(width).toBe(5);
  expect(counts.reduce((sum, count) => sum + count, 0)).toBe(16);
});

test('readings in steps stand in the middle of their bins, and none is empty for the steps alone', () => {
  const random = normalRandom(9);
  const values = Float64Array.from({ length: 2000 }, () => Math.round(random() * 4) * 0.0125 + 101.3);
  const { step, width, counts, edges } = histogramOf(values, 'spread');
  expect(step).toBeCloseTo(0.0125, 9);
  expect(width / 0.0125).toBeCloseTo(Math.round(width / 0.0125), 6);
  const inside = Array.from(counts).slice(2, -2);
  expect(Math.min(...inside)).toBeGreaterThan(0);
  expect(((values[0] - edges[0]) / 0.0125) % 1).toBeCloseTo(0.5, 4);
});

test('no value is lost or counted twice, whatever the data', () => {
  const random = normalRandom(4);
  for (let n = 1; n < 400; n += 7) {
    const scale = 10 ** Math.round(3 * random());
    const values = Float64Array.from({ length: n }, () => scale * (random() + 5));
    for (const rule of ['spread', 'root'] as const) {
      const { counts, edges } = histogramOf(values, rule);
      expect(counts.reduce((sum, count) => sum + count, 0)).toBe(n);
      counts.forEach((count, bin) => {
        const slack = 1e-5 * (edges[1] - edges[0]);
        const own = values.filter((value) => value >= edges[bin] + slack && value < edges[bin + 1] - slack);
        const near = values.filter((value) => value >= edges[bin] - slack && value < edges[bin + 1] + slack);
        expect(count).toBeGreaterThanOrEqual(own.length);
        expect(count).toBeLessThanOrEqual(near.length);
      });
    }
  }
});

test('hard cases: all the same, zero, one value, missing ones, a far one', () => {
  expect(histogramOf(of(4, 4, 4), 'spread').counts).toEqual(of(3));
  expect(histogramOf(of(0, 0), 'root').counts).toEqual(of(2));
  expect(histogramOf(of(3.2), 'spread').counts).toEqual(of(1));
  expect(histogramOf(of(NaN, 1, NaN, 2), 'typed', 1).counts).toEqual(of(1, 1));
  const far = histogramOf(
    Float64Array.from({ length: 1000 }, (_, i) => (i === 0 ? 1e6 : i / 1000)),
    'spread',
  );
  expect(far.counts.length).toBeLessThanOrEqual(2000);
  expect(() => histogramOf(of(NaN), 'spread')).toThrow(Refusal);
  expect(() => histogramOf(of(1, 2), 'typed', 0)).toThrow('Type one above 0');
  expect(() => histogramOf(of(0, 1e6), 'typed', 1)).toThrow('Type a width above 500');
});
