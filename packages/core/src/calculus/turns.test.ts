import { normalRandom, uniformRandom } from '../random';
import { regular } from '../series/sampling';
import { normSquared } from '../series/noisePath';
import { withoutStrays } from '../series/strays';
import { sampledSeries } from '../testing/series';
import { eventIn } from './events';
import { ballHeights } from '../testing/ball';
import { cornerAt } from './corner';
import { noiseOf, turnsOf } from './turns';

// Truths are those of the functions the readings were made from.

const swing = (noise: number, seed: number, interval = 0.02) => {
  const normal = normalRandom(seed);
  return sampledSeries(
    regular(0, interval, Math.round(6 / interval)),
    (t) => 0.3 + 0.1 * Math.sin(2 * Math.PI * 0.8 * t) + noise * normal(),
  );
};

describe('turns', () => {
  it('finds each peak and trough of a swing where it is', () => {
    const turns = turnsOf(swing(0, 1));
    expect(turns.map(({ kind }) => kind).join(' ')).toBe(
      'peak trough peak trough peak trough peak trough peak',
    );
    turns.forEach(({ time, value, kind }, i) => {
      expect(Math.abs(time.value - (0.25 + i / 2) / 0.8)).toBeLessThan(1e-3);
      expect(Math.abs(value.value - (kind === 'peak' ? 0.4 : 0.2))).toBeLessThan(1e-4);
    });
  });

  it('is not misled by noise: no turn too many, none too few, and no peak too high', () => {
    let [sum, squares, count, claimed] = [0, 0, 0, 0];
    for (let seed = 1; seed <= 300; seed++) {
      const turns = turnsOf(swing(0.004, seed));
      expect(turns).toHaveLength(9);
      for (const { kind, value } of turns) {
        const off = kind === 'peak' ? value.value - 0.4 : 0.2 - value.value;
        sum += off;
        squares += off * off;
        claimed += 0.004 ** 2 * normSquared(value.weights.weights);
        count++;
      }
    }
    const scatter = Math.sqrt(squares / count);
    // The highest reading of so many would stand 0.006 too high.
    expect(Math.abs(sum / count)).toBeLessThan(0.0006);
    expect(scatter / Math.sqrt(claimed / count)).toBeGreaterThan(0.85);
    expect(scatter / Math.sqrt(claimed / count)).toBeLessThan(1.2);
  });

  it('tells the top of a short pulse on a long rest, whatever the noise of the rest', () => {
    const normal = normalRandom(7);
    const pulse = sampledSeries(
      regular(0, 0.002, 2000),
      (t) => 5 * Math.exp(-(((t - 2.2) / 0.03) ** 2) / 2) + 0.02 * normal(),
    );
    const [peak, ...rest] = turnsOf(pulse);
    expect(rest).toHaveLength(0);
    expect(Math.abs(peak.time.value - 2.2)).toBeLessThan(0.002);
    expect(Math.abs(peak.value.value - 5)).toBeLessThan(0.05);
  });

  it('has none where nothing turns', () => {
    expect(turnsOf(sampledSeries(regular(0, 0.1, 50), () => 2))).toEqual([]);
    expect(turnsOf(sampledSeries(regular(0, 0.1, 50), (t) => t))).toEqual([]);
    expect(turnsOf(sampledSeries(regular(0, 0.1, 50), () => NaN))).toEqual([]);
    expect(turnsOf(sampledSeries(regular(0, 0.1, 0), (t) => t))).toEqual([]);
  });

  it('is not misled by missing readings', () => {
    const series = swing(0, 1);
    for (let i = 3; i < series.values.length; i += 7) series.values[i] = NaN;
    expect(turnsOf(series)).toHaveLength(9);
  });
});

describe('events', () => {
  const rule = (event: Parameters<typeof eventIn>[1]['event'], level = 0, count = 1) => ({
    event,
    level,
    count,
  });

  it('are where they are', () => {
    const series = swing(0, 1);
    expect(eventIn(series, rule('begins')).value).toBe(0);
    expect(eventIn(series, rule('ends')).value).toBeCloseTo(5.98, 9);
    expect(eventIn(series, rule('rises', 0.3, 2)).value).toBeCloseTo(2 / 0.8, 3);
    expect(eventIn(series, rule('falls', 0.3)).value).toBeCloseTo(0.5 / 0.8, 3);
    expect(eventIn(series, rule('trough', 0, 2)).value).toBeCloseTo(1.75 / 0.8, 3);
  });

  it('tell what lacks, and what there is', () => {
    const series = swing(0, 1);
    expect(() => eventIn(series, rule('rises', 2))).toThrow('x has no rise through 2 m in this run.');
    expect(() => eventIn(series, rule('peak', 0, 9))).toThrow(
      'x has 5 of what is looked for (peak), and no 9th one.',
    );
    expect(() => eventIn(series, rule('edge'))).toThrow('x is no beam.');
  });

  it('find where something leaves its rest, and where it comes to rest again', () => {
    const normal = normalRandom(5);
    const series = sampledSeries(
      regular(0, 0.01, 800),
      (t) => (t < 2 ? 0 : t > 5 ? 0.9 : 0.1 * (t - 2) ** 2) + 2e-4 * normal(),
    );
    // 0.1 t² stands four standard deviations off after 0.09 s.
    expect(Math.abs(eventIn(series, rule('moves')).value - 2)).toBeLessThan(0.12);
    expect(Math.abs(eventIn(series, rule('stills')).value - 5)).toBeLessThan(0.03);
    // A run that began only just before it moved, and one that moves from the first reading on.
    const late = sampledSeries(
      regular(0, 0.02, 400),
      (t) => (t < 0.2 ? 0 : 0.4 * (t - 0.2) ** 2) + 3e-4 * normal(),
    );
    expect(Math.abs(eventIn(late, rule('moves')).value - 0.2)).toBeLessThan(0.12);
    const moving = sampledSeries(regular(0, 0.02, 400), (t) => Math.sin(3 * t) + 3e-4 * normal());
    expect(() => eventIn(moving, rule('moves'))).toThrow('x does not rest at the begin of this run.');
    const still = sampledSeries(regular(0, 0.01, 100), () => 1);
    expect(() => eventIn(still, rule('moves'))).toThrow('never leaves its rest');
  });
});

describe('a turn at which a series breaks', () => {
  test('is where both sides meet: a ball on the floor, the tip of a triangle', () => {
    // Worked by hand: a line up at 2 per second and down at 3, which meet at 1.003 s.
    const series = sampledSeries(regular(0, 0.02, 100), (t) => (t < 1.003 ? 2 * t : 2.006 - 3 * (t - 1.003)));
    const [tip] = turnsOf(series);
    expect(tip.time.value).toBeCloseTo(1.003, 9);
    expect(tip.value.value).toBeCloseTo(2.006, 9);
    const { at, impacts } = ballHeights({ drop: 1.5, bounce: 0.7, released: 0.3, count: 4 });
    const ball = sampledSeries(regular(0, 0.01, 170), at);
    const troughs = turnsOf(ball).filter(({ kind }) => kind === 'trough');
    expect(troughs.length).toBeGreaterThanOrEqual(2);
    for (const [k, { time, value }] of troughs.entries()) {
      expect(time.value).toBeCloseTo(impacts[k], 9);
      expect(value.value).toBeCloseTo(0, 9);
    }
  });

  test('how each reading moves it is what moving the reading does', () => {
    const { at } = ballHeights({ drop: 1.5, bounce: 0.7, released: 0.3, count: 4 });
    const values = Float64Array.from({ length: 170 }, (_, i) => at(0.01 * i));
    const turn = (own: Float64Array) =>
      turnsOf(sampledSeries(regular(0, 0.01, 170), (t) => own[Math.round(100 * t)]))[0];
    const found = turn(values);
    for (const which of ['time', 'value'] as const) {
      const { first, weights } = found[which].weights;
      for (let i = 0; i < weights.length; i += 3) {
        const moved = values.slice();
        moved[first + i] += 1e-6;
        expect((turn(moved)[which].value - found[which].value) / 1e-6).toBeCloseTo(weights[i], 4);
      }
    }
  });

  test('a smooth top is none, however it leans', () => {
    for (const shape of [
      (t: number) => Math.sin(3 * t),
      (t: number) => Math.exp(-(((t - 1) / 0.3) ** 2)),
      (t: number) => t * Math.exp(-3 * t),
      (t: number) => Math.sin(3 * t) * Math.exp(-t),
    ]) {
      const series = sampledSeries(regular(0, 0.01, 300), shape);
      for (const { index, kind } of turnsOf(series)) {
        const around = { before: Math.max(index - 40, 0), here: index, after: Math.min(index + 40, 299) };
        expect([kind, cornerAt(series, around, 0)]).toEqual([kind, null]);
      }
    }
  });
});

// The truth is in the functions: where their derivative is 0.
test.each([
  [
    'a pulse that dies away slowly',
    (t: number) => 3 * Math.max(t - 0.2, 0) * Math.exp(-3 * (t - 0.2)),
    0.2 + 1 / 3,
    Math.exp(-1),
  ],
  ['a bell curve', (t: number) => Math.exp(-(((t - 1) / 0.2) ** 2)), 1, 1],
  ['a bell curve of two widths', (t: number) => Math.exp(-(((t - 1) / (t < 1 ? 0.15 : 0.3)) ** 2)), 1, 1],
])('the top of %s is where it is: what leans is no parabola', (_, shape, at, high) => {
  for (const sigma of [0.002, 0.02])
    for (const rate of [50, 200]) {
      let [offTime, ofTime, offHeight, ofHeight, count] = [0, 0, 0, 0, 0];
      for (let seed = 1; seed <= 40; seed++) {
        const normal = normalRandom(seed);
        const series = sampledSeries(regular(0, 1 / rate, 2 * rate), (t) => shape(t) + sigma * normal());
        const top = turnsOf(series).find(({ kind, value }) => kind === 'peak' && value.value > 0.9 * high);
        if (top === undefined) continue;
        count++;
        offTime += top.time.value - at;
        ofTime += sigma * Math.sqrt(normSquared(top.time.weights.weights));
        offHeight += top.value.value - high;
        ofHeight += sigma * Math.sqrt(normSquared(top.value.weights.weights));
      }
      expect(count).toBeGreaterThan(30);
      // On average, so that noise does not hide it.
      expect(Math.abs(offTime / ofTime)).toBeLessThan(2.5);
      expect(Math.abs(offHeight / ofHeight)).toBeLessThan(1.5);
    }
});

/** How many of some values lie within ± of their truths, and the farthest off, in ±. */
function held(found: readonly (readonly [off: number, u: number])[]): { share: number; farthest: number } {
  const sizes = found.map(([off, u]) => Math.abs(off) / u);
  return { share: sizes.filter((size) => size < 1).length / sizes.length, farthest: Math.max(...sizes) };
}

describe('a swing that is read coarsely', () => {
  // From the sine itself: its turns are a quarter and three quarters of a period after it rises through its middle.
  test.each([5.37, 6.37, 7.37, 8.37, 10.37, 14.37])(
    '%f readings a period: no corner is seen in it',
    (per) => {
      for (const noise of [0.0003, 0.01]) {
        const [times, values]: (readonly [number, number])[][] = [[], []];
        for (let seed = 1; seed <= 40; seed++) {
          const normal = normalRandom(seed);
          const phase = (0.618 * seed) % 1;
          const series = sampledSeries(
            regular(0, 1, Math.round(12 * per)),
            (t) => Math.sin(2 * Math.PI * (phase + t / per)) + noise * normal(),
          );
          const sigma = noiseOf(series, 0, series.values.length);
          // The first and the last one have too few readings on one side.
          for (const turn of turnsOf(series).slice(1, -1)) {
            expect(turn.isUntold).toBeUndefined();
            const isPeak = turn.kind === 'peak';
            const cycle = turn.time.value / per + phase - (isPeak ? 0.25 : 0.75);
            const ofTurn = (weights: Float64Array) => sigma * Math.sqrt(normSquared(weights));
            times.push([per * (cycle - Math.round(cycle)), ofTurn(turn.time.weights.weights)]);
            values.push([turn.value.value - (isPeak ? 1 : -1), ofTurn(turn.value.weights.weights)]);
          }
        }
        for (const found of [times, values]) {
          expect(held(found).share).toBeGreaterThan(0.6);
          expect(held(found).farthest).toBeLessThan(10);
        }
        for (const [off] of values) expect(Math.abs(off)).toBeLessThan(0.02 + 5 * noise);
      }
    },
  );
});

describe('a ball that bounces, under noise, with wrong echoes among its readings', () => {
  test.each([
    [20, 0],
    [30, 0.001],
    [100, 0.001],
  ])('at %i readings a second: each bounce is when and where it was, within ±', (rate, wrong) => {
    const [sigma, floor] = [0.0003, 2];
    const [times, depths]: (readonly [number, number])[][] = [[], []];
    for (let seed = 1; seed <= 150; seed++) {
      const [normal, uniform] = [normalRandom(seed), uniformRandom(seed + 777)];
      const { at, impacts } = ballHeights({
        drop: 0.8 + 0.6 * uniform(),
        bounce: 0.7 + 0.15 * uniform(),
        released: 0.1 + uniform() / rate,
        count: 12,
      });
      const readings = Float64Array.from({ length: 3 * rate }, (_, i) =>
        uniform() < wrong ? 0.15 + 1.85 * uniform() : floor - at(i / rate) + sigma * normal(),
      );
      const clean = withoutStrays(readings, Math.max(20 * sigma, 100 / rate ** 2));
      const series = sampledSeries(regular(0, 1 / rate, 3 * rate), (t) => clean[Math.round(t * rate)]);
      const own = noiseOf(series, 0, 3 * rate);
      for (const turn of turnsOf(series)) {
        const k = impacts.findIndex((impact) => Math.abs(impact - turn.time.value) < 2 / rate);
        // Flights of fewer readings are no flights any more.
        const isFlight =
          k >= 0 && Math.min(impacts[k + 1] - impacts[k], impacts[k] - (impacts[k - 1] ?? 0)) * rate > 6;
        if (turn.kind === 'trough' || turn.isUntold || !isFlight) continue;
        const of = (weights: Float64Array) => own * Math.sqrt(normSquared(weights));
        times.push([turn.time.value - impacts[k], of(turn.time.weights.weights)]);
        depths.push([turn.value.value - floor, of(turn.value.weights.weights)]);
      }
    }
    expect(times.length).toBeGreaterThan(300);
    for (const found of [times, depths]) {
      expect(held(found).share).toBeGreaterThan(0.65);
      expect(held(found).farthest).toBeLessThan(10);
    }
  });
});

test('where no top can be told, as at a plateau, the moment is anywhere on it', () => {
  const normal = normalRandom(3);
  const series = sampledSeries(regular(0, 0.1, 60), (t) => (t > 2 && t < 4 ? 5 : 0) + 0.01 * normal());
  const [{ time }] = turnsOf(series);
  const sigma = noiseOf(series, 0, 60);
  const u = sigma * Math.sqrt(normSquared(time.weights.weights));
  expect(u).toBeGreaterThan(0);
  expect(Math.abs(time.value - 3)).toBeLessThan(Math.max(3 * u, 1.1));
});
