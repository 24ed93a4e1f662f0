import { normalRandom } from '../random';
import { fitRelation } from './fit';
import { sine } from './models/sine';
import { sineOnLine } from './models/sineOnLine';

// While a hand drags a region's end, a fit starts from its last solution and believes a last small step. What it says on the way
// must be what the full search says at rest, to a small part of its uncertainty; also over a long way, step upon step.

const interval = 0.02;

function swing(seed: number, count: number, noise: number, drift: number) {
  const normal = normalRandom(seed);
  const x = Float64Array.from({ length: count }, (_, i) => i * interval);
  const y = x.map(
    (t) => 0.2 + drift * t + 0.04 * Math.sin(5.3 * t + 0.4) * Math.exp(-0.01 * t) + noise * normal(),
  );
  return { x, y };
}

test.each([
  ['sine', sine, 0, 0.0003],
  ['sine', sine, 0, 0.02],
  ['sine on a line', sineOnLine, 0.01, 0.002],
] as const)('a %s on the way says what it says at rest', (_, relation, drift, noise) => {
  const { x, y } = swing(17, 4000, noise, drift);
  const part = (end: number) => ({ x: x.subarray(0, end), y: y.subarray(0, end) });
  let near = fitRelation(relation, part(900)).parameters;
  let end = 900;
  for (const step of [1, 2, 5, 5, 20, 60, 5, -10, -40, 300, 700, 5, 1]) {
    end += step;
    const moving = fitRelation(relation, part(end), undefined, { near, moving: true });
    const rest = fitRelation(relation, part(end));
    rest.parameters.forEach((value, i) => {
      const u = rest.standardUncertainties[i];
      expect(Math.abs(moving.parameters[i] - value)).toBeLessThan(0.02 * u);
      expect(moving.standardUncertainties[i] / u).toBeCloseTo(1, 1);
    });
    near = moving.parameters;
  }
});

test('a hand that leaps so far that the last solution is no start is found by the full search at rest', () => {
  const { x, y } = swing(5, 3000, 0.001, 0);
  const near = fitRelation(sine, { x: x.subarray(0, 60), y: y.subarray(0, 60) }).parameters;
  const { parameters, standardUncertainties } = fitRelation(sine, { x, y });
  const moving = fitRelation(sine, { x, y }, undefined, { near, moving: true });
  // On the way it may stand in another minimum; what it says then has no small uncertainty.
  const isThere = Math.abs(moving.parameters[1] - parameters[1]) < standardUncertainties[1];
  expect(isThere || moving.residualStandardDeviation > 5 * 0.001).toBe(true);
  expect(Math.abs(parameters[1] - (2 * Math.PI) / 5.3)).toBeLessThan(0.005);
});
