import { Refusal } from '../refusal';
import { addScaled } from '../vectors';
import { GramSum } from './gram';
import {
  type Triangle,
  absorb,
  blockRows,
  emptyTriangle,
  fewRows,
  isRankDeficient,
  solveUpper,
} from './householder';
import { type Solution } from './levenbergMarquardt';

/** Fills the first p columns with the rows of a design from `first` on, as many as the columns are long. */
export type Design = (first: number, columns: readonly Float64Array[]) => void;

/** Where the sums of a design are known without writing its columns down. */
export interface DirectSums {
  /** Of the columns and y. */
  gram(): GramSum;
  residualSumOfSquares(parameters: readonly number[]): number;
}

/** A sum, and after it the squares of values. */
function addedSquares(values: Float64Array, sum: number): number {
  for (let i = 0; i < values.length; i++) sum += values[i] * values[i];
  return sum;
}

/**
 * Linear least squares by orthogonal triangularisation, block by block.
 * @throws Refusal where the columns depend on each other
 */
export function linearLeastSquares(
  design: Design,
  p: number,
  y: Float64Array,
  whyDependent: string,
  direct: DirectSums | null = null,
): Solution {
  const n = y.length;
  const room = Math.min(blockRows, n);
  let work: Float64Array[] | null = null;
  const eachBlock = (take: (columns: readonly Float64Array[], rows: number) => void) => {
    work ??= Array.from({ length: p + 1 }, () => new Float64Array(room));
    for (let from = 0; from < n; from += blockRows) {
      const rows = Math.min(blockRows, n - from);
      const columns = rows === room ? work : work.map((column) => column.subarray(0, rows));
      design(from, columns);
      columns[p].set(y.subarray(from, from + rows));
      take(columns, rows);
    }
  };
  let r: Triangle | null = null;
  if (n > fewRows) {
    const gram = direct?.gram() ?? new GramSum(p + 1);
    if (direct === null) eachBlock((columns, rows) => gram.add(columns, rows));
    r = gram.triangle(p);
  }
  if (r === null) {
    const reflected = emptyTriangle(p + 1);
    eachBlock((columns, rows) => absorb(reflected, columns, rows));
    r = reflected;
  }
  if (isRankDeficient(r, p)) throw new Refusal(whyDependent);
  const parameters = solveUpper(
    r,
    r.slice(0, p).map((row) => row[p]),
  );
  const jacobian = () => {
    const columns = Array.from({ length: p }, () => new Float64Array(n));
    design(0, columns);
    return columns;
  };
  /** Squaring loses what is left over of nearly exact data, so it is summed itself. */
  const leftOver = () => {
    if (direct !== null && n > fewRows) return direct.residualSumOfSquares(parameters);
    let sum = 0;
    eachBlock((columns) => {
      const residuals = columns[p];
      for (let k = 0; k < p; k++) addScaled(residuals, columns[k], -parameters[k]);
      sum = addedSquares(residuals, sum);
    });
    return sum;
  };
  return {
    parameters,
    residualSumOfSquares: n > p ? leftOver() : 0,
    triangle: r.slice(0, p).map((row) => row.slice(0, p)),
    jacobian,
    residuals() {
      const out = y.slice();
      jacobian().forEach((column, k) => addScaled(out, column, -parameters[k]));
      return out;
    },
    iterations: 1,
    reason: 'solved at once',
  };
}
