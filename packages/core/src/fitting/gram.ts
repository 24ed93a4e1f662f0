import { type Triangle, emptyTriangle } from './householder';

/** A pivot below this, columns scaled to length one, means that squaring the columns has cost too many digits. */
const smallestPivot = 1e-7;

/**
 * RᵀR of a tall, well-conditioned matrix, gathered block by block: several times faster than reflections. Its triangle is
 * given only where the columns are so different from each other that nothing is lost by squaring them (Björck, Numerical
 * Methods for Least Squares Problems, 1996, section 2.2.2); else whoever asks has to go through reflections.
 */
export class GramSum {
  private readonly sums: Float64Array;

  constructor(private readonly m: number) {
    this.sums = new Float64Array(m * m);
  }

  /** One whose sums are known already, row by row. */
  static of(rows: readonly (readonly number[])[]): GramSum {
    const gram = new GramSum(rows.length);
    gram.sums.set(rows.flat());
    return gram;
  }

  add(columns: readonly Float64Array[], rows: number): void {
    const { m, sums } = this;
    for (let j = 0; j < m; j++)
      for (let k = j; k < m; k++) sums[j * m + k] += dot(columns[j], columns[k], rows);
  }

  /**
   * The upper triangle, or null where it would not be trusted.
   * @param judged number of first columns that must be told apart; a last one of residuals need not
   */
  triangle(judged: number): Triangle | null {
    const { m, sums } = this;
    const r = emptyTriangle(m);
    for (let i = 0; i < m; i++)
      for (let j = i; j < m; j++) {
        let rest = sums[i * m + j];
        for (let k = 0; k < i; k++) rest -= r[k][i] * r[k][j];
        if (j > i) r[i][j] = r[i][i] > 0 ? rest / r[i][i] : 0;
        else {
          if (i < judged && !(rest > smallestPivot * sums[i * m + i])) return null;
          r[i][i] = Math.sqrt(Math.max(rest, 0));
        }
      }
    return r;
  }
}

/** Four sums side by side, so that one addition need not wait for the other. */
function dot(a: Float64Array, b: Float64Array, rows: number): number {
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  let i = 0;
  for (; i + 3 < rows; i += 4) {
    s0 += a[i] * b[i];
    s1 += a[i + 1] * b[i + 1];
    s2 += a[i + 2] * b[i + 2];
    s3 += a[i + 3] * b[i + 3];
  }
  for (; i < rows; i++) s0 += a[i] * b[i];
  return s0 + s1 + (s2 + s3);
}
