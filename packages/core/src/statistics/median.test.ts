import { normalRandom, uniformRandom } from '../random';
import { medianOf } from './describe';

/** By sorting, as a textbook has it. */
const sorted = (values: Float64Array) => {
  const all = [...values].sort((a, b) => a - b);
  const half = all.length >> 1;
  return all.length % 2 === 1 ? all[half] : (all[half - 1] + all[half]) / 2;
};

test('the median is that of the sorted values: noise, many alike, in order, in reverse, two and one', () => {
  const [normal, uniform] = [normalRandom(5), uniformRandom(5)];
  for (let n = 1; n < 400; n += n < 40 ? 1 : 37)
    for (const value of [
      () => normal(),
      () => Math.floor(3 * uniform()),
      (i: number) => i,
      (i: number) => -i,
      (i: number) => i % 7,
      () => 2.5,
    ]) {
      const values = Float64Array.from({ length: n }, (_, i) => value(i));
      const before = values.slice();
      expect(medianOf(values)).toBe(sorted(values));
      expect(values).toEqual(before);
    }
});

test('infinite values have their place too', () => {
  expect(medianOf(Float64Array.of(Infinity, 1, -Infinity, 2, 3))).toBe(2);
  expect(medianOf(Float64Array.of(Infinity, Infinity, 1))).toBe(Infinity);
});
