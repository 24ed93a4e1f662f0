import { normalRandom } from '../random';
import { boxOf } from './box';
import { quantileOf } from './quantile';

// Worked by hand from definition 7 of Hyndman and Fan: the place of a quartile of n values is p (n − 1) steps above the first.
test('quartiles of few values lie where the definition has them', () => {
  const quartiles = (...values: number[]) =>
    [0.25, 0.5, 0.75].map((share) => quantileOf(Float64Array.from(values), share));
  expect(quartiles(1, 2, 3, 4, 5, 6, 7, 8, 9)).toEqual([3, 5, 7]);
  expect(quartiles(1, 2, 3, 4)).toEqual([1.75, 2.5, 3.25]);
  expect(quartiles(7)).toEqual([7, 7, 7]);
  expect(quartiles(2, 6)).toEqual([3, 4, 5]);
});

test('a far value stands beyond the whiskers, which end at values', () => {
  expect(boxOf(Float64Array.from([20, 3, 1, 2, 4, NaN]))).toEqual({
    lowerQuartile: 2,
    median: 3,
    upperQuartile: 4,
    lowerWhisker: 1,
    upperWhisker: 4,
    beyond: [20],
  });
  expect(boxOf(Float64Array.from([5, 5, 5]))).toMatchObject({ lowerWhisker: 5, upperWhisker: 5, beyond: [] });
  expect(boxOf(Float64Array.from([NaN]))).toBeNull();
});

// Of a normal distribution the quartiles lie 0.6745 sd from the mean, and 0.70 % of the values beyond the whiskers.
test('of many normal values the box is that of the distribution', () => {
  const normal = normalRandom(11);
  const box = boxOf(Float64Array.from({ length: 100_000 }, () => 1e6 + 3 * normal()));
  expect((box?.upperQuartile ?? 0) - 1e6).toBeCloseTo(3 * 0.6745, 1);
  expect((box?.lowerQuartile ?? 0) - 1e6).toBeCloseTo(-3 * 0.6745, 1);
  expect((box?.beyond.length ?? 0) / 100_000).toBeGreaterThan(0.006);
  expect((box?.beyond.length ?? 0) / 100_000).toBeLessThan(0.008);
});
