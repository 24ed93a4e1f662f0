/** An upper triangle R, m × m, row by row. */
export type Triangle = number[][];

/** Rows that are worked on at a time: few enough for their columns to stay in the cache. */
export const blockRows = 512;

export function emptyTriangle(m: number): Triangle {
  const rows: number[][] = [];
  for (let i = 0; i < m; i++) rows.push(new Array<number>(m).fill(0));
  return rows;
}

/**
 * Absorbs rows into a triangle by Householder reflections: afterwards RᵀR has grown by BᵀB. Going through a tall matrix
 * block by block gives its triangle without ever holding the matrix. Our own rather than a matrix package's because the
 * solver meets 10⁵ rows and a handful of columns, where this is several times faster, and needs no Q.
 * Source: Golub and Van Loan, Matrix Computations, 4th ed. (2013), algorithm 5.2.1 and section 6.5.3.
 * @param columns m columns of at least `rows` rows; overwritten
 */
export function absorb(r: Triangle, columns: readonly Float64Array[], rows: number): void {
  const m = columns.length;
  for (let k = 0; k < m; k++) {
    const column = columns[k];
    const corner = r[k][k];
    let norm = corner * corner;
    for (let i = 0; i < rows; i++) norm += column[i] * column[i];
    norm = Math.sqrt(norm);
    if (norm === 0) continue;
    const alpha = corner > 0 ? -norm : norm;
    const head = corner - alpha;
    // v = (head, column); vᵀv = −2 alpha head
    const half = -alpha * head;
    const row = r[k];
    for (let j = k + 1; j < m; j++) {
      const other = columns[j];
      let dot = head * row[j];
      for (let i = 0; i < rows; i++) dot += column[i] * other[i];
      const factor = dot / half;
      row[j] -= factor * head;
      for (let i = 0; i < rows; i++) other[i] -= factor * column[i];
    }
    row[k] = alpha;
  }
}

/** The triangle of a tall matrix given as columns, which are left as they are. */
export function triangleOf(columns: readonly Float64Array[]): Triangle {
  const m = columns.length;
  const n = columns[0].length;
  const r = emptyTriangle(m);
  const block = columns.map(() => new Float64Array(Math.min(blockRows, n)));
  for (let from = 0; from < n; from += blockRows) {
    const rows = Math.min(blockRows, n - from);
    columns.forEach((column, k) => block[k].set(column.subarray(from, from + rows)));
    absorb(r, block, rows);
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
  const inverse = emptyTriangle(p);
  for (let j = 0; j < p; j++) {
    const unit = new Array<number>(p).fill(0);
    unit[j] = 1;
    const column = solveUpper(r, unit);
    for (let i = 0; i < p; i++) inverse[i][j] = column[i];
  }
  return inverse;
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

/** Fewer rows than this are always worked on by reflections, which cost next to nothing then. */
export const fewRows = 1024;
