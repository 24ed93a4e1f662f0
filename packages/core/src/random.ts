import { cos, log } from './elementary';

// Taken out of Math once: in the test runner's sandbox every look-up of a global is slow.
const { imul, sqrt, PI } = Math;

/** A seeded generator of uniform numbers in [0, 1) (mulberry32), so that simulated runs are the same every time. */
export function uniformRandom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = imul(t ^ (t >>> 15), t | 1);
    t ^= t + imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Standard normal numbers by the method of Box and Muller. */
export function normalRandom(seed: number): () => number {
  const uniform = uniformRandom(seed);
  return () => sqrt(-2 * log(1 - uniform())) * cos(2 * PI * uniform());
}
