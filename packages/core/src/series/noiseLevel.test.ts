import { normalRandom, uniformRandom } from '../random';
import { NoiseLevel } from './noiseLevel';
import { type Sampling, regular, timeAt, timed } from './sampling';

const sigma = 0.001;

function estimate(sampling: Sampling, count: number, motion: (t: number) => number, seed: number): number {
  const normal = normalRandom(seed);
  const values = Float64Array.from(
    { length: count },
    (_, i) => motion(timeAt(sampling, i)) + sigma * normal(),
  );
  return new NoiseLevel(() => ({ sampling, values }), null).between(0, count).standardDeviation / sigma;
}

const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

test.each([
  ['rest', () => 0],
  ['a swing of 60 readings', (t: number) => 0.04 * Math.sin((2 * Math.PI * t) / 60)],
  ['a swing of 12 readings', (t: number) => 0.04 * Math.sin((2 * Math.PI * t) / 12)],
  ['a swing of only 7 readings', (t: number) => 0.04 * Math.sin((2 * Math.PI * t) / 7)],
])('the noise under %s comes out within 8 %%, times regular', (_, motion) => {
  const found = Array.from({ length: 40 }, (_unused, seed) =>
    estimate(regular(0, 1, 400), 400, motion, seed + 1),
  );
  expect(Math.abs(mean(found) - 1)).toBeLessThan(0.08);
});

test('the noise under a swing at irregular times comes out within 10 %', () => {
  const found = Array.from({ length: 40 }, (_, seed) => {
    const random = uniformRandom(seed + 70);
    let t = 0;
    const times = Float64Array.from({ length: 400 }, () => (t += 0.3 + random()));
    return estimate(timed(times), 400, (at) => 0.04 * Math.sin((2 * Math.PI * at) / 40), seed + 1);
  });
  expect(Math.abs(mean(found) - 1)).toBeLessThan(0.1);
});

test('too few readings say nothing, or what the sensor announces', () => {
  const readings = () => ({ sampling: regular(0, 1, 5), values: Float64Array.of(1, 2, 1, 2, 1) });
  expect(new NoiseLevel(readings, null).between(0, 5).standardDeviation).toBeNaN();
  expect(new NoiseLevel(readings, 0.2).between(0, 5)).toEqual({
    standardDeviation: 0.2,
    degreesOfFreedom: Infinity,
  });
});
