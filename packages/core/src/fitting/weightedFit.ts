import { square } from '../elementary';
import { type Influence } from '../results/quantity';
import { addSpans, scaledSpan, spanAt } from '../series/noisePath';
import { type FittedPoints, transformCovariance, uncertaintyAlong } from './covariance';
import { type Fit } from './fitted';
import { type FitPoints, type RelationSolution } from './relation';
import { type PointUncertainties, freedByWeights, weightedSolution } from './weighted';

/** A scatter so many of its own deviations beside what the uncertainties say is worth a sentence. */
const clearly = 3;

/** A part of the degrees of freedom so small is rounding. */
const leastExpected = 1e-6;

/**
 * A fit in which every point counts by its own uncertainty, and the parameters are uncertain by these and not by the scatter; by the
 * scatter where only the ratios of the uncertainties are known (weights of unit variance; any textbook of least squares).
 */
export function weightedFit(
  unweighted: RelationSolution,
  points: FitPoints,
  { indices, noise }: FittedPoints,
  uncertainties: PointUncertainties,
  remarks: string[],
): Fit {
  const { x, y } = points;
  const n = x.length;
  const solved = freedByWeights(unweighted, points, uncertainties);
  const p = solved.solution.parameters.length;
  const found = weightedSolution(solved, points, uncertainties);
  // Where all that is uncertain moves the points along the curve, nothing is to be seen of it in the scatter.
  const isTold = found.expected > leastExpected * (n - p);
  const reducedChiSquared = isTold ? found.chiSquared / found.expected : NaN;
  // Where only ratios are known, the scatter tells the size of all of them.
  const { isRelative = false } = uncertainties;
  const size = isRelative ? Math.sqrt(reducedChiSquared) : 1;
  const ownCovariance = found.covariance.map((row) => row.map((value) => value * size * size));
  const covariance = transformCovariance(ownCovariance, solved.transformation);
  const valueAt = (place: number) => solved.value(found.parameters, place);
  const residuals = y.map((value, i) => value - valueAt(x[i]));
  const residualSumOfSquares = residuals.reduce((sum, value) => sum + value * value, 0);
  const root = noise?.root ?? { key: 'points', label: 'the points' };
  return {
    parameters: solved.named(found.parameters),
    covariance,
    standardUncertainties: covariance.map((row, i) => Math.sqrt(Math.max(row[i], 0))),
    degreesOfFreedom: isRelative ? n - p : Infinity,
    residualStandardDeviation: Math.sqrt(residualSumOfSquares / (n - p)),
    residualSumOfSquares,
    ...(isRelative || !isTold ? {} : { reducedChiSquared }),
    rSquared: 1 - found.chiSquared / totalOf(y, found.deviation),
    count: n,
    residuals: () => residuals,
    valueAt,
    uncertaintyAt: (place) => uncertaintyAlong(solved.gradient(found.parameters, place), ownCovariance),
    influencesOn(parameter): Influence[] {
      const effect = solved.transformation[parameter]
        .map((factor, k) => scaledSpan(spanAt(indices, found.byPoint[k]), size * factor))
        .reduce((sum, span) => addSpans(sum, span), { first: 0, weights: new Float64Array(0) });
      return [{ root: root.key, label: root.label, effect }];
    },
    movedBy(parameter, values, places) {
      const change =
        places === null
          ? values
          : values.map((value, i) => value - solved.slope(found.parameters, x[i]) * places[i]);
      const row = solved.transformation[parameter];
      return found.moved(change).reduce((sum, value, k) => sum + row[k] * value, 0);
    },
    movedEvenly(parameter, by) {
      const row = solved.transformation[parameter];
      return found.moved(new Float64Array(n).fill(by)).reduce((sum, value, k) => sum + row[k] * value, 0);
    },
    correctedShift: 0,
    iterations: 1,
    reason: 'weighted',
    remarks: isRelative || !isTold ? remarks : [...remarks, ...scatterRemark(reducedChiSquared, n - p)],
  };
}

/** Σ of the squared distances from the weighted mean, each over the variance of its point. */
function totalOf(y: Float64Array, deviation: Float64Array): number {
  let [sum, weights] = [0, 0];
  for (let i = 0; i < y.length; i++) {
    const weight = 1 / (deviation[i] * deviation[i]);
    sum += weight * y[i];
    weights += weight;
  }
  const mean = sum / weights;
  return y.reduce((total, value, i) => total + square((value - mean) / deviation[i]), 0);
}

/** χ² has the mean ν and the variance 2 ν (any textbook of statistics). */
function scatterRemark(reduced: number, degreesOfFreedom: number): string[] {
  const off = (reduced - 1) * Math.sqrt(degreesOfFreedom / 2);
  const ratio = Math.sqrt(reduced).toPrecision(2);
  if (off > clearly)
    return [
      `The points scatter ${ratio} times as far as their uncertainties say: the relation misses something, or the uncertainties are too small.`,
    ];
  if (off < -clearly)
    return [
      `The points scatter only ${ratio} times as far as their uncertainties say; these may be too large.`,
    ];
  return [];
}
