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
