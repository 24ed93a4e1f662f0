import { square } from '../elementary';
import { Refusal } from '../refusal';
import { independentCovariance } from './covariance';
import { isRankDeficient } from './householder';
import { type ModelFunction, leastSquares } from './levenbergMarquardt';
import { endsOf } from './models/shapedSolution';
import { type FitPoints, type RelationSolution } from './relation';

/** How uncertain each point is, by standard uncertainties that are known. */
export interface PointUncertainties {
  y: Float64Array;
  /** Null where the places are exact. */
  x: Float64Array | null;
  /** True where only their ratios are known, and the scatter of the points tells their size. */
  isRelative?: boolean;
}

export interface WeightedSolution {
  /** The solver's parameters. */
  parameters: number[];
  /** Their covariance, from the uncertainties of the points and not from the scatter about the curve. */
  covariance: number[][];
  /** Σ of squared residuals over their variances: about n − p where the uncertainties are right. */
  chiSquared: number;
  /** How one standard uncertainty of each point moves each of the solver's parameters: one row a parameter. */
  byPoint: Float64Array[];
  /** How far a change of all values moves each of the solver's parameters, to first order. */
  moved(change: Float64Array): number[];
}

const step = 1e-5;

/**
 * Sharpens a solution with the points' own uncertainties: least squares of (y − f(x))/s with the effective variance
 * s² = u(y)² + f′(x)² u(x)², which hangs on the parameters itself (Orear, Am. J. Phys. 50 (1982) 912; for a line that is York's
 * solution, York, Evensen, Martínez and De Basabe Delgado, Am. J. Phys. 72 (2004) 367).
 * @param solved any solution of the same relation, whose parameters are started from
 * @throws Refusal where an uncertainty is not positive, or the search does not settle
 */
export function weightedSolution(
  solved: RelationSolution,
  { x, y }: FitPoints,
  { y: ofY, x: ofX }: PointUncertainties,
): WeightedSolution {
  const n = x.length;
  for (let i = 0; i < n; i++) {
    const wrong = !(ofY[i] > 0) && !(ofX !== null && ofX[i] > 0);
    if (wrong || !Number.isFinite(ofY[i]) || (ofX !== null && !Number.isFinite(ofX[i])))
      throw new Refusal(
        `Point ${i + 1} has no uncertainty of its own, so it has no weight. Fit without weights, or give it one.`,
      );
  }
  const { parameters: start } = solved.solution;
  const p = start.length;
  const found = leastSquares(modelOf(solved, { x, y }, { y: ofY, x: ofX }), new Float64Array(n), start, {
    damping: 1e-6,
  });
  if (isRankDeficient(found.triangle, p))
    throw new Refusal('With these weights the parameters cannot be told apart. Fit without weights.');
  const covariance = independentCovariance(found.triangle, 1);
  const columns = found.jacobian();
  const byPoint = covariance.map((row) =>
    Float64Array.from(
      { length: n },
      (_, i) => -row.reduce((sum, value, k) => sum + value * columns[k][i], 0),
    ),
  );
  return {
    parameters: found.parameters,
    covariance,
    chiSquared: found.residualSumOfSquares,
    byPoint,
    moved: (change) =>
      byPoint.map((row) => {
        let sum = 0;
        for (let i = 0; i < n; i++) {
          const slope = ofX === null ? 0 : solved.slope(found.parameters, x[i]) * ofX[i];
          sum += (row[i] * change[i]) / Math.hypot(ofY[i], slope);
        }
        return sum;
      }),
  };
}

/**
 * Which parameters stand at their bounds when points count by their uncertainties: other ones, maybe, than when they count alike.
 * @returns the relation with the others free
 */
export function freedByWeights(
  solved: RelationSolution,
  points: FitPoints,
  uncertainties: PointUncertainties,
): RelationSolution {
  if (solved.bounded === undefined) return solved;
  const { bounds, parameters, among } = solved.bounded;
  const all = bounds.map((_, i) => i);
  const whole = among(parameters, all);
  const found = leastSquares(
    modelOf(whole, points, uncertainties),
    new Float64Array(points.x.length),
    parameters,
    { bounds, damping: 1e-6 },
  );
  const free = all.filter(
    (i) => found.parameters[i] !== bounds[i].low && found.parameters[i] !== bounds[i].high,
  );
  return among(found.parameters, free);
}

/** The residuals over their deviations, as a model of zeros. */
function modelOf(
  solved: RelationSolution,
  { x, y }: FitPoints,
  { y: ofY, x: ofX }: PointUncertainties,
): ModelFunction {
  const { low, high } = endsOf(x);
  const h = step * (high - low || 1);
  return (own, first, out, jacobian) => {
    const p = own.length;
    for (let i = 0; i < out.length; i++) {
      const at = first + i;
      const place = x[at];
      const slope = ofX === null ? 0 : solved.slope(own, place);
      const variance = square(ofY[at]) + (ofX === null ? 0 : square(slope * ofX[at]));
      const deviation = Math.sqrt(variance);
      const residual = y[at] - solved.value(own, place);
      out[i] = residual / deviation;
      if (jacobian === null) continue;
      const gradient = solved.gradient(own, place);
      const bends = ofX === null ? null : [solved.gradient(own, place + h), solved.gradient(own, place - h)];
      for (let k = 0; k < p; k++) {
        const bend = bends === null ? 0 : (bends[0][k] - bends[1][k]) / (2 * h);
        const byDeviation = ofX === null ? 0 : (slope * square(ofX[at]) * bend) / deviation;
        jacobian[k][i] = -gradient[k] / deviation - (residual * byDeviation) / variance;
      }
    }
  };
}
