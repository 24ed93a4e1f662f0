import { chance } from '../testing/truth/sheets';
import { isMotion, meanOfCorrelated } from './correlated';

/** Noise of deviation 1 in which neighbours go together by ρ, on top of something. */
function wandering(n: number, rho: number, seed: number, on: (k: number) => number = () => 0): Float64Array {
  const { normal } = chance(seed);
  let here = normal();
  return Float64Array.from({ length: n }, (_, k) => {
    const value = here;
    here = rho * here + Math.sqrt(1 - rho * rho) * normal();
    return value + on(k);
  });
}

const share = (make: (seed: number) => Float64Array) => {
  let count = 0;
  for (let seed = 0; seed < 200; seed++) if (isMotion(make(seed))) count++;
  return count / 200;
};

test.each([
  [60, 0],
  [400, 0],
  [400, 0.5],
  [400, 0.9],
  [1000, 0.98],
])('%i readings that wander by ρ = %d are no motion', (n, rho) => {
  expect(share((seed) => wandering(n, rho, seed))).toBeLessThan(0.03);
});

const motions: Record<string, (k: number) => number> = {
  'a straight line': (k) => 0.05 * k,
  'a parabola': (k) => 0.001 * k * k,
  'a swing': (k) => 20 * Math.sin(k / 8),
  'a slow swing': (k) => 40 * Math.sin(k / 80),
  'a fall of a thousand times the noise': (k) => 3000 * Math.exp(-k / 80),
  'a slow fall': (k) => 200 * Math.exp(-k / 300),
  'a cart that is caught': (k) => 0.02 * Math.max(k - 60, 0) ** 2,
};
test.each(Object.keys(motions))('%s is one', (name) => {
  expect(share((seed) => wandering(200, 0, seed, motions[name]))).toBeGreaterThan(0.97);
});

// n (1 − ρ)/(1 + ρ): the textbook number of independent readings in an autoregression of first order.
test.each([
  [400, 0],
  [400, 0.5],
  [1000, 0.8],
])('%i readings with ρ = %d count as n (1 − ρ)/(1 + ρ) of them', (n, rho) => {
  let sum = 0;
  for (let seed = 0; seed < 200; seed++) sum += meanOfCorrelated(wandering(n, rho, seed)).independent / 200;
  expect(sum / ((n * (1 - rho)) / (1 + rho))).toBeGreaterThan(0.93);
  expect(sum / ((n * (1 - rho)) / (1 + rho))).toBeLessThan(1.1);
});
