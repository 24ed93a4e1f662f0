import { square } from '../elementary';
/**
 * Rows L with L Lᵀ = C of a covariance matrix, also one in which results hang on each other completely: the largest variance that is
 * left is taken first (Cholesky with pivoting; Higham, Accuracy and Stability of Numerical Algorithms, 2nd ed., section 10.3).
 * @param covariance its lower triangle, row by row
 * @returns a row for each result, all of one length; null where something in it is no number
 */
export function rowsOfCovariance(covariance: readonly (readonly number[])[]): Float64Array[] | null {
  const n = covariance.length;
  const at = (i: number, j: number) => (i >= j ? covariance[i][j] : covariance[j][i]);
  const left = Float64Array.from(covariance, (_, i) => at(i, i));
  if (covariance.some((row) => row.some((value) => !Number.isFinite(value)))) return null;
  const rows = covariance.map(() => new Float64Array(n));
  const isTaken = new Uint8Array(n);
  for (let step = 0; step < n; step++) {
    const next = largestShare(left, isTaken, at);
    if (next === null) break;
    isTaken[next] = 1;
    const pivot = Math.sqrt(left[next]);
    for (let i = 0; i < n; i++) {
      if (i === next) {
        rows[i][step] = pivot;
        continue;
      }
      if (isTaken[i] === 1) continue;
      let sum = at(i, next);
      for (let k = 0; k < step; k++) sum -= rows[i][k] * rows[next][k];
      rows[i][step] = sum / pivot;
      left[i] -= square(rows[i][step]);
    }
  }
  return rows;
}

/** Variance of which less is left than this share is rounding. */
const rounding = 1e-14;

/** The result of whose variance the largest share is left; null where nothing but rounding is. Results have different units. */
function largestShare(
  left: Float64Array,
  isTaken: Uint8Array,
  at: (i: number, j: number) => number,
): number | null {
  let [found, most]: [number | null, number] = [null, rounding];
  for (let i = 0; i < left.length; i++) {
    const share = isTaken[i] === 1 ? 0 : left[i] / at(i, i);
    if (share > most) [found, most] = [i, share];
  }
  return found;
}
