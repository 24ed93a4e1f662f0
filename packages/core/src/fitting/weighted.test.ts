import { normalRandom } from '../random';
import { Refusal } from '../refusal';
import { transformCovariance } from './covariance';
import { line } from './models/line';
import { relationOf } from './relations';
import { weightedSolution } from './weighted';

const fitOf = (
  key: 'line' | 'decay',
  points: { x: Float64Array; y: Float64Array },
  uncertainties: { x: Float64Array | null; y: Float64Array },
) => {
  const solved = relationOf(key).solve(points, { near: null });
  const found = weightedSolution(solved, points, uncertainties);
  const covariance = transformCovariance(found.covariance, solved.transformation);
  return {
    parameters: solved.named(found.parameters),
    uncertainties: covariance.map((row, i) => Math.sqrt(row[i])),
    chiSquared: found.chiSquared,
  };
};

// Source: Pearson's points of 1901 with York's weights: York, Can. J. Phys. 44 (1966) 1079, table I; the best line to more digits
// in Reed, Am. J. Phys. 60 (1992) 59: slope −0.480533407, intercept 5.479910224, weighted sum 11.8663532; the uncertainties of the
// maximum likelihood, 0.058 and 0.295, in York et al., Am. J. Phys. 72 (2004) 367. All from memory.
test('York’s line through Pearson’s points', () => {
  const x = Float64Array.of(0, 0.9, 1.8, 2.6, 3.3, 4.4, 5.2, 6.1, 6.5, 7.4);
  const y = Float64Array.of(5.9, 5.4, 4.4, 4.6, 3.5, 3.7, 2.8, 2.8, 2.4, 1.5);
  const ofX = Float64Array.of(1000, 1000, 500, 800, 200, 80, 60, 20, 1.8, 1).map((w) => 1 / Math.sqrt(w));
  const ofY = Float64Array.of(1, 1.8, 4, 8, 20, 20, 70, 70, 100, 500).map((w) => 1 / Math.sqrt(w));
  const { parameters, uncertainties, chiSquared } = fitOf('line', { x, y }, { x: ofX, y: ofY });
  expect(parameters[0]).toBeCloseTo(-0.480533407, 7);
  expect(parameters[1]).toBeCloseTo(5.479910224, 6);
  expect(chiSquared).toBeCloseTo(11.8663532, 5);
  expect(uncertainties[0]).toBeCloseTo(0.058, 3);
  expect(uncertainties[1]).toBeCloseTo(0.295, 2);
});

test('equal uncertainties give what no weights give', () => {
  const x = Float64Array.from({ length: 12 }, (_, i) => i / 3);
  const random = normalRandom(4);
  const y = x.map((at) => 2 * at - 1 + 0.1 * random());
  const plain = line.solve({ x, y }, { near: null });
  const weighted = fitOf('line', { x, y }, { x: null, y: new Float64Array(12).fill(0.37) });
  plain
    .named(plain.solution.parameters)
    .forEach((value, i) => expect(weighted.parameters[i]).toBeCloseTo(value, 9));
});

test.each([
  ['line', [0.8, 0.3], true],
  ['decay', [2, 1.2, 0.3], false],
  ['decay', [2, 1.2, 0.3], true],
] as const)(
  'weighted intervals of a %s cover 65 to 71 %% (also noisy in x: %p %p)',
  (key, truth, isNoisyAcross) => {
    const random = normalRandom(77);
    const n = 16;
    const places = Float64Array.from({ length: n }, (_, i) => 0.2 + (4.5 * i) / n);
    const ofY = places.map((_, i) => 0.01 * (1 + (i % 4)));
    const ofX = places.map((_, i) => 0.008 * (1 + ((i + 1) % 3)));
    const inside = truth.map(() => 0);
    const runs = 1000;
    for (let run = 0; run < runs; run++) {
      const x = isNoisyAcross ? places.map((at, i) => at + ofX[i] * random()) : places;
      const y = places.map((at, i) => relationOf(key).value([...truth], at) + ofY[i] * random());
      const found = fitOf(key, { x, y }, { x: isNoisyAcross ? ofX : null, y: ofY });
      truth.forEach((value, i) => {
        if (Math.abs(found.parameters[i] - value) <= found.uncertainties[i]) inside[i]++;
      });
    }
    for (const count of inside) {
      expect(count / runs).toBeGreaterThan(0.65);
      expect(count / runs).toBeLessThan(0.71);
    }
  },
  60_000,
);

test('a point without an uncertainty is refused', () => {
  const x = Float64Array.of(0, 1, 2, 3);
  const y = Float64Array.of(0, 1.1, 1.9, 3);
  expect(() => fitOf('line', { x, y }, { x: null, y: Float64Array.of(0.1, 0, 0.1, 0.1) })).toThrow(Refusal);
});
