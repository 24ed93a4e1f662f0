import { Refusal } from '../../refusal';
import { linearLeastSquares } from '../linear';
import { type FitPoints, type RelationSolution } from '../relation';

/**
 * A polynomial through points, on an abscissa centred at its mean and scaled by its reach, then carried back to powers of x.
 * Coefficients come in ascending powers.
 */
export function solvePolynomial({ x, y }: FitPoints, degree: number): RelationSolution {
  const n = x.length;
  let middle = 0;
  for (let i = 0; i < n; i++) middle += (x[i] - middle) / (i + 1);
  let scale = 0;
  for (let i = 0; i < n; i++) scale = Math.max(scale, Math.abs(x[i] - middle));
  const because = `The region needs readings at ${degree + 1} or more different places along the axis.`;
  if (scale === 0) throw new Refusal(because);
  const columns = [new Float64Array(n).fill(1)];
  for (let power = 1; power <= degree; power++) {
    const column = new Float64Array(n);
    const lower = columns[power - 1];
    for (let i = 0; i < n; i++) column[i] = (lower[i] * (x[i] - middle)) / scale;
    columns.push(column);
  }
  const solution = linearLeastSquares(columns, y, because);
  // ((x − m)/s)^k expanded in powers of x: coefficient of x^j is C(k, j) (−m)^(k−j) / s^k.
  const transformation = Array.from({ length: degree + 1 }, (_, j) =>
    Array.from({ length: degree + 1 }, (_unused, k) =>
      k < j ? 0 : (binomial(k, j) * (-middle) ** (k - j)) / scale ** k,
    ),
  );
  const parameters = transformation.map((row) =>
    row.reduce((sum, value, k) => sum + value * solution.parameters[k], 0),
  );
  return { solution, parameters, transformation };
}

function binomial(n: number, k: number): number {
  let value = 1;
  for (let i = 1; i <= k; i++) value = (value * (n - k + i)) / i;
  return value;
}
