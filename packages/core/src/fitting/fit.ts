import { Refusal } from '../refusal';
import { type FittedPoints, parameterCovariance, transformCovariance } from './covariance';
import { type FitPoints, type Relation } from './relation';

export interface Fit {
  /** Named parameters of the relation, in its order. */
  parameters: number[];
  /** Standard uncertainties (one standard deviation), in the same order. */
  standardUncertainties: number[];
  covariance: number[][];
  /** √(RSS / (n − p)), in the unit of y. */
  residualStandardDeviation: number;
  residualSumOfSquares: number;
  /** 1 − RSS / Σ(y − ȳ)². */
  rSquared: number;
  count: number;
  degreesOfFreedom: number;
  /** y − fitted value, for each point. */
  residuals: Float64Array;
  iterations: number;
  reason: string;
}

/**
 * Fits a relation to points, with the standard uncertainties of its parameters.
 * @throws Refusal where there are too few points, no scatter to speak of, or no solution
 */
export function fitRelation(relation: Relation, points: FitPoints, fitted: FittedPoints): Fit {
  const { x, y } = points;
  const n = x.length;
  const p = relation.parameterCount;
  if (n <= p)
    throw new Refusal(
      `A ${relation.title} with its uncertainties needs at least ${p + 1} readings; the region has ${n}. Make the region longer.`,
    );
  let mean = 0;
  for (let i = 0; i < n; i++) mean += (y[i] - mean) / (i + 1);
  let total = 0;
  let constant = true;
  for (let i = 0; i < n; i++) {
    total += (y[i] - mean) ** 2;
    constant &&= y[i] === y[0];
  }
  if (constant)
    throw new Refusal(
      `All ${n} readings in the region are the same (${Number(y[0].toPrecision(6))}); there is nothing to fit.`,
    );
  const { solution, parameters, transformation } = relation.solve(points);
  const own = parameterCovariance(solution, fitted);
  if (own === null)
    throw new Refusal(
      `These readings cannot tell the parameters of a ${relation.title} apart. Make the region longer.`,
    );
  const covariance = transformCovariance(own.matrix, transformation);
  return {
    parameters,
    covariance,
    standardUncertainties: covariance.map((row, i) => Math.sqrt(Math.max(row[i], 0))),
    residualStandardDeviation: own.residualStandardDeviation,
    residualSumOfSquares: solution.residualSumOfSquares,
    rSquared: 1 - solution.residualSumOfSquares / total,
    count: n,
    degreesOfFreedom: n - p,
    residuals: solution.residuals,
    iterations: solution.iterations,
    reason: solution.reason,
  };
}
