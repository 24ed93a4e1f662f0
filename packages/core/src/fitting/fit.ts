import { square } from '../elementary';
import { once } from '../once';
import { Refusal } from '../refusal';
import { productAt, rowNormsSquared, rowProducts } from '../calculus/rowProducts';
import {
  type FitNoise,
  type FittedPoints,
  fitNoise,
  independentCovariance,
  transformCovariance,
  uncertaintyAlong,
} from './covariance';
import { type Fit } from './fitted';
import { invertUpper, isRankDeficient } from './householder';
import { type ModelFunction, type SolverOptions, leastSquares } from './levenbergMarquardt';
import { type FitPoints, type Hint, type Relation, type RelationSolution } from './relation';
import { type Scatter, scatterOf } from './scatter';
import { weightedFit } from './weightedFit';
import { type PointUncertainties } from './weighted';

/** Points of plain numbers, each with a scatter of its own. */
export const plainPoints = (count: number): FittedPoints => ({
  indices: Int32Array.from({ length: count }, (_, i) => i),
  noise: null,
  against: null,
});

export interface FitOptions extends Partial<Hint> {
  /** Leaves out what only a fit at rest needs: remarks. */
  moving?: boolean;
  /** The points are known to be finite numbers. */
  finite?: boolean;
  /** Weighs the points by their own uncertainties. */
  uncertainties?: PointUncertainties;
  /** How the values scatter, where that is known already. */
  scatter?: Scatter;
}

/** @throws Refusal that names the first value that is no number */
function checkFinite(values: Float64Array, name: string): void {
  for (let i = 0; i < values.length; i++)
    if (!Number.isFinite(values[i]))
      throw new Refusal(`${name} of point ${i + 1} is ${values[i]}; a fit needs finite numbers.`);
}

/**
 * Fits a relation to points, with the standard uncertainties of its parameters. Where what they are fitted against is noisy
 * itself, its noise counts in the uncertainties, and the shift that it causes is taken off to first order (Carroll, Ruppert,
 * Stefanski and Crainiceanu, Measurement Error in Nonlinear Models, 2nd ed. 2006, section 3.4 for the line; Fuller 1987).
 * @throws Refusal where there are too few points, no scatter to speak of, values that are no numbers, or no solution
 */
export function fitRelation(
  relation: Relation,
  points: FitPoints,
  fitted: FittedPoints = plainPoints(points.y.length),
  { near = null, moving = false, finite = false, uncertainties, scatter }: FitOptions = {},
): Fit {
  const { x, y } = points;
  const n = x.length;
  const p = relation.parameterCount;
  if (y.length !== n) throw new Refusal(`There are ${n} places but ${y.length} values.`);
  if (n <= p)
    throw new Refusal(
      `A ${relation.title} with its uncertainties needs at least ${p + 1} readings; the region has ${n}. Make the region longer.`,
    );
  if (!finite) {
    checkFinite(x, 'The place');
    checkFinite(y, 'The value');
  }
  const { total, constant } = scatter ?? scatterOf(y);
  if (constant)
    throw new Refusal(
      `All ${n} readings in the region are the same (${Number(y[0].toPrecision(6))}); there is nothing to fit.`,
    );
  const solved = relation.solve(points, { near });
  const { solution } = solved;
  // Parameters that stand at a bound are no part of the solution.
  if (isRankDeficient(solution.triangle, solution.triangle.length))
    throw new Refusal(
      relation.whenDependent ??
        `These readings cannot tell the parameters of a ${relation.title} apart. Make the region longer.`,
    );
  if (uncertainties !== undefined) {
    const remarks = moving ? [] : (relation.remarks?.(points, solved) ?? []);
    return weightedFit(solved, points, fitted, uncertainties, remarks);
  }
  const slopes = once(() => slopesOf(solved, x));
  const isRefuted = isNoiseRefuted(fitted, slopes, solution.residualSumOfSquares, n - p);
  const believed = isRefuted ? { ...fitted, against: null } : fitted;
  const noise =
    solution.triangle.length === 0
      ? nothingFree(n)
      : fitNoise(solution.triangle, solution.jacobian, solution.residualSumOfSquares, believed, slopes);
  const shift = believed.against === null ? null : shiftByNoise(solved, points, believed, noise.covariance);
  const own = shift === null ? solution.parameters : solution.parameters.map((value, k) => value - shift[k]);
  const covariance = transformCovariance(noise.covariance, solved.transformation);
  return {
    parameters: solved.named(own),
    covariance,
    standardUncertainties: covariance.map((row, i) => Math.sqrt(Math.max(row[i], 0))),
    degreesOfFreedom: noise.degreesOfFreedom,
    residualStandardDeviation: Math.sqrt(solution.residualSumOfSquares / (n - p)),
    residualSumOfSquares: solution.residualSumOfSquares,
    rSquared: 1 - solution.residualSumOfSquares / total,
    count: n,
    residuals: solution.residuals,
    valueAt: (place) => solved.value(own, place),
    uncertaintyAt: (place) => uncertaintyAlong(solved.gradient(own, place), noise.covariance),
    influencesOn(parameter) {
      return noise
        .effectsOn(solved.transformation[parameter])
        .map(({ root, effect }) => ({ root: root.key, label: root.label, effect }));
    },
    movedBy(parameter, values, places) {
      const slope = places === null ? null : slopes();
      const change =
        slope === null || places === null ? values : values.map((value, i) => value - slope[i] * places[i]);
      const row = solved.transformation[parameter];
      return noise.moved(change).reduce((sum, value, k) => sum + row[k] * value, 0);
    },
    movedEvenly(parameter, by) {
      const constant = constantOf(solved, x);
      if (constant !== null) return by * solved.transformation[parameter][constant];
      const row = solved.transformation[parameter];
      return noise.moved(new Float64Array(n).fill(by)).reduce((sum, value, k) => sum + row[k] * value, 0);
    },
    correctedShift:
      shift === null
        ? 0
        : Math.max(0, ...shift.map((value, k) => Math.abs(value) / Math.sqrt(noise.covariance[k][k]))),
    iterations: solution.iterations,
    reason: solution.reason,
    remarks: moving
      ? []
      : [
          ...(isRefuted
            ? [
                'The values along the axis do not follow one another smoothly, so their noise cannot be estimated; they count as exact.',
              ]
            : []),
          ...(relation.remarks?.(points, solved) ?? []),
        ],
  };
}

/** Where all parameters stand at their bounds nothing is uncertain. */
const nothingFree = (count: number): FitNoise => ({
  covariance: [],
  degreesOfFreedom: count,
  effectsOn: () => [],
  moved: () => [],
});

/** Which of the solver's parameters is added to every value; null where none is. */
export function constantOf({ gradient, solution }: RelationSolution, x: Float64Array): number | null {
  const places = [x[0], x[x.length >> 1], x[x.length - 1]];
  const rows = places.map((place) => gradient(solution.parameters, place));
  const found = rows[0].findIndex((_, k) => rows.every((row) => row[k] === 1));
  return found < 0 ? null : found;
}

/** The scatter about a fit must be so many of its own standard deviations below what noise explains before that is refuted. */
const refutingDeviations = 3;

/**
 * Whether the noise of x, as its readings tell it, would scatter y more than y scatters: then the readings jump for another
 * reason, such as a hand that moves in steps, or no noise is known at all.
 */
function isNoiseRefuted(
  { indices, noise, against }: FittedPoints,
  slopes: () => Float64Array,
  residualSumOfSquares: number,
  degreesOfFreedom: number,
): boolean {
  // Where both come from the same readings their noises may cancel.
  if (against === null || noise?.root.key === against.root.key) return false;
  const { standardDeviation, degreesOfFreedom: known } = against.root.level.between(
    indices[0],
    indices[indices.length - 1] + 1,
  );
  if (!(standardDeviation > 0)) return false;
  const norms = rowNormsSquared(against, indices);
  if (norms === null) return false;
  const slope = slopes();
  let sum = 0;
  for (let i = 0; i < slope.length; i++) sum += slope[i] * slope[i] * productAt(norms, i);
  const explained = (sum / slope.length) * square(standardDeviation);
  const found = residualSumOfSquares / degreesOfFreedom;
  return explained > found * (1 + refutingDeviations * Math.sqrt(2 / degreesOfFreedom + 2 / known));
}

/** A step along x that is small against the points' reach, for differences. */
function smallStep(x: Float64Array): number {
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < x.length; i++) {
    const place = x[i];
    if (place < low) low = place;
    if (place > high) high = place;
  }
  return 1e-4 * (high - low);
}

function slopesOf(solved: RelationSolution, x: Float64Array): Float64Array {
  const { parameters } = solved.solution;
  const slopes = new Float64Array(x.length);
  for (let i = 0; i < x.length; i++) slopes[i] = solved.slope(parameters, x[i]);
  return slopes;
}

/** A shift in the mean is found well enough by so many of the points. */
const mostShiftPoints = 150;

/**
 * How far the noise of x has shifted the solver's parameters in the mean, to first order: (JᵀJ)⁻¹ Σ [J′(c − f′σ²) − ½ J f″σ²]
 * with σ² the variance of each x and c its covariance with the noise of y.
 */
function shiftByNoise(
  { slope, gradient, solution }: RelationSolution,
  { x }: FitPoints,
  { indices, noise, against }: FittedPoints,
  covariance: readonly (readonly number[])[],
): number[] {
  const p = solution.parameters.length;
  const none = new Array<number>(p).fill(0);
  if (against === null || covariance.some((row) => row.some((value) => !Number.isFinite(value)))) return none;
  const n = indices.length;
  const stride = Math.ceil(n / mostShiftPoints);
  const count = Math.ceil(n / stride);
  const chosen = new Int32Array(count);
  for (let i = 0; i < count; i++) chosen[i] = indices[i * stride];
  const norms = rowNormsSquared(against, chosen);
  const sigma = against.root.level.between(indices[0], indices[n - 1] + 1).standardDeviation;
  if (norms === null || !Number.isFinite(sigma)) return none;
  const shared = noise !== null && noise.root.key === against.root.key;
  const joint = shared ? rowProducts(noise, against, chosen) : null;
  const h = smallStep(x);
  const score = new Array<number>(p).fill(0);
  const own = solution.parameters;
  for (let i = 0; i < count; i++) {
    const place = i * stride;
    const here = gradient(own, x[place]);
    const left = gradient(own, x[place] - h);
    const right = gradient(own, x[place] + h);
    const variance = sigma * sigma * productAt(norms, i);
    const first = slope(own, x[place]);
    const second = (slope(own, x[place] + h) - slope(own, x[place] - h)) / (2 * h);
    const mixed = sigma * sigma * (joint === null ? 0 : productAt(joint, i)) - first * variance;
    for (let k = 0; k < p; k++) {
      const bend = (right[k] - left[k]) / (2 * h);
      score[k] += (n / count) * (bend * mixed - 0.5 * here[k] * second * variance);
    }
  }
  const inverse = invertUpper(solution.triangle, p);
  return none.map((_, a) => {
    let sum = 0;
    for (let b = 0; b < p; b++) {
      let entry = 0;
      for (let k = 0; k < p; k++) entry += inverse[a][k] * inverse[b][k];
      sum += entry * score[b];
    }
    return sum;
  });
}

/** A fit of a model that somebody wrote themselves. */
export interface ModelFit {
  parameters: number[];
  standardUncertainties: number[];
  covariance: number[][];
  residualStandardDeviation: number;
  residualSumOfSquares: number;
  residuals: Float64Array;
  degreesOfFreedom: number;
  reason: string;
}

/**
 * Fits any model function to readings with independent scatter, from a start.
 * @param model fills values and partial derivatives block by block, see `ModelFunction`
 * @throws Refusal where the readings are too few or no numbers, the search does not settle, or the parameters cannot be told apart
 */
export function fitModel(
  model: ModelFunction,
  y: Float64Array,
  start: readonly number[],
  options: SolverOptions = {},
): ModelFit {
  const p = start.length;
  const solution = leastSquares(model, y, start, options);
  if (isRankDeficient(solution.triangle, p))
    throw new Refusal('These readings cannot tell the parameters of the model apart.');
  const degreesOfFreedom = y.length - p;
  const variance = degreesOfFreedom > 0 ? solution.residualSumOfSquares / degreesOfFreedom : NaN;
  const covariance = independentCovariance(solution.triangle, variance);
  return {
    parameters: solution.parameters,
    covariance,
    standardUncertainties: covariance.map((row, i) => Math.sqrt(row[i])),
    residualStandardDeviation: Math.sqrt(variance),
    residualSumOfSquares: solution.residualSumOfSquares,
    residuals: solution.residuals(),
    degreesOfFreedom,
    reason: solution.reason,
  };
}
