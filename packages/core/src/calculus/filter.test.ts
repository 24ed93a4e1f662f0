import fc from 'fast-check';
import { normalRandom } from '../random';
import { timeAt, timed } from '../series/sampling';
import { positionSeries, seriesOf } from '../testing/series';
import { derivative } from './derivative';
import { localPolynomialFilter } from './filter';

describe('a polynomial up to the degree of the filter', () => {
  test('is differentiated exactly to rounding, both ends included, for any window', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 15 }),
        fc.integer({ min: 1, max: 4 }),
        fc.array(fc.double({ min: -2, max: 2, noNaN: true }), { minLength: 5, maxLength: 5 }),
        (half, degree, coefficients) => {
          const windowPoints = 2 * half + 1;
          fc.pre(degree < windowPoints);
          const used = coefficients.slice(0, degree + 1);
          const series = positionSeries(80, 0.02, (t) => used.reduce((sum, c, k) => sum + c * t ** k, 0));
          const { values } = localPolynomialFilter(series, 'v', { windowPoints, degree, order: 1 });
          values.forEach((value, i) => {
            const exact = used.reduce(
              (sum, c, k) => sum + (k === 0 ? 0 : k * c * timeAt(series.sampling, i) ** (k - 1)),
              0,
            );
            expect(Math.abs(value - exact)).toBeLessThan(2e-10);
          });
        },
      ),
      { numRuns: 60, seed: 5 },
    );
  });

  test('is differentiated exactly at irregular times and around missing readings too', () => {
    const times = Float64Array.from({ length: 60 }, (_, i) => i * 0.02 + 0.006 * Math.sin(i * 7));
    const values = times.map((t) => 1 + 2 * t - 3 * t * t);
    values[0] = values[17] = values[18] = values[59] = NaN;
    const irregular = seriesOf(timed(times), values);
    const regular = positionSeries(60, 0.02, (t) => 1 + 2 * t - 3 * t * t);
    regular.values[0] = regular.values[17] = regular.values[59] = NaN;
    for (const series of [irregular, regular]) {
      const v = derivative(series, { symbol: 'v', windowPoints: 9 }).values;
      series.values.forEach((value, i) => {
        if (Number.isNaN(value)) expect(v[i]).toBeNaN();
        else expect(v[i]).toBeCloseTo(2 - 6 * timeAt(series.sampling, i), 10);
      });
    }
  });
});

test('white noise leaves a 9-point derivative with the sd that theory gives, σ/(h √60)', () => {
  const normal = normalRandom(3);
  const series = positionSeries(20_000, 0.02, () => 0.0003 * normal());
  const v = derivative(series, { symbol: 'v', windowPoints: 9 }).values;
  const sd = Math.sqrt(v.reduce((sum, value) => sum + value * value, 0) / v.length);
  expect(sd / (0.0003 / (0.02 * Math.sqrt(60)))).toBeCloseTo(1, 1);
});

test('a million readings with a spike and a gap are differentiated without loss of length', () => {
  const series = positionSeries(1_000_000, 0.001, (t) => Math.sin(t));
  series.values[500_000] = NaN;
  const v = derivative(series, { symbol: 'v', windowPoints: 9 }).values;
  expect(v).toHaveLength(1_000_000);
  expect(v[500_000]).toBeNaN();
  expect(v[500_001]).toBeCloseTo(Math.cos(500.001), 4);
  expect(v[999_999]).toBeCloseTo(Math.cos(999.999), 4);
});

test('a window that does not fit the run, or is even, is refused with a sentence', () => {
  const short = positionSeries(5, 0.02, (t) => t);
  expect(() => derivative(short, { symbol: 'v', windowPoints: 9 })).toThrow(
    'needs at least 9 readings; this run has 5',
  );
  expect(() => derivative(short, { symbol: 'v', windowPoints: 4 })).toThrow('odd number');
});

test('how readings move a sum over rows is the sum of how they move each row, at the ends of a run and beside what is missing', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 8 }),
      fc.integer({ min: 0, max: 2 }),
      fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 40, maxLength: 40 }),
      fc.tuple(fc.integer({ min: 0, max: 39 }), fc.integer({ min: 1, max: 40 })),
      fc.option(fc.integer({ min: 0, max: 39 })),
      (half, order, all, [first, length], missing) => {
        const series = positionSeries(40, 0.02, (t) => Math.sin(9 * t));
        if (missing !== null) series.values[missing] = NaN;
        const options = { windowPoints: 2 * half + 1, degree: 2, order };
        const { noise, values } = localPolynomialFilter(series, 'v', options);
        // A row without a value has no part in anything.
        const weights = Float64Array.from(all.slice(first, first + length), (weight, i) =>
          Number.isNaN(values[first + i]) ? 0 : weight,
        );
        const wanted = new Float64Array(40);
        weights.forEach((weight, i) => {
          const row = weight === 0 ? null : noise?.row(first + i);
          row?.weights.forEach((own, j) => (wanted[row.first + j] += weight * own));
        });
        const found = noise?.spread({ first, weights }) ?? { first: 0, weights: new Float64Array(0) };
        const size = Math.max(...wanted.map(Math.abs));
        for (let i = 0; i < 40; i++)
          expect(Math.abs((found.weights[i - found.first] ?? 0) - wanted[i])).toBeLessThanOrEqual(
            1e-11 * size,
          );
      },
    ),
    { numRuns: 300, seed: 8 },
  );
});
