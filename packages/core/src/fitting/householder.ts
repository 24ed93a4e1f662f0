/**
 * Householder triangularisation of a tall matrix given as columns, in place. Our own rather than a matrix package's because
 * the solver meets 10⁵ rows and a handful of columns, where column arrays are several times faster, and needs no Q.
 * Source: Golub and Van Loan, Matrix Computations, 4th ed. (2013), algorithm 5.2.1.
 * @param columns m columns of n ≥ 1 rows; overwritten
 * @returns the upper triangle R, m × m, row by row (rows beyond n are zero)
 */
export function triangularise(columns: readonly Float64Array[]): number[][] {
  const m = columns.length;
  const n = columns[0].length;
  const r = Array.from({ length: m }, () => new Array<number>(m).fill(0));
  for (let k = 0; k < Math.min(m, n); k++) {
    const column = columns[k];
    let norm = 0;
    for (let i = k; i < n; i++) norm += column[i] * column[i];
    norm = Math.sqrt(norm);
    if (norm > 0) {
      const alpha = column[k] > 0 ? -norm : norm;
      const head = column[k] - alpha;
      // v = (head, column[k+1 …]); vᵀv = 2 norm (norm + |column[k]|)
      const half = -alpha * head;
      for (let j = k + 1; j < m; j++) {
        const other = columns[j];
        let dot = head * other[k];
        for (let i = k + 1; i < n; i++) dot += column[i] * other[i];
        const factor = dot / half;
        other[k] -= factor * head;
        for (let i = k + 1; i < n; i++) other[i] -= factor * column[i];
      }
      r[k][k] = alpha;
    }
    for (let j = k + 1; j < m; j++) r[k][j] = columns[j][k];
  }
  return r;
}

/** Solves R x = b for an upper triangle R (its first b.length rows and columns). */
export function solveUpper(r: readonly (readonly number[])[], b: readonly number[]): number[] {
  const x = [...b];
  for (let i = b.length - 1; i >= 0; i--) {
    for (let j = i + 1; j < b.length; j++) x[i] -= r[i][j] * x[j];
    x[i] /= r[i][i];
  }
  return x;
}

/** Solves Rᵀ x = b for an upper triangle R. */
export function solveLowerTransposed(r: readonly (readonly number[])[], b: readonly number[]): number[] {
  const x = [...b];
  for (let i = 0; i < b.length; i++) {
    for (let j = 0; j < i; j++) x[i] -= r[j][i] * x[j];
    x[i] /= r[i][i];
  }
  return x;
}

/** The inverse of an upper triangle of size p. */
export function invertUpper(r: readonly (readonly number[])[], p: number): number[][] {
  const columns = Array.from({ length: p }, (_, j) =>
    solveUpper(
      r,
      Array.from({ length: p }, (_unused, i) => Number(i === j)),
    ),
  );
  return Array.from({ length: p }, (_, i) => columns.map((column) => column[i]));
}

/** Whether the columns behind an upper triangle are numerically dependent. */
export function isRankDeficient(r: readonly (readonly number[])[], p: number, tolerance = 1e-13): boolean {
  for (let j = 0; j < p; j++) {
    let norm = 0;
    for (let i = 0; i <= j; i++) norm += r[i][j] * r[i][j];
    if (!(Math.abs(r[j][j]) > tolerance * Math.sqrt(norm))) return true;
  }
  return false;
}
