import { normalRandom, uniformRandom } from '../random';
import { ballHeights } from '../testing/ball';
import { NoiseLevel } from './noiseLevel';
import { regular } from './sampling';

const sigma = 0.0003;
const levelOf = (values: Float64Array, interval = 1): NoiseLevel =>
  new NoiseLevel(() => ({ sampling: regular(0, interval, values.length), values }), null);
const noiseIn = (values: Float64Array): number =>
  levelOf(values).between(0, values.length).standardDeviation / sigma;
const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
const median = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1];

/** Heights of a ball that bounces, by the equations of free fall, under noise of known size. */
function ball(seed: number, rate: number): Float64Array {
  const [normal, uniform] = [normalRandom(seed), uniformRandom(seed + 900)];
  const { at } = ballHeights({ drop: 1.2, bounce: 0.8, released: 0.2 + uniform() / rate, count: 3 });
  return Float64Array.from({ length: 2 * rate }, (_, i) => at(i / rate) + sigma * normal());
}

test.each([20, 50, 100])(
  'the noise of a ball that bounces is that of its readings, at %i a second',
  (rate) => {
    const found = Array.from({ length: 60 }, (_, i) => noiseIn(ball(i + 1, rate)));
    expect(median(found)).toBeGreaterThan(0.8);
    expect(median(found)).toBeLessThan(1.5);
  },
);

test('readings that are off one by one are noise: as much as they weigh', () => {
  const [normal, uniform] = [normalRandom(4), uniformRandom(5)];
  // One in a hundred by 20 σ: σ² grows to 1 + 0.01 · 400 = 5 times.
  const found = Array.from({ length: 30 }, () =>
    noiseIn(Float64Array.from({ length: 2000 }, () => sigma * (normal() + (uniform() < 0.01 ? 20 : 0)))),
  );
  expect(Math.abs(mean(found) / Math.sqrt(5) - 1)).toBeLessThan(0.1);
});

test('a sensor of coarse steps keeps its noise: its steps are no breaks', () => {
  const normal = normalRandom(6);
  const step = 0.01;
  const values = Float64Array.from({ length: 4000 }, () => step * Math.round((0.6 * step * normal()) / step));
  // Rounding adds step² / 12 (Sheppard's correction).
  const truth = step * Math.sqrt(0.36 + 1 / 12);
  expect(levelOf(values).between(0, 4000).standardDeviation / truth).toBeCloseTo(1, 1);
});

test('what is learnt reading by reading is what is learnt at once, to the last bit', () => {
  const all = ball(9, 100);
  let values = all.subarray(0, 1);
  const growing = new NoiseLevel(() => ({ sampling: regular(0, 1, values.length), values }), null);
  for (let n = 1; n <= all.length; n += n % 7 === 0 ? 13 : 1) {
    values = all.subarray(0, n);
    const atOnce = levelOf(values);
    for (const from of [0, n >> 1]) {
      expect(growing.between(from, n)).toEqual(atOnce.between(from, n));
      expect(growing.restlessness(from, n)).toEqual(atOnce.restlessness(from, n));
      expect(growing.hasBreak(from, n)).toBe(atOnce.hasBreak(from, n));
    }
  }
});

test('so few readings about a break that nothing else is left of them count with it, rather than none', () => {
  const normal = normalRandom(8);
  const values = Float64Array.from({ length: 60 }, (_, i) => Math.abs(i - 30.3) + sigma * normal());
  const level = levelOf(values);
  expect(level.hasBreak(0, 60)).toBe(true);
  expect(level.hasBreak(0, 25)).toBe(false);
  expect(level.between(0, 60).standardDeviation / sigma).toBeLessThan(1.6);
  expect(level.between(27, 35).standardDeviation).toBeGreaterThan(0.1);
  expect(level.restlessness(0, 60)).toBeGreaterThan(0.05);
});
