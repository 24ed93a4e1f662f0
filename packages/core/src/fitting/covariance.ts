import { type NoisePath, noiseOfReadings } from '../series/noise';
import { invertUpper, isRankDeficient, triangularise } from './householder';
import { type Solution } from './levenbergMarquardt';

/** Where the fitted values sit in their series, so that noise can be followed back to the readings. */
export interface FittedPoints {
  /** Length of the series. */
  seriesLength: number;
  /** Index in the series of each fitted value, ascending. */
  indices: Int32Array;
  noise: NoisePath;
}

export interface Covariance {
  /** p × p covariance of the solver's parameters. */
  matrix: number[][];
  /** Residual standard deviation, √(RSS / (n − p)). */
  residualStandardDeviation: number;
}

/**
 * Covariance of least-squares parameters at a solution. Independent noise: s² (JᵀJ)⁻¹. A derived series: its noise is
 * F·(noise of the readings), so the parameters P·F·(noise) have the covariance σ² P F Fᵀ Pᵀ with P = (JᵀJ)⁻¹Jᵀ, and σ² is
 * estimated from RSS = σ² tr((1 − QQᵀ) F Fᵀ) in the mean (Seber and Lee, Linear Regression Analysis, 2nd ed. 2003, th. 1.5).
 * Returns null where the parameters cannot be told apart by these points.
 */
export function parameterCovariance(solution: Solution, points: FittedPoints): Covariance | null {
  const { jacobian, residualSumOfSquares } = solution;
  const p = jacobian.length;
  const n = jacobian[0].length;
  const r = triangularise(jacobian.map((column) => column.slice()));
  if (isRankDeficient(r, p)) return null;
  const inverse = invertUpper(r, p);
  const residualStandardDeviation = n > p ? Math.sqrt(residualSumOfSquares / (n - p)) : NaN;
  const product = (a: number, b: number) => {
    let sum = 0;
    for (let k = 0; k < p; k++) sum += inverse[a][k] * inverse[b][k];
    return sum;
  };
  if (points.noise.independent) {
    const variance = residualStandardDeviation ** 2;
    return { matrix: square(p, (a, b) => variance * product(a, b)), residualStandardDeviation };
  }

  // Fᵀ q for the orthonormal columns q = J R⁻¹.
  const spread = Array.from({ length: p }, (_, k) => {
    const weights = new Float64Array(points.seriesLength);
    for (let i = 0; i < n; i++) {
      let q = 0;
      for (let j = 0; j <= k; j++) q += jacobian[j][i] * inverse[j][k];
      weights[points.indices[i]] = q;
    }
    return points.noise.transpose(weights);
  });
  const gram = square(p, (a, b) => dot(spread[a], spread[b]));
  const norms = points.noise.rowNormsSquared();
  let variance: number;
  if (norms === null) {
    const last = points.indices[n - 1];
    variance = noiseOfReadings(points.noise.readings, 0, last + 1) ** 2;
  } else {
    let trace = 0;
    for (let i = 0; i < n; i++) trace += norms[points.indices[i]];
    for (let k = 0; k < p; k++) trace -= gram[k][k];
    variance = trace > 0 ? residualSumOfSquares / trace : NaN;
  }
  // P = R⁻¹ Qᵀ, so the covariance is σ² R⁻¹ (Qᵀ F Fᵀ Q) R⁻ᵀ.
  const matrix = square(p, (a, b) => {
    let sum = 0;
    for (let k = 0; k < p; k++) for (let l = 0; l < p; l++) sum += inverse[a][k] * gram[k][l] * inverse[b][l];
    return variance * sum;
  });
  return { matrix, residualStandardDeviation };
}

function square(p: number, entry: (a: number, b: number) => number): number[][] {
  return Array.from({ length: p }, (_, a) => Array.from({ length: p }, (_unused, b) => entry(a, b)));
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i];
  return sum;
}

/** Carries a covariance through new = T·old, to first order: T C Tᵀ (JCGM 100:2008, 5.2.2 and annex H.2). */
export function transformCovariance(
  matrix: readonly (readonly number[])[],
  t: readonly (readonly number[])[],
): number[][] {
  const half = t.map((row) =>
    matrix[0].map((_, j) => row.reduce((sum, value, k) => sum + value * matrix[k][j], 0)),
  );
  return half.map((row) => t.map((other) => row.reduce((sum, value, k) => sum + value * other[k], 0)));
}
