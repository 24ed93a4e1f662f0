import { uniformRandom } from '../random';
import { readingsSeries } from './series';
import { type Sampling, regular, timeAt, timed } from './sampling';
import { repetitions } from '../testing/effort';
import { type DrawnLine, thinPoints, thinSeries } from './thinning';

const random = uniformRandom(8);

const seriesOf = (sampling: Sampling, values: Float64Array) =>
  readingsSeries({ symbol: 'x', quantity: 'position', unit: [], timeUnit: [], sampling, values });

/** Noise with lone spikes, intervals that are missing, and a plateau. */
function rough(count: number): Float64Array {
  let level = 0;
  let missing = 0;
  return Float64Array.from({ length: count }, (_, i) => {
    level += random() - 0.5;
    if (random() < 0.0005) missing = 1 + Math.floor(random() * 40);
    if (missing-- > 0) return NaN;
    if (i > count * 0.6 && i < count * 0.65) return 1;
    return random() < 0.0003 ? level + 1000 * (random() - 0.5) : level;
  });
}

/** Times with pauses, a hundredfold in length. */
function uneven(count: number): Float64Array {
  let at = -50;
  return Float64Array.from(
    { length: count },
    () => (at += random() < 0.001 ? random() * 10 : random() * 0.01),
  );
}

function extremes(x: ArrayLike<number>, y: ArrayLike<number>, from: number, to: number): [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < x.length; i++) {
    if (!(x[i] >= from && x[i] <= to)) continue;
    if (y[i] < low) low = y[i];
    if (y[i] > high) high = y[i];
  }
  return [low, high];
}

const cases = [
  { name: 'at a rate', series: seriesOf(regular(-3, 0.01, 60_000), rough(60_000)) },
  { name: 'at times of their own', series: seriesOf(timed(uneven(60_000)), rough(60_000)) },
];

test.each(cases)(
  'the drawn extremes of readings $name are the true ones, in windows of any width',
  ({ series }) => {
    const { sampling, values } = series;
    const times = Float64Array.from(values, (_, i) => timeAt(sampling, i));
    const [begin, end] = [times[0], times[times.length - 1]];
    for (let tries = 0; tries < repetitions(600, 5000); tries++) {
      const width = (end - begin) * 10 ** (-5 * random());
      const from = begin - width / 2 + random() * (end - begin);
      const to = from + width;
      const drawn = thinSeries(series, { from, to }, 20 + Math.floor(random() * 800));
      expect(extremes(drawn.x, drawn.y, from, to)).toEqual(extremes(times, values, from, to));
      for (let i = 1; i < drawn.x.length; i++)
        if (drawn.x[i] < drawn.x[i - 1]) throw new Error('out of order');
    }
  },
);

/** Least and greatest height that a filled band reaches within an interval: at its corners, and where its edges enter and leave. */
function bandWithin({ x, y }: DrawnLine, from: number, to: number): [number, number] {
  let [low, high] = [Infinity, -Infinity];
  const take = (place: number, bottom: number, top: number) => {
    if (!(place >= from && place <= to)) return;
    low = Math.min(low, bottom);
    high = Math.max(high, top);
  };
  for (let i = 0; i < x.length; i += 2) {
    if (Number.isNaN(y[i])) continue;
    take(x[i], y[i], y[i + 1]);
    if (i + 2 >= x.length || Number.isNaN(y[i + 2])) continue;
    for (const place of [from, to]) {
      const share = (place - x[i]) / (x[i + 2] - x[i]);
      if (share >= 0 && share <= 1)
        take(place, y[i] + share * (y[i + 2] - y[i]), y[i + 1] + share * (y[i + 3] - y[i + 1]));
    }
  }
  return [low, high];
}

test('no pixel column hides a spike: what is drawn reaches it within three pixels of where it was', () => {
  const count = 400_000;
  const width = 600;
  for (let tries = 0; tries < 60; tries++) {
    const values = Float64Array.from({ length: count }, () => random());
    const spikes = Array.from({ length: 5 }, () => Math.floor(random() * count));
    for (const [i, spike] of spikes.entries()) values[spike] = i % 2 === 0 ? 50 + i : -50 - i;
    const series = seriesOf(regular(0, 1, count), values);
    const from = random() * count * 0.5;
    const to = from + count * (0.1 + 0.4 * random());
    const drawn = thinSeries(series, { from, to }, width / 2);
    expect(drawn.isBand).toBe(true);
    const pixel = (to - from) / width;
    for (const spike of spikes) {
      if (!(spike >= from && spike <= to)) continue;
      const [low, high] = bandWithin(drawn, spike - 3 * pixel, spike + 3 * pixel);
      if (values[spike] > 0) expect(high).toBeGreaterThanOrEqual(values[spike]);
      else expect(low).toBeLessThanOrEqual(values[spike]);
    }
  }
});

test('a gap breaks the line, however short it is beside what is drawn: one reading, or many', () => {
  for (const missing of [1, 7, 900]) {
    const values = Float64Array.from({ length: 20_000 }, (_, i) =>
      i >= 9000 && i < 9000 + missing ? NaN : Math.sin(i / 500),
    );
    const { x, y, isBand } = thinSeries(
      seriesOf(regular(0, 0.01, 20_000), values),
      { from: 0, to: 200 },
      200,
    );
    expect(isBand).toBe(true);
    // As near to the gap as a part of the screen is wide.
    const part = 1.3;
    const end = 90 + 0.01 * missing;
    const breaks = [...x].filter((_, i) => Number.isNaN(y[i]));
    expect([missing, breaks.length > 0]).toEqual([missing, true]);
    expect(breaks.filter((at) => at < 90 - part || at > end + part)).toEqual([]);
    expect([...x].filter((at, i) => at > 90 + part && at < end - part && !Number.isNaN(y[i]))).toEqual([]);
  }
});

test('an interval that is moved by a little shows the same parts', () => {
  const series = cases[0].series;
  const one = thinSeries(series, { from: 100, to: 400 }, 300);
  const two = thinSeries(series, { from: 103, to: 403 }, 300);
  const inner = ({ x, y }: DrawnLine) =>
    [...x].map((at, i) => `${at} ${y[i]}`).filter((_, i) => x[i] > 105 && x[i] < 395);
  expect(inner(two)).toEqual(inner(one));
});

test('few readings are drawn as they are, with one more on either side', () => {
  const series = seriesOf(
    regular(0, 1, 100),
    Float64Array.from({ length: 100 }, (_, i) => i),
  );
  expect(thinSeries(series, { from: 9.5, to: 12.5 }, 100)).toEqual({
    x: Float64Array.of(9, 10, 11, 12, 13),
    y: Float64Array.of(9, 10, 11, 12, 13),
    isBand: false,
  });
  expect(thinSeries(series, { from: 200, to: 300 }, 100).x).toEqual(Float64Array.of(99));
  expect(thinSeries(series, { from: -20, to: -10 }, 100).x).toEqual(Float64Array.of(0));
});

test('of one quantity against another every point in sight is held, or one that falls on the same spot', () => {
  const count = 50_000;
  const x = Float64Array.from({ length: count }, (_, i) => Math.cos(i * 0.01) + 0.01 * random());
  const y = Float64Array.from({ length: count }, (_, i) => Math.sin(i * 0.013) + 0.01 * random());
  const grid = 600;
  for (let tries = 0; tries < 30; tries++) {
    const from = -1 + 1.8 * random();
    const sight = { from, to: from + 0.001 + random() * 0.5 };
    const drawn = thinPoints(x, y, sight, null, grid, 6000);
    const [low, high] = extremes(x, y, sight.from, sight.to);
    const cells = new Set(
      [...drawn.x].map(
        (at, i) =>
          `${Math.floor(((at - sight.from) * grid) / (sight.to - sight.from))} ${Math.floor(((drawn.y[i] - low) * grid) / (high - low))}`,
      ),
    );
    let inSight = 0;
    for (let i = 0; i < count; i++) {
      if (!(x[i] >= sight.from && x[i] <= sight.to)) continue;
      inSight++;
      const cell = `${Math.floor(((x[i] - sight.from) * grid) / (sight.to - sight.from))} ${Math.floor(((y[i] - low) * grid) / (high - low))}`;
      if (!cells.has(cell)) throw new Error(`nothing stands for the point ${x[i]}, ${y[i]}`);
    }
    const points = drawn.y.filter((value) => !Number.isNaN(value)).length;
    if (inSight <= 6000) expect(points).toBe(inSight);
    else expect(points).toBeGreaterThan(3000);
  }
});

test('the way between points is broken where it leads out of sight, and where a value is missing', () => {
  const x = Float64Array.of(0, 1, 2, 9, 3, 4, 5);
  const y = Float64Array.of(0, 1, 2, 3, 4, NaN, 6);
  const { x: across, y: up } = thinPoints(x, y, { from: 0, to: 5 }, null, 600, 6000);
  expect([...up]).toEqual([0, 1, 2, NaN, 4, NaN, 6]);
  expect([...across].filter((_, i) => !Number.isNaN(up[i]))).toEqual([0, 1, 2, 3, 5]);
});
