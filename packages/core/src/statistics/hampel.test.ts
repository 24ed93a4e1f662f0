import { normalRandom, uniformRandom } from '../random';
import { hampelOutliers } from './hampel';

// Worked by hand from the definition: about 12 the window 1 2 12 3 2 has the median 2; deviations 1 0 10 1 0, median 1;
// S = 1.4826, 3 S = 4.4478; 12 is off by 10. All others are off by less than 3 S of theirs.
test('the worked example: one reading of nine stands off', () =>
  expect(
    hampelOutliers(Float64Array.of(1, 2, 1, 2, 12, 3, 2, 1, 2), { halfWindow: 2, threshold: 3 }),
  ).toEqual([4]));

test('exactly as far as the rule allows does not stand off, a little more does', () => {
  // Window 0 1 2 3 z: with z = 2 + 3·1.4826 the median is 2, deviations 2 1 0 1 4.4478, median 1.
  const at = (z: number) =>
    hampelOutliers(Float64Array.of(0, 1, z, 3, 2), { halfWindow: 2, threshold: 3 }).includes(2);
  expect(at(2 + 3 * 1.4826 - 1e-9)).toBe(false);
  expect(at(2 + 3 * 1.4826 + 1e-9)).toBe(true);
});

test('of normal readings about as few stand off as the rule lets, and planted ones are all found', () => {
  const random = normalRandom(3);
  const where = uniformRandom(4);
  const values = Float64Array.from({ length: 100_000 }, random);
  // Beyond 3 S of a window of 11: about one in a hundred, since S of eleven readings is itself uncertain.
  const share = hampelOutliers(values).length / values.length;
  expect(share).toBeLessThan(0.03);
  const planted = Array.from({ length: 50 }, (_, i) => i * 2000 + Math.floor(where() * 1000));
  for (const index of planted) values[index] += 40;
  const found = new Set(hampelOutliers(values));
  for (const index of planted) expect(found.has(index)).toBe(true);
});

test('what rests in steps of its resolution does not stand off by a step, and missing readings are passed over', () => {
  const resting = Float64Array.of(5, 5, 5, 5.01, 5, 5, NaN, 5, 9, 5, 5);
  expect(hampelOutliers(resting, undefined, { resolution: 0.01 })).toEqual([8]);
  expect(hampelOutliers(resting)).toEqual([3, 8]);
  expect(hampelOutliers(Float64Array.of(1, 100))).toEqual([]);
  expect(hampelOutliers(new Float64Array(0))).toEqual([]);
});

test('only the interval that is asked about is looked at', () => {
  const values = Float64Array.from({ length: 40 }, (_, i) => (i === 10 || i === 30 ? 50 : i % 3));
  expect(hampelOutliers(values, undefined, { first: 20, past: 40 })).toEqual([30]);
});
