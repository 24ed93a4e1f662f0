import { derivative } from '../calculus/derivative';
import { type Series } from '../series/series';
import { positionSeries } from '../testing/series';
import { normalRandom } from '../random';
import { timesOf } from '../series/sampling';
import { fitRelation } from './fit';
import { line } from './models/line';
import { sine } from './models/sine';
import { type Relation } from './relation';
import { type RelationKey, relationKeys, relationOf } from './relations';
import { coverageFactor } from '../statistics/significance';

// The claim of a standard uncertainty (JCGM 100:2008, annex G): value ± u holds the truth in 68.3 % of repetitions.

const whole = ({ values, noise }: Series) => ({
  indices: Int32Array.from(values.keys()),
  noise,
  against: null,
});

function coverage(relation: Relation, truth: number[], sigma: number, runs: number, seed: number): number[] {
  const normal = normalRandom(seed);
  const x = Float64Array.from({ length: 200 }, (_, i) => i * 0.02);
  const clean = x.map((at) => relation.value(truth, at));
  const inside = truth.map(() => 0);
  for (let run = 0; run < runs; run++) {
    const y = clean.map((value) => value + sigma * normal());
    const fit = fitRelation(relation, { x, y });
    truth.forEach((value, i) => {
      if (Math.abs(fit.parameters[i] - value) <= fit.standardUncertainties[i]) inside[i]++;
    });
  }
  return inside.map((count) => count / runs);
}

test.each([
  ['line', line, [0.37, -0.12], 0.003],
  ['sine', sine, [0.04, 1.19, 0.7, 0.31], 0.003],
] as const)(
  'over 1000 simulated runs ±u covers the truth of each %s parameter 65 to 71 %% of the time',
  (_, relation, truth, sigma) => {
    for (const share of coverage(relation, [...truth], sigma, 1000, 7)) {
      expect(share).toBeGreaterThanOrEqual(0.65);
      expect(share).toBeLessThanOrEqual(0.71);
    }
  },
);

test('over 10 000 runs the share of a line is 68.3 % within two percentage points', () => {
  for (const share of coverage(line, [0.37, -0.12], 0.003, 10_000, 11))
    expect(Math.abs(share - 0.683)).toBeLessThan(0.02);
});

test.each([1, 2])(
  'the noise of a series derived %d× is followed through the filter, so that its line covers the truth as often',
  (times) => {
    const normal = normalRandom(23 + times);
    let inside = 0;
    const runs = 1000;
    for (let run = 0; run < runs; run++) {
      let series = positionSeries(150, 0.02, (t) => 0.2 + 0.1 * t + 0.45 * t * t + 0.0003 * normal());
      for (let k = 0; k < times; k++) series = derivative(series, { symbol: 'v', windowPoints: 9 });
      const fit = fitRelation(line, { x: timesOf(series.sampling), y: series.values }, whole(series));
      if (Math.abs(fit.parameters[0] - (times === 1 ? 0.9 : 0)) <= fit.standardUncertainties[0]) inside++;
    }
    expect(inside / runs).toBeGreaterThan(0.64);
    expect(inside / runs).toBeLessThan(0.72);
  },
);

/** Truths that a lesson shows, over places from x₀ to x₁, and the scatter of a reading. */
const truths: [RelationKey, number[], from: number, to: number, sigma: number][] = [
  ['line', [0.37, -0.12], 0, 4, 0.05],
  ['proportional', [0.37], 0.2, 4, 0.05],
  ['parabola', [0.9, -0.2, 0.1], 0, 4, 0.05],
  ['cubic', [0.2, -0.5, 0.3, 1], 0, 4, 0.05],
  ['power', [1.5, 0.8], 0.5, 4, 0.05],
  ['squareRoot', [0.8], 0, 4, 0.03],
  ['inverse', [0.8], 0.3, 4, 0.03],
  ['inverseSquare', [0.8], 0.3, 4, 0.03],
  ['inverseCube', [0.8], 0.3, 4, 0.03],
  ['decay', [2, 1.2, 0.3], 0, 5, 0.02],
  ['approach', [2, 1.2, 0.3], 0, 5, 0.02],
  ['logarithm', [0.7, 0.2], 0.3, 5, 0.03],
  ['sine', [0.4, 1.19, 0.7, 0.31], 0, 4, 0.02],
  ['dampedSine', [0.4, 1.19, 0.2, 0.7, 0.31], 0, 4, 0.01],
  ['sineOnLine', [0.4, 1.19, 0.7, 0.31, 0.05], 0, 4, 0.02],
  ['gaussian', [2.2, 1.5, 0.6, 0.2], 0, 5, 0.03],
  ['resonance', [10, 1, 1.5], 5, 16, 0.015],
];

test('every relation has a truth here', () =>
  expect(truths.map(([key]) => key).sort()).toEqual([...relationKeys].sort()));

// Few readings, so that Student’s t counts (JCGM 100:2008, annex G.3). The search starts at the truth: where the least sum of
// squares lies does not hang on the start, which `guesses.test.ts` shows.
test.each(truths)(
  'with 20 readings, the interval of the main parameter of %s covers 65 to 71 %%',
  (key, truth, from, to, sigma) => {
    const relation = relationOf(key);
    const normal = normalRandom(61);
    const x = Float64Array.from({ length: 20 }, (_, i) => from + ((to - from) * i) / 19);
    const clean = x.map((at) => relation.value(truth, at));
    const axes = { xUnit: [], yUnit: [], xQuantity: '', yQuantity: '', xSymbol: 'x', ySymbol: 'y' };
    const main = relation.parameterNames(axes).findIndex((name) => name.main);
    const runs = 1000;
    let inside = 0;
    for (let run = 0; run < runs; run++) {
      const y = clean.map((value) => value + sigma * normal());
      const fit = fitRelation(relation, { x, y }, undefined, { near: truth, moving: true });
      const half = coverageFactor(fit.degreesOfFreedom) * fit.standardUncertainties[main];
      if (Math.abs(fit.parameters[main] - truth[main]) <= half) inside++;
    }
    expect(inside / runs).toBeGreaterThanOrEqual(0.65);
    expect(inside / runs).toBeLessThanOrEqual(0.71);
  },
);
