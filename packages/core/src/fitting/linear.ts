import { Refusal } from '../refusal';
import { isRankDeficient, solveUpper, triangularise } from './householder';
import { type Solution } from './levenbergMarquardt';

/**
 * Linear least squares by orthogonal triangularisation of the given columns.
 * @throws Refusal where the columns depend on each other
 */
export function linearLeastSquares(
  columns: readonly Float64Array[],
  y: Float64Array,
  whyDependent: string,
): Solution {
  const p = columns.length;
  const r = triangularise([...columns.map((column) => column.slice()), y.slice()]);
  if (isRankDeficient(r, p)) throw new Refusal(whyDependent);
  const parameters = solveUpper(
    r,
    Array.from({ length: p }, (_, i) => r[i][p]),
  );
  const residuals = new Float64Array(y.length);
  let sum = 0;
  for (let i = 0; i < y.length; i++) {
    let model = 0;
    for (let k = 0; k < p; k++) model += parameters[k] * columns[k][i];
    residuals[i] = y[i] - model;
    sum += residuals[i] * residuals[i];
  }
  return {
    parameters,
    residualSumOfSquares: sum,
    jacobian: [...columns],
    residuals,
    iterations: 1,
    reason: 'gradient vanishes',
  };
}
