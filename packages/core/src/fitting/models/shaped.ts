import { pow, square } from '../../elementary';
import { Refusal, orRefusal } from '../../refusal';
import { type ModelFunction, type Solution, type SolverOptions, leastSquares } from '../levenbergMarquardt';

/**
 * A relation that is a sum of functions with factors, once its few shape parameters are held: the factors of every trial are
 * then found by linear least squares, and only the shape is searched for (Golub and Pereyra, SIAM J. Numer. Anal. 10 (1973) 413).
 */
export interface ShapedModel {
  factors: number;
  /** Shape parameters. */
  held: number;
  /**
   * The functions at u for a shape, and their derivatives by the shape parameters (row by row, factors within) where asked for.
   */
  fill(held: readonly number[], u: number, values: Float64Array, byHeld: Float64Array | null): void;
}

/** Enough points to tell which shape is best, where it has few bends. */
const usualSearchPoints = 160;
/** So many shapes are followed down to their minimum. */
const mostFollowed = 4;

/** Means of the points in equal intervals of u, with how many there are in each; the points themselves where they are few. */
function gathered(
  u: Float64Array,
  y: Float64Array,
  searchPoints: number,
): { u: Float64Array; y: Float64Array; root: Float64Array } {
  const n = u.length;
  if (n <= searchPoints) return { u, y, root: new Float64Array(n).fill(1) };
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < n; i++) {
    if (u[i] < low) low = u[i];
    if (u[i] > high) high = u[i];
  }
  const sums = new Float64Array(3 * searchPoints);
  const scale = searchPoints / (high - low);
  for (let i = 0; i < n; i++) {
    const bin = Math.min(((u[i] - low) * scale) | 0, searchPoints - 1);
    sums[3 * bin] += u[i];
    sums[3 * bin + 1] += y[i];
    sums[3 * bin + 2]++;
  }
  const filled = Array.from({ length: searchPoints }, (_, bin) => bin).filter((bin) => sums[3 * bin + 2] > 0);
  const of = (place: number) =>
    Float64Array.from(filled, (bin) =>
      place === 2 ? Math.sqrt(sums[3 * bin + 2]) : sums[3 * bin + place] / sums[3 * bin + 2],
    );
  return { u: of(0), y: of(1), root: of(2) };
}

/** The model as the solver sees it: factors first, then the shape. */
function modelFunction(model: ShapedModel, u: Float64Array, root: Float64Array | null): ModelFunction {
  const { factors, held } = model;
  const values = new Float64Array(factors);
  const byHeld = new Float64Array(factors * held);
  return (parameters, first, out, jacobian) => {
    const shape = parameters.slice(factors);
    for (let i = 0; i < out.length; i++) {
      const weight = root === null ? 1 : root[first + i];
      model.fill(shape, u[first + i], values, jacobian === null ? null : byHeld);
      let sum = 0;
      for (let k = 0; k < factors; k++) sum += parameters[k] * values[k];
      out[i] = weight * sum;
      if (jacobian === null) continue;
      for (let k = 0; k < factors; k++) jacobian[k][i] = weight * values[k];
      for (let j = 0; j < held; j++) {
        let slope = 0;
        for (let k = 0; k < factors; k++) slope += parameters[k] * byHeld[j * factors + k];
        jacobian[factors + j][i] = weight * slope;
      }
    }
  };
}

/**
 * Tries shapes over one set of points: the factors of each by normal equations, which are good enough to choose by; the solver
 * sharpens what is chosen.
 */
function shapeTrial(
  model: ShapedModel,
  { u, y, root }: { u: Float64Array; y: Float64Array; root: Float64Array },
): (held: readonly number[]) => { parameters: number[]; sum: number } | null {
  const { factors: m } = model;
  const n = u.length;
  const values = new Float64Array(m);
  const gram = new Float64Array(m * m);
  const right = new Float64Array(m);
  // About the middle of the values, so that squares keep their digits.
  let middle = 0;
  let weight = 0;
  for (let i = 0; i < n; i++) {
    const w = root[i] * root[i];
    middle += w * y[i];
    weight += w;
  }
  const constant = constantOf(model);
  const base = constant === null ? 0 : middle / weight;
  let squares = 0;
  for (let i = 0; i < n; i++) squares += square(root[i] * (y[i] - base));
  return (held) => {
    gram.fill(0);
    right.fill(0);
    for (let i = 0; i < n; i++) {
      model.fill(held, u[i], values, null);
      const w = root[i] * root[i];
      for (let a = 0; a < m; a++) {
        const wa = w * values[a];
        right[a] += wa * (y[i] - base);
        for (let b = a; b < m; b++) gram[a * m + b] += wa * values[b];
      }
    }
    const factors = solvedGram(gram, right, m);
    if (factors === null) return null;
    let sum = squares;
    for (let a = 0; a < m; a++) sum -= factors[a] * right[a];
    if (constant !== null) factors[constant] += base;
    return { parameters: [...factors, ...held], sum: Math.max(sum, 0) };
  };
}

/** Which of the functions is one everywhere; null where none is. */
function constantOf({ factors, held, fill }: ShapedModel): number | null {
  const shape = new Array<number>(held).fill(0.37);
  const [here, there] = [new Float64Array(factors), new Float64Array(factors)];
  fill(shape, 0.1, here, null);
  fill(shape, 0.7, there, null);
  const found = here.findIndex((value, k) => value === 1 && there[k] === 1);
  return found < 0 ? null : found;
}

/** Solves a small symmetric system by Cholesky's method; null where it is singular. The upper half is read, and overwritten. */
function solvedGram(gram: Float64Array, right: Float64Array, m: number): number[] | null {
  for (let i = 0; i < m; i++) {
    const whole = gram[i * m + i];
    for (let k = 0; k < i; k++) gram[i * m + i] -= square(gram[k * m + i]);
    if (!(gram[i * m + i] > 1e-12 * whole)) return null;
    gram[i * m + i] = Math.sqrt(gram[i * m + i]);
    for (let j = i + 1; j < m; j++) {
      for (let k = 0; k < i; k++) gram[i * m + j] -= gram[k * m + i] * gram[k * m + j];
      gram[i * m + j] /= gram[i * m + i];
    }
  }
  const out = Array.from(right);
  for (let i = 0; i < m; i++) {
    for (let k = 0; k < i; k++) out[i] -= gram[k * m + i] * out[k];
    out[i] /= gram[i * m + i];
  }
  for (let i = m - 1; i >= 0; i--) {
    for (let k = i + 1; k < m; k++) out[i] -= gram[i * m + k] * out[k];
    out[i] /= gram[i * m + i];
  }
  return out;
}

/**
 * The shape and factors with the least sum of squares.
 * @param starts shapes from which it is searched; close enough to each other that no minimum lies between
 * @param near factors and shape of an earlier solution, from which alone it is searched
 * @throws Refusal where no shape settles
 */
export function solveShaped(
  model: ShapedModel,
  u: Float64Array,
  y: Float64Array,
  starts: Iterable<readonly number[]>,
  near: readonly number[] | null,
  isGood: (held: readonly number[]) => boolean,
  whenNone: string,
  searchPoints = usualSearchPoints,
): Solution {
  const whole = modelFunction(model, u, null);
  const from = (start: readonly number[], options: SolverOptions = {}) => {
    const found = orRefusal(() => leastSquares(whole, y, start, options));
    return found instanceof Refusal || !isGood(found.parameters.slice(model.factors)) ? null : found;
  };
  if (near !== null) {
    const nearby = from(near, { tolerance: 1e-7, believed: 1e-4, damping: 1e-9 });
    if (nearby !== null) return nearby;
  }
  const few = gathered(u, y, searchPoints);
  const tried: { parameters: number[]; sum: number }[] = [];
  const trial = shapeTrial(model, few);
  for (const held of starts) {
    const found = trial(held);
    if (found !== null) tried.push(found);
  }
  tried.sort((a, b) => a.sum - b.sum);
  const coarse = modelFunction(model, few.u, few.root);
  const weighed = few.y.map((value, i) => value * few.root[i]);
  const followed: { parameters: number[]; sum: number }[] = [];
  for (const start of spread(tried, model)) {
    const found = orRefusal(() =>
      leastSquares(coarse, weighed, start.parameters, { maxIterations: 120, tolerance: 1e-8 }),
    );
    if (found instanceof Refusal) followed.push(start);
    else if (isGood(found.parameters.slice(model.factors)))
      followed.push({ parameters: found.parameters, sum: found.residualSumOfSquares });
  }
  followed.sort((a, b) => a.sum - b.sum);
  let best: Solution | null = null;
  for (const { parameters, sum } of followed.slice(0, 3)) {
    // What is clearly worse on the means is worse on the readings.
    if (sum > 1.05 * followed[0].sum && best !== null) break;
    const found = from(parameters);
    if (found !== null && (best === null || found.residualSumOfSquares < best.residualSumOfSquares))
      best = found;
    if (best !== null && few.u === u) break;
  }
  if (best === null) throw new Refusal(whenNone);
  return best;
}

/** The best of what was tried, no two of them near each other in shape. */
function spread(
  tried: readonly { parameters: number[]; sum: number }[],
  { factors }: ShapedModel,
): { parameters: number[]; sum: number }[] {
  const chosen: { parameters: number[]; sum: number }[] = [];
  for (const one of tried) {
    const isNew = chosen.every((other) =>
      one.parameters.slice(factors).some((value, j) => {
        const beside = other.parameters[factors + j];
        return Math.abs(value - beside) > 0.15 * (Math.abs(value) + Math.abs(beside) + 0.2);
      }),
    );
    if (isNew) chosen.push(one);
    if (chosen.length >= mostFollowed) break;
  }
  return chosen;
}

/** Numbers from `low` to `high`, each the same factor from the last. */
export const geometric = (low: number, high: number, count: number): number[] =>
  Array.from({ length: count }, (_, i) => low * pow(high / low, i / (count - 1)));

/** Numbers from `low` to `high` at equal distances. */
export const evenly = (low: number, high: number, count: number): number[] =>
  Array.from({ length: count }, (_, i) => low + ((high - low) * i) / (count - 1));

/** Every pair of two lists. */
export const pairs = (first: readonly number[], second: readonly number[]): number[][] =>
  first.flatMap((a) => second.map((b) => [a, b]));
