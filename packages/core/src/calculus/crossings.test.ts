import { normalRandom, uniformRandom } from '../random';
import { normSquared } from '../series/noisePath';
import { repetitions } from '../testing/effort';
import { regular, timed } from '../series/sampling';
import { positionSeries, sampledSeries, seriesOf } from '../testing/series';
import { crossingAt } from './cycles';
import { crossingsOf, extremeOf } from './crossings';

// Exact kinematics: x = 0.1 sin(2π(t − t₀)/T) rises through zero at t₀ + kT, is greatest at t₀ + T/4 + kT.
const period = 1.25;
const swing = (begin: number) => (t: number) => 0.1 * Math.sin((2 * Math.PI * (t - begin)) / period);

test('crossings of a swing are those of its equation, rising and falling', () => {
  const series = positionSeries(500, 0.02, swing(0.333));
  const rising = crossingsOf(series, 0, 'rise');
  expect(rising).toHaveLength(8);
  rising.forEach((at, i) => expect(Math.abs(at - (0.333 + i * period))).toBeLessThan(0.002));
  crossingsOf(series, 0, 'fall').forEach((at, i) =>
    expect(Math.abs(at - (0.333 - period / 2 + period * (i + 1)))).toBeLessThan(0.002),
  );
});

test('runs that begin at any moment are aligned within a tenth of a reading, with the noise of a sensor', () => {
  const random = uniformRandom(2);
  const normal = normalRandom(6);
  const interval = 0.02;
  let worst = 0;
  for (let run = 0; run < 300; run++) {
    const begin = 0.1 + random() * 0.9;
    const noisy = positionSeries(400, interval, (t) => swing(begin)(t) + 0.0003 * normal());
    const [first] = crossingsOf(noisy, 0.02, 'rise');
    // 0.1 sin φ = 0.02.
    const truth = begin + (Math.asin(0.2) / (2 * Math.PI)) * period;
    const off = Math.min(...[0, 1, 2].map((k) => Math.abs(first - truth - (k - 1) * period)));
    worst = Math.max(worst, off);
  }
  expect(worst / interval).toBeLessThan(0.1);
});

test('without noise, within a hundredth of a reading', () => {
  for (let i = 0; i < 50; i++) {
    const begin = 0.1 + 0.017 * i;
    const [first] = crossingsOf(positionSeries(400, 0.02, swing(begin)), 0, 'rise');
    expect(Math.abs(first - begin) / 0.02).toBeLessThan(0.01);
  }
});

test('noise that plays about a level is no crossing', () => {
  const normal = normalRandom(9);
  const resting = positionSeries(5000, 0.02, () => 0.0003 * normal());
  expect(crossingsOf(resting, 0, 'rise').length).toBeLessThan(3);
});

// Readings that are rounded to steps: a ramp that falls by part of a step a reading stands on each step for some. A line through
// these alone meets the level nowhere, or 10¹¹ s away.
describe.each([0.16, 0.32, 0.6, 1.2])('readings rounded to a step, with noise of %p steps', (noise) => {
  test.each([
    [0.15, 0],
    [0.4, 0],
    [0.4, 0.3],
    [1, 0.3],
  ])(
    'a ramp of %p steps a reading crosses a level %p steps beside one where it does',
    (perReading, beside) => {
      const step = 0.005;
      const [normal, uniform] = [normalRandom(7), uniformRandom(9)];
      const [count, level] = [600, 0.5 + beside * step];
      const rounds = repetitions(200, 2000);
      let within = 0;
      for (let round = 0; round < rounds; round++) {
        const begin = 0.5 + step * perReading * (300 + uniform());
        const readings = Float64Array.from({ length: count }, (_, i) => {
          const truth = begin - perReading * step * i;
          return Math.round((truth + noise * step * normal()) / step) * step;
        });
        const series = seriesOf(regular(0, 1, count), readings);
        const [at] = crossingsOf(series, level, 'fall');
        const { value, weights } = crossingAt(series, level, at);
        const sigma = series.noise?.root.level.between(0, count).standardDeviation ?? 0;
        const u = sigma * Math.sqrt(normSquared(weights.weights));
        const off = Math.abs(value - (begin - level) / (perReading * step));
        expect(off * perReading).toBeLessThan(8 * Math.max(noise, 0.3));
        if (off <= u) within++;
      }
      // Rounding is no noise of its own for each reading: where it is most of what is uncertain, ± is narrower, or wider, than 68 of 100.
      expect(within / rounds).toBeGreaterThan(noise < 0.3 && perReading === 1 ? 0.2 : 0.56);
      expect(within / rounds).toBeLessThan(0.9);
    },
  );
});

test('a lost reading or three are bridged by a straight line; across a longer gap nothing is made up', () => {
  const series = seriesOf(regular(0, 1, 6), Float64Array.of(-1, -1, NaN, 1, 1, 1));
  expect([...crossingsOf(series, 0, 'rise')]).toEqual([2]);
  const gap = seriesOf(regular(0, 1, 9), Float64Array.of(-1, -1, NaN, NaN, NaN, NaN, 1, 1, 1));
  expect(crossingsOf(gap, 0, 'rise')).toHaveLength(0);
});

test('the top of a parabola is found exactly, also between readings and at times of their own', () => {
  const thrown = (t: number) => 2 - 4.905 * (t - 0.6173) ** 2;
  const series = positionSeries(60, 0.02, thrown);
  expect(extremeOf(series, 'greatest', 0, 60)).toBeCloseTo(0.6173, 9);
  const uneven = sampledSeries(timed(Float64Array.of(0, 0.1, 0.35, 0.5, 0.58, 0.7, 0.9)), thrown);
  expect(extremeOf(uneven, 'greatest', 0, 7)).toBeCloseTo(0.6173, 9);
  expect(extremeOf(uneven, 'least', 0, 7)).toBe(0);
  expect(extremeOf(series, 'greatest', 5, 5)).toBeNull();
});
