import { derivative } from '../calculus/derivative';
import { type Series } from '../series/series';
import { positionSeries } from '../testing/series';
import { normalRandom } from '../random';
import { timesOf } from '../series/sampling';
import { fitRelation } from './fit';
import { line } from './models/line';
import { sine } from './models/sine';
import { type Relation } from './relation';

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
