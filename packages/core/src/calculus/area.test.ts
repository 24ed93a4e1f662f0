import { normalRandom, uniformRandom } from '../random';
import { Refusal, orRefusal } from '../refusal';
import { regular, timed } from '../series/sampling';
import { sampledSeries, seriesOf } from '../testing/series';
import { areaAlongPath, areaBetween } from './area';

const ones = (count: number) => seriesOf(regular(0, 0.02, count), new Float64Array(count).fill(1));

test.each([1, 2, 3])('%p missing readings at an edge of the region take nothing off the area', (missing) => {
  const series = ones(101);
  for (let k = 0; k < missing; k++) series.values[25 + k] = series.values[75 - k] = NaN;
  expect(areaBetween(series, 0.5, 1.5).value).toBeCloseTo(1, 12);
});

test('readings missing where the run itself begins are not made up', () => {
  const series = ones(101);
  series.values[0] = series.values[1] = NaN;
  expect(() => areaBetween(series, 0, 1)).toThrow('Readings are missing between 0 and 0.04');
});

test('a hole in irregular times is never bridged in silence', () => {
  const random = uniformRandom(3);
  let t = 0;
  const times = Float64Array.from({ length: 200 }, (_, i) => (t += i === 100 ? 2 : 0.01 + 0.02 * random()));
  const series = sampledSeries(timed(times), (at) => Math.sin(at));
  expect(() => areaBetween(series, 0.5, times[199] - 0.1)).toThrow('Readings are missing between');
  expect(areaBetween(series, 0.5, 1.4).value).toBeCloseTo(Math.cos(0.5) - Math.cos(1.4), 3);
});

describe('an area along another quantity', () => {
  const swing = Float64Array.from({ length: 401 }, (_, i) => Math.sin((2 * Math.PI * i) / 100));
  const grid = regular(0, 0.01, 401);

  test('of passes through a region adds the passes and never joins them: ∫ x dx there and back is nothing', () => {
    const { value, passes } = areaAlongPath(grid, swing, swing, {
      first: 0,
      past: 401,
      within: { start: 0.2, end: 0.6 },
    });
    expect(passes).toBe(8);
    expect(value).toBeCloseTo(0, 10);
  });

  test('is cut at the ends of the region: ∫ 3 x² dx from 0.2 to 0.6 in one pass', () => {
    const rise = swing.slice(0, 26);
    const { value, passes } = areaAlongPath(
      regular(0, 0.01, 26),
      rise,
      rise.map((x) => 3 * x * x),
      { first: 0, past: 26, within: { start: 0.2, end: 0.6 } },
    );
    expect(passes).toBe(1);
    // Straight lines between readings 0.06 apart lie above the curve by less than 0.001.
    expect(value).toBeCloseTo(0.6 ** 3 - 0.2 ** 3, 2);
  });

  test('has the partial derivatives that moving each reading shows', () => {
    const random = uniformRandom(9);
    const x = Float64Array.from({ length: 30 }, (_, i) => i * 0.1 + 0.05 * random());
    const y = Float64Array.from({ length: 30 }, () => random());
    const bounds = { first: 2, past: 28, within: { start: 0.47, end: 2.31 } };
    const at = () => areaAlongPath(regular(0, 1, 30), x, y, bounds);
    const { byValues, byAbscissas } = at();
    for (const [values, span] of [
      [x, byAbscissas],
      [y, byValues],
    ] as const)
      for (let i = 2; i < 28; i++) {
        const kept = values[i];
        const h = 1e-6;
        values[i] = kept + h;
        const above = at().value;
        values[i] = kept - h;
        const below = at().value;
        values[i] = kept;
        expect((above - below) / (2 * h)).toBeCloseTo(span?.weights[i - (span?.first ?? 0)] ?? NaN, 6);
      }
  });
});

test('regular readings give the area that the same readings give at times of their own, wherever the ends lie and whatever is missing', () => {
  const normal = normalRandom(31);
  const n = 60;
  const values = Float64Array.from({ length: n }, () => normal());
  const times = Float64Array.from({ length: n }, (_, i) => 0.1 * i);
  for (const missing of [[], [20], [20, 21, 22], [3], [57]]) {
    const own = values.slice();
    for (const i of missing) own[i] = NaN;
    for (const [from, to] of [
      [-1, 9],
      [0.05, 5.83],
      [0.3, 5.7],
      [1, 1.2],
      [1.01, 1.19],
      [2.35, 2.45],
      [0, 0.2],
    ]) {
      const [one, other] = [regular(0, 0.1, n), timed(times)].map((sampling) =>
        orRefusal(() => areaBetween(seriesOf(sampling, own), from, to)),
      );
      if (one instanceof Refusal || other instanceof Refusal) {
        expect(String(one)).toBe(String(other));
        continue;
      }
      expect(one.value).toBeCloseTo(other.value, 12);
      expect(one.bridged).toBe(other.bridged);
      expect(one.byValues.first).toBe(other.byValues.first);
      one.byValues.weights.forEach((weight, i) => expect(weight).toBeCloseTo(other.byValues.weights[i], 12));
    }
  }
});
