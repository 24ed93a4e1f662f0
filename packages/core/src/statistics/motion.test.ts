import { normalRandom } from '../random';
import { bandwidthOf } from './motion';

const swing = (frequency: number, rate: number, seconds = 10, amplitude = 1, noise = 0.001) => {
  const random = normalRandom(5);
  return Float64Array.from(
    { length: rate * seconds },
    (_, i) => 3 + amplitude * Math.sin((2 * Math.PI * frequency * i) / rate) + noise * random(),
  );
};

test.each([
  [0.8, 50],
  [2.5, 50],
  [4, 20],
  [60, 1000],
])('a swing of %p Hz read at %p Hz lies below a little more than its frequency', (frequency, rate) => {
  const band = bandwidthOf(swing(frequency, rate), rate, 0.001) ?? 0;
  expect(band).toBeGreaterThan(frequency);
  expect(band).toBeLessThan(frequency + Math.max(0.5, frequency * 0.1) + (3 * rate) / 512);
});

test('a target at rest, or one that creeps away in a straight line, does not move in this sense', () => {
  expect(bandwidthOf(swing(1, 50, 10, 0), 50, 0.001)).toBeNull();
  const creep = Float64Array.from({ length: 500 }, (_, i) => i * 0.01);
  expect(bandwidthOf(creep, 50, 0.001)).toBeNull();
});

test('few readings, missing ones and none at all', () => {
  expect(bandwidthOf(new Float64Array(10), 50, 0.001)).toBeNull();
  expect(bandwidthOf(new Float64Array(100).fill(NaN), 50, 0.001)).toBeNull();
  const holes = swing(2, 50).map((value, i) => (i % 17 === 0 ? NaN : value));
  expect(bandwidthOf(holes, 50, 0.001)).toBeGreaterThan(1.9);
});
