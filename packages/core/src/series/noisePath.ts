import { addScaled } from '../vectors';
import { type NoiseLevel } from './noiseLevel';
import { type Ranges } from './ranges';
import { type Sampling } from './sampling';

/** Readings of one channel of one run, at the root of everything that is worked out from them. */
export interface ReadingsRoot {
  /** The same text for the same readings, also across evaluations. */
  readonly key: string;
  /** What people call them: "readings of x". */
  readonly label: string;
  readonly level: NoiseLevel;
  /** Readings that a person has set aside. */
  readonly aside?: Ranges;
  /** The readings themselves, as far as they have come. */
  readings(): { sampling: Sampling; values: Float64Array };
}

/** Weights on consecutive values from index `first` on. */
export interface WeightSpan {
  readonly first: number;
  readonly weights: Float64Array;
}

/**
 * How the noise of a series comes from readings. A derived series is F·readings with a linear F; where the readings' noise is
 * independent with one variance σ², the derived noise has the covariance σ² F Fᵀ.
 */
export interface NoisePath {
  readonly root: ReadingsRoot;
  /** True for readings themselves: F is the identity. */
  readonly independent: boolean;
  /** Fᵀ w: turns weights on this series into weights on the readings. */
  spread(weights: WeightSpan): WeightSpan;
  /** Row i of F, or null where rows are not sparse (running integrals). */
  row(i: number): WeightSpan | null;
  /** Whether all rows from `low` up to `high` are the same but for a shift: away from ends and missing readings. */
  isOrdinary(low: number, high: number): boolean;
}

/** The path of readings: their noise is their own. */
export function readingsNoise(root: ReadingsRoot): NoisePath {
  return {
    root,
    independent: true,
    spread: (weights) => weights,
    row: (i) => ({ first: i, weights: Float64Array.of(1) }),
    isOrdinary: () => true,
  };
}

/** Σ w². */
export function normSquared(weights: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < weights.length; i++) sum += weights[i] * weights[i];
  return sum;
}

/** Σ a b over the readings that both intervals have. */
export function dotOfSpans(a: WeightSpan, b: WeightSpan): number {
  const from = Math.max(a.first, b.first);
  const to = Math.min(a.first + a.weights.length, b.first + b.weights.length);
  const [ofA, ofB] = [a.weights, b.weights];
  const [atA, atB] = [from - a.first, from - b.first];
  let sum = 0;
  for (let i = 0; i < to - from; i++) sum += ofA[atA + i] * ofB[atB + i];
  return sum;
}

/** a + factor·b, over the readings that either has. */
export function addSpans(a: WeightSpan, b: WeightSpan, factor = 1): WeightSpan {
  const first = Math.min(a.first, b.first);
  const end = Math.max(a.first + a.weights.length, b.first + b.weights.length);
  const weights = new Float64Array(end - first);
  weights.set(a.weights, a.first - first);
  addScaled(weights, b.weights, factor, b.first - first);
  return { first, weights };
}

/** The same weights times one factor. */
export function scaledSpan({ first, weights }: WeightSpan, factor: number): WeightSpan {
  const out = new Float64Array(weights.length);
  for (let i = 0; i < out.length; i++) out[i] = factor * weights[i];
  return { first, weights: out };
}

/** Weights at ascending indices as one interval. */
export function spanAt(indices: Int32Array, weights: ArrayLike<number>): WeightSpan {
  const count = indices.length;
  if (count === 0) return { first: 0, weights: new Float64Array(0) };
  const first = indices[0];
  const length = indices[count - 1] - first + 1;
  if (length === count && weights instanceof Float64Array) return { first, weights };
  const out = new Float64Array(length);
  for (let i = 0; i < count; i++) out[indices[i] - first] = weights[i];
  return { first, weights: out };
}

/** Σ factor · interval, over the readings that any of them has; in one pass, however many there are. */
export function sumOfSpans(parts: readonly (readonly [WeightSpan, number])[]): WeightSpan {
  let [first, end] = [Infinity, -Infinity];
  for (const [span] of parts) {
    if (span.weights.length === 0) continue;
    first = Math.min(first, span.first);
    end = Math.max(end, span.first + span.weights.length);
  }
  if (end < first) return { first: 0, weights: new Float64Array(0) };
  const weights = new Float64Array(end - first);
  for (const [span, factor] of parts) addScaled(weights, span.weights, factor, span.first - first);
  return { first, weights };
}
