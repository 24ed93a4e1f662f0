import { normalRandom } from '../random';
import { type SpotReadings, spotMean } from './mean';
import { spotSwing } from './swing';

const normal = normalRandom(17);

/** A second of readings of something, with a sensor's noise and steps. */
function read(
  truth: (seconds: number) => number,
  { rate = 50, seconds = 1, noise = 0.01, resolution = 0 } = {},
): SpotReadings {
  const values = Float64Array.from({ length: rate * seconds }, (_, i) => {
    const value = truth(i / rate) + noise * normal();
    return resolution === 0 ? value : Math.round(value / resolution) * resolution;
  });
  return { values, interval: 1 / rate, noise, resolution };
}

describe('the mean of what rests', () => {
  test('covers the truth with its standard uncertainty 68 times in a hundred', () => {
    let inside = 0;
    for (let i = 0; i < 2000; i++) {
      const { value, standardUncertainty } = spotMean(read(() => 3));
      if (Math.abs(value - 3) < (standardUncertainty ?? 0)) inside++;
    }
    expect(inside / 2000).toBeGreaterThan(0.64);
    expect(inside / 2000).toBeLessThan(0.72);
  });

  test.each([1, 2, 3, 5])('of %p readings is not said to be surer than the sensor is', (count) => {
    let inside = 0;
    for (let i = 0; i < 2000; i++) {
      const { value, standardUncertainty } = spotMean(read(() => 3, { rate: count }));
      if (Math.abs(value - 3) < (standardUncertainty ?? 0)) inside++;
    }
    expect(inside / 2000).toBeGreaterThan(0.64);
    expect(inside / 2000).toBeLessThan(0.85);
  });

  test('of a sensor whose steps are coarser than its noise, is uncertain by the step over √12', () => {
    // JCGM 100:2008, 4.3.7: a value anywhere within a step of 0.1 has the standard uncertainty 0.1/√12 = 0.0289.
    const { standardUncertainty, spread } = spotMean(read(() => 3.02, { noise: 1e-4, resolution: 0.1 }));
    expect(spread).toBeLessThan(1e-9);
    expect(standardUncertainty).toBeCloseTo(0.02887, 4);
  });

  test('is called unsteady hardly ever', () => {
    let alarms = 0;
    for (let i = 0; i < 2000; i++) if (spotMean(read(() => 3)).unsteady !== null) alarms++;
    expect(alarms).toBeLessThan(10);
  });

  test('leaves missing readings out', () => {
    const readings = read(() => 3, { noise: 0 });
    readings.values.fill(NaN, 10, 30);
    expect(spotMean(readings)).toMatchObject({ value: 3, count: 30 });
  });
});

test.each([
  ['creeps', (t: number) => 3 + 0.08 * t, 'drifts'],
  ['settles', (t: number) => 3 + 0.2 * Math.exp(-3 * t), 'drifts'],
  ['swings', (t: number) => 3 + 0.3 * Math.sin(2 * Math.PI * 2 * t), 'moves'],
] as const)('what still %s is told, as what %p', (_what, truth, kind) => {
  expect(spotMean(read(truth)).unsteady?.kind).toBe(kind);
});

describe('a swing', () => {
  test.each(['amplitude', 'frequency'] as const)(
    'covers its %s with the standard uncertainty 68 times in a hundred',
    (what) => {
      let inside = 0;
      for (let i = 0; i < 250; i++) {
        const f = 2 + 3 * (i / 250);
        const phase = i;
        const reading = spotSwing(
          read((t) => 1 + 0.2 * Math.sin(2 * Math.PI * f * t + phase), { seconds: 2 }),
          what,
        );
        const truth = what === 'amplitude' ? 0.2 : f;
        if (Math.abs(reading.value - truth) < (reading.standardUncertainty ?? 0)) inside++;
      }
      expect(inside / 250).toBeGreaterThan(0.6);
      expect(inside / 250).toBeLessThan(0.76);
    },
  );

  const swing =
    (f: number, a: number, decay = 0) =>
    (t: number) =>
      0.4 + a * Math.exp(-decay * t) * Math.sin(2 * Math.PI * f * t + 0.7);

  test.each([
    [17.3, 500],
    [3.2, 100],
    [48, 500],
  ])('of %p Hz, read at %p Hz: amplitude and frequency are true within their uncertainties', (f, rate) => {
    let [hits, tries] = [0, 0];
    for (let i = 0; i < 60; i++) {
      const readings = read(swing(f, 2), { rate, noise: 0.02 });
      const [amplitude, frequency] = [spotSwing(readings, 'amplitude'), spotSwing(readings, 'frequency')];
      expect(amplitude.unsteady).toBeNull();
      expect(Math.abs(amplitude.value / 2 - 1)).toBeLessThan(0.01);
      for (const [found, truth] of [
        [amplitude, 2],
        [frequency, f],
      ] as const) {
        tries++;
        if (Math.abs(found.value - truth) < (found.standardUncertainty ?? 0)) hits++;
      }
    }
    expect(hits / tries).toBeGreaterThan(0.55);
    expect(hits / tries).toBeLessThan(0.82);
  });

  test('that still grows or dies away is reported', () => {
    expect(spotSwing(read(swing(17.3, 2, 0.5), { rate: 500 }), 'amplitude').unsteady?.kind).toBe('grows');
  });

  test('that is none is refused, and so is one that was listened to for too short', () => {
    expect(() =>
      spotSwing(
        read(() => 3),
        'amplitude',
      ),
    ).toThrow('no steady swing');
    expect(() => spotSwing(read(swing(1.3, 2), { rate: 100 }), 'amplitude')).toThrow('listen for at least');
  });
});
