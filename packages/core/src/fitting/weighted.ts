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
  /**
   * Of these uncertainties, what several points owe to one source: how far one standard deviation of it moves each value and each
   * place. It counts in the weights; whoever asks for the uncertainty of a parameter adds it as one source.
   */
  together?: readonly { y: Float64Array | null; x: Float64Array | null }[];
  /** Covariance of the value and the place of each point, without what is in `together`. */
  both?: Float64Array;
}

export interface WeightedSolution {
  /** The solver's parameters. */
  parameters: number[];
  /** Their covariance, from what is uncertain about each point alone, and not from the scatter about the curve. */
  covariance: number[][];
  /** Σ of squared residuals over their variances. */
  chiSquared: number;
  /** What that is in the mean where the uncertainties are right: n − p, less where points owe them to one source. */
  expected: number;
  /** Standard deviation of each point from the curve, by its uncertainties. */
  deviation: Float64Array;
  /** How one standard deviation of what is uncertain about each point alone moves each of the solver's parameters: one row a parameter. */
  byPoint: Float64Array[];
  /** How far a change of all values moves each of the solver's parameters, to first order. */
  moved(change: Float64Array): number[];
}

const step = 1e-5;

/**
 * Sharpens a solution with the points' own uncertainties: least squares of (y − f(x))/s with the effective variance
 * s² = u(y)² + f′(x)² u(x)² − 2 f′(x) u(x, y), which hangs on the parameters itself (Orear, Am. J. Phys. 50 (1982) 912; for a line that is York's
 * solution, York, Evensen, Martínez and De Basabe Delgado, Am. J. Phys. 72 (2004) 367).
 * @param solved any solution of the same relation, whose parameters are started from
 * @throws Refusal where an uncertainty is not positive, or the search does not settle
 */
export function weightedSolution(
  solved: RelationSolution,
  { x, y }: FitPoints,
  { y: ofY, x: ofX, together = [], both }: PointUncertainties,
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
  const found = leastSquares(
    modelOf(solved, { x, y }, { y: ofY, x: ofX, both }),
    new Float64Array(n),
    start,
    {
      damping: 1e-6,
    },
  );
  if (isRankDeficient(found.triangle, p))
    throw new Refusal('With these weights the parameters cannot be told apart. Fit without weights.');
  const inverse = independentCovariance(found.triangle, 1);
  const columns = found.jacobian();
  /** How a change of each point by its deviation moves each parameter. */
  const byDeviation = inverse.map((row) =>
    Float64Array.from(
      { length: n },
      (_, i) => -row.reduce((sum, value, k) => sum + value * columns[k][i], 0),
    ),
  );
  const slope = x.map((place) => solved.slope(found.parameters, place));
  const deviation = ofY.map((own, i) =>
    Math.sqrt(deviationSquared(own, slope[i], ofX?.[i] ?? 0, both?.[i] ?? 0)),
  );
  const moved = (change: Float64Array) =>
    byDeviation.map((row) => {
      let sum = 0;
      for (let i = 0; i < n; i++) sum += (row[i] * change[i]) / deviation[i];
      return sum;
    });
  if (together.length === 0)
    return {
      parameters: found.parameters,
      covariance: inverse,
      chiSquared: found.residualSumOfSquares,
      expected: n - p,
      deviation,
      byPoint: byDeviation,
      moved,
    };
  // The share of its deviation that is a point's alone.
  const alone = deviation.map((whole, i) =>
    Math.sqrt(
      Math.max(
        1 -
          together.reduce(
            (sum, one) => sum + square(one.y?.[i] ?? 0) + square(slope[i] * (one.x?.[i] ?? 0)),
            0,
          ) /
            square(whole),
        0,
      ),
    ),
  );
  const byPoint = byDeviation.map((row) => row.map((value, i) => value * alone[i]));
  // Residuals are (1 − H) times what moved the points; H = J (JᵀJ)⁻¹ Jᵀ, with J over the deviations.
  const left = (scaled: Float64Array) => {
    const parameters = byDeviation.map((row) => row.reduce((sum, value, i) => sum + value * scaled[i], 0));
    return scaled.reduce((sum, value, i) => {
      const fitted = parameters.reduce((total, own, k) => total - own * columns[k][i], 0);
      return sum + square(value - fitted);
    }, 0);
  };
  const expected =
    alone.reduce(
      (sum, share, i) =>
        sum + square(share) * (1 + byDeviation.reduce((total, row, k) => total + row[i] * columns[k][i], 0)),
      0,
    ) +
    together.reduce(
      (sum, one) =>
        sum + left(deviation.map((whole, i) => ((one.y?.[i] ?? 0) - slope[i] * (one.x?.[i] ?? 0)) / whole)),
      0,
    );
  return {
    parameters: found.parameters,
    covariance: byPoint.map((row) =>
      byPoint.map((other) => row.reduce((sum, value, i) => sum + value * other[i], 0)),
    ),
    chiSquared: found.residualSumOfSquares,
    expected,
    deviation,
    byPoint,
    moved,
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

/** Variance of y − f(x) about the curve; where both hang together so that nothing is left, a billionth of it is. */
const deviationSquared = (ofY: number, slope: number, ofX: number, covariance: number): number => {
  const apart = square(ofY) + square(slope * ofX);
  return Math.max(apart - 2 * slope * covariance, 1e-9 * apart);
};

/** The residuals over their deviations, as a model of zeros. */
function modelOf(
  solved: RelationSolution,
  { x, y }: FitPoints,
  { y: ofY, x: ofX, both }: PointUncertainties,
): ModelFunction {
  const { low, high } = endsOf(x);
  const h = step * (high - low || 1);
  return (own, first, out, jacobian) => {
    const p = own.length;
    for (let i = 0; i < out.length; i++) {
      const at = first + i;
      const place = x[at];
      const slope = ofX === null ? 0 : solved.slope(own, place);
      const covariance = both?.[at] ?? 0;
      const variance = deviationSquared(ofY[at], slope, ofX?.[at] ?? 0, covariance);
      const deviation = Math.sqrt(variance);
      const residual = y[at] - solved.value(own, place);
      out[i] = residual / deviation;
      if (jacobian === null) continue;
      const gradient = solved.gradient(own, place);
      const bends = ofX === null ? null : [solved.gradient(own, place + h), solved.gradient(own, place - h)];
      for (let k = 0; k < p; k++) {
        const bend = bends === null ? 0 : (bends[0][k] - bends[1][k]) / (2 * h);
        const byDeviation = ofX === null ? 0 : ((slope * square(ofX[at]) - covariance) * bend) / deviation;
        jacobian[k][i] = -gradient[k] / deviation - (residual * byDeviation) / variance;
      }
    }
  };
}
