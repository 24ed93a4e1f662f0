import { uniformRandom } from '../random';
import { MinMaxPyramid } from './pyramid';

test('any interval of a growing series has the extremes that looking at every value finds', () => {
  const random = uniformRandom(5);
  const values = Float64Array.from({ length: 40_000 }, () => (random() < 0.001 ? NaN : random()));
  const pyramid = new MinMaxPyramid();
  for (const settled of [100, 5000, 5001, 33_000, 40_000]) {
    pyramid.grow(values, settled);
    for (let tries = 0; tries < 200; tries++) {
      const [a, b] = [Math.floor(random() * settled), Math.floor(random() * settled)];
      const [first, end] = [Math.min(a, b), Math.max(a, b)];
      const stretch = [...values.subarray(first, end)];
      const known = stretch.filter((value) => !Number.isNaN(value));
      expect(pyramid.extremes(values, first, end)).toEqual({
        low: Math.min(...known),
        high: Math.max(...known),
        missing: known.length < stretch.length,
      });
    }
  }
});
