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
    if (m === 5) {
      addOfFive(sums, columns, rows);
      return;
    }
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

/**
 * The fifteen sums of four parameters and the residuals, which is what most relations have, in two passes instead of fifteen:
 * as many as the registers of a processor hold.
 */
function addOfFive(sums: Float64Array, columns: readonly Float64Array[], rows: number): void {
  const [a, b, c, d, e] = columns;
  let aa = 0;
  let ab = 0;
  let ac = 0;
  let ad = 0;
  let ae = 0;
  let bb = 0;
  let bc = 0;
  let bd = 0;
  for (let i = 0; i < rows; i++) {
    const x = a[i];
    const y = b[i];
    const z = c[i];
    const w = d[i];
    aa += x * x;
    ab += x * y;
    ac += x * z;
    ad += x * w;
    ae += x * e[i];
    bb += y * y;
    bc += y * z;
    bd += y * w;
  }
  let be = 0;
  let cc = 0;
  let cd = 0;
  let ce = 0;
  let dd = 0;
  let de = 0;
  let ee = 0;
  for (let i = 0; i < rows; i++) {
    const y = b[i];
    const z = c[i];
    const w = d[i];
    const v = e[i];
    be += y * v;
    cc += z * z;
    cd += z * w;
    ce += z * v;
    dd += w * w;
    de += w * v;
    ee += v * v;
  }
  const found = [aa, ab, ac, ad, ae, bb, bc, bd, be, cc, cd, ce, dd, de, ee];
  let place = 0;
  for (let j = 0; j < 5; j++) for (let k = j; k < 5; k++) sums[j * 5 + k] += found[place++];
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
