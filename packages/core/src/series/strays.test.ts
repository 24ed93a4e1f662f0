import { normalRandom, uniformRandom } from '../random';
import { regular } from './sampling';
import { strayFloor, withoutStrays } from './strays';
import { parseUnit } from '../units/unit';
import { type ChannelData, ChannelSeries } from '../workings/run';

const noise = 0.0003;
const sensor = { quantity: 'position', unit: parseUnit('m'), noise };
const missing = (values: Float64Array) => [...values.keys()].filter((i) => Number.isNaN(values[i]));

/** Motions of a lab, in metres by the second. */
const motions: Record<string, (t: number) => number> = {
  'a rest': () => 0.8,
  'a swing': (t) => 0.8 + 0.3 * Math.sin(8 * t),
  'a run down a slope into the buffer': (t) => {
    const s = 0.3 + 0.46 * t * t;
    return s < 2.2 ? s : 2.2 - 0.75 * (t - Math.sqrt(1.9 / 0.46));
  },
  'a ball that bounces': (t) => {
    const [fall, v] = [0.55, 5.4 * 0.85];
    if (t < fall) return 0.4 + 4.9 * t * t;
    const u = (t - fall) % (v / 4.9);
    return 0.4 + 4.9 * fall * fall - v * u + 4.9 * u * u;
  },
  'a walker who turns round': (t) => 1 + 0.8 * Math.abs(((t / 2) % 2) - 1),
  'a target that is taken away and put back': (t) => (t % 2 < 1 ? 0.6 : 2.4),
  'a hand that shakes it': (t) => 0.8 + 0.08 * Math.sin(2 * Math.PI * 5 * t),
  'a tether that throws it back': (t) => (t < 2.01 ? 0.5 + 0.6 * t : 0.5 + 0.6 * 2.01 - 0.5 * (t - 2.01)),
};

describe.each(Object.entries(motions))('%s', (_name, motion) => {
  test.each([2, 10, 20, 50, 100])('at %p Hz: nothing true is taken for a stray', (rate) => {
    const normal = normalRandom(rate);
    for (let trial = 0; trial < 20; trial++) {
      const phase = trial / 20 / rate;
      const values = Float64Array.from(
        { length: 8 * rate },
        (_, i) => motion(i / rate + phase) + noise * normal(),
      );
      expect(missing(withoutStrays(values, strayFloor(sensor, 1 / rate)))).toEqual([]);
    }
  });
});

test.each([50, 100])(
  'at %p Hz, echoes of something a hand’s breadth and more away are found; the readings beside them stay',
  (rate) => {
    const [normal, uniform] = [normalRandom(5), uniformRandom(6)];
    let [found, planted] = [0, 0];
    for (const motion of [motions['a rest'], motions['a swing'], motions['a ball that bounces']])
      for (let trial = 0; trial < 30; trial++) {
        const values = Float64Array.from({ length: 4 * rate }, (_, i) => motion(i / rate) + noise * normal());
        const at = 10 + Math.floor(uniform() * (values.length - 20));
        values[at] += (uniform() < 0.5 ? -1 : 1) * (0.15 + 2 * uniform());
        planted++;
        const left = missing(withoutStrays(values, strayFloor(sensor, 1 / rate)));
        if (left.includes(at)) found++;
        expect(left.filter((i) => i !== at)).toEqual([]);
      }
    // Right at a bounce a stray cannot be told from the bounce.
    expect(found / planted).toBeGreaterThan(0.95);
  },
);

/** Swings with echoes planted at some of their readings; how many of those are found, and what else is taken. */
function planted(places: (i: number) => boolean, missingAt: (i: number) => boolean, seed: number) {
  const [normal, uniform] = [normalRandom(seed), uniformRandom(seed + 1)];
  const values = Float64Array.from({ length: 2000 }, (_, i) => motions['a swing'](i / 50) + noise * normal());
  const strays: number[] = [];
  for (let i = 5; i < values.length - 5; i++) {
    if (missingAt(i)) values[i] = NaN;
    else if (places(i)) {
      values[i] += uniform() < 0.5 ? -0.3 - 0.1 * uniform() : 0.3 + 3 * uniform();
      strays.push(i);
    }
  }
  const lost = new Set(missing(values));
  const taken = missing(withoutStrays(values, strayFloor(sensor, 1 / 50))).filter((i) => !lost.has(i));
  return {
    found: strays.filter((i) => taken.includes(i)).length / strays.length,
    wrongly: taken.filter((i) => !strays.includes(i)).length,
  };
}

test.each([
  ['alone', (i: number) => i % 20 === 0, () => false, 1],
  ['two in a row', (i: number) => i % 20 < 2, () => false, 0.97],
  ['three in a row', (i: number) => i % 20 < 3, () => false, 0.6],
  ['right after one that was lost', (i: number) => i % 20 === 1, (i: number) => i % 20 === 0, 0.97],
  ['right before one that was lost', (i: number) => i % 20 === 0, (i: number) => i % 20 === 1, 0.97],
  ['every fifth one', (i: number) => i % 5 === 0, () => false, 0.95],
])('echoes of something else are found: %s', (_how, places, missingAt, least) => {
  for (const seed of [1, 2, 3]) {
    const { found, wrongly } = planted(places, missingAt, seed);
    expect(found).toBeGreaterThanOrEqual(least);
    expect(wrongly).toBe(0);
  }
});

test('one in twenty at random: nearly all are found, and nothing true goes', () => {
  for (const seed of [4, 5, 6]) {
    const uniform = uniformRandom(seed);
    const { found, wrongly } = planted(
      () => uniform() < 0.05,
      () => uniform() < 0.02,
      seed,
    );
    expect(found).toBeGreaterThan(0.93);
    expect(wrongly).toBe(0);
  }
});

const channel = (values: Float64Array, more: Partial<ChannelData> = {}): ChannelData => ({
  key: 'x',
  symbol: 'x',
  quantity: 'position',
  unit: parseUnit('m'),
  timeUnit: parseUnit('s'),
  sampling: regular(0, 0.02, values.length),
  values,
  low: 0.15,
  high: 6,
  noise,
  ...more,
});

describe('a channel', () => {
  const withStrays = () => {
    const normal = normalRandom(2);
    const values = Float64Array.from(
      { length: 200 },
      (_, i) => 0.8 + 0.2 * Math.sin(i / 9) + noise * normal(),
    );
    for (const i of [40, 90, 150]) values[i] = 3 - i / 100;
    return values;
  };

  test('is without them, says where they were, and counts them where a person wants that', () => {
    const values = withStrays();
    const screened = new ChannelSeries('r', channel(values));
    expect(missing(screened.series.values)).toEqual([40, 90, 150]);
    expect(screened.strays).toEqual([40, 90, 150].map((index) => ({ index, value: values[index] })));
    const all = new ChannelSeries('r', channel(values), [], 0, true);
    expect([...all.series.values]).toEqual([...values]);
    expect(all.strays).toEqual([]);
  });

  test('in centimetres is as one in metres', () => {
    const values = withStrays().map((value) => 100 * value);
    const series = new ChannelSeries(
      'r',
      channel(values, { unit: parseUnit('cm'), low: 15, high: 600, noise: 100 * noise }),
    );
    expect(series.strays.map(({ index }) => index)).toEqual([40, 90, 150]);
  });

  test.each([
    ['a force, whose knock is real', { quantity: 'force', unit: parseUnit('N') }],
    ['numbers of a file, of whose sensor nothing is known', { noise: null }],
  ])('of %s is left as it is', (_what, more) => {
    const { series } = new ChannelSeries('r', channel(withStrays(), more));
    expect(missing(series.values)).toEqual([]);
  });

  test('that grows reading by reading ends as one that came at once, and what it called settled never changes', () => {
    const values = withStrays();
    // One that nothing after it can tell from a jump, and a jump that turns out to be true.
    values.fill(2.5, 120, 124);
    values[198] = 1.9;
    const grown = new ChannelSeries('r', channel(values.slice(0, 1), { sampling: regular(0, 0.02, 1) }));
    const told: { settled: number; values: Float64Array }[] = [];
    for (let count = 2; count <= values.length; count++) {
      grown.grow(regular(0, 0.02, count), values.subarray(0, count));
      const { settled, values: now } = grown.series;
      expect(settled).toBeGreaterThanOrEqual(count - 9);
      told.push({ settled, values: now.slice(0, settled) });
    }
    const whole = new ChannelSeries('r', channel(values));
    expect([...grown.series.values]).toEqual([...whole.series.values]);
    expect(grown.strays).toEqual(whole.strays);
    for (const { settled, values: then } of told)
      expect([...then]).toEqual([...grown.series.values.subarray(0, settled)]);
    expect(grown.series.values[121]).toBe(2.5);
    expect(grown.series.values[198]).toBe(1.9);
  });
});

test('an echo of something else soon after a bounce is found: the bounce is looked at first, and what follows anew', () => {
  const rate = 50;
  const normal = normalRandom(2);
  for (const after of [3, 4, 5, 6])
    for (const off of [-0.3, -0.12, 0.2]) {
      const values = Float64Array.from(
        { length: 60 },
        (_, i) => 2 - Math.abs(2.4 * (i - 30.15) * (1 / rate)) + noise * normal(),
      );
      values[30 + after] += off;
      expect(missing(withoutStrays(values, strayFloor(sensor, 1 / rate)))).toEqual([30 + after]);
    }
});
