import { GramSum } from '../gram';
import { type DirectSums } from '../linear';

/** Sums over points that decide a straight line or a parabola, on a centred and scaled abscissa u = (x − middle)/scale. */
export interface Centred {
  middle: number;
  scale: number;
}

/** The middle of places and their reach about it; the scale is 0 where all are the same. */
export function centredOn(x: Float64Array): Centred {
  const base = x[0];
  let sum = 0;
  let low = base;
  let high = base;
  for (let i = 0; i < x.length; i++) {
    const place = x[i];
    sum += place - base;
    if (place < low) low = place;
    if (place > high) high = place;
  }
  const middle = base + sum / x.length;
  return { middle, scale: Math.max(high - middle, middle - low) };
}

/**
 * The Gram matrix of the columns 1, u, (u²,) y in one pass. Its entries are power sums, so no column need be written down,
 * which makes this an order of magnitude faster than a general design. Ordinates are summed from the first one on: far from
 * nought their sums would lose the digits that tell them apart.
 */
function polynomialGram(
  x: Float64Array,
  y: Float64Array,
  degree: 1 | 2,
  { middle, scale }: Centred,
): GramSum {
  const n = x.length;
  const inverse = 1 / scale;
  const base = y[0];
  // One by one: numbers that come out of an array pattern cost this loop five times its time.
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  let s4 = 0;
  let t0 = 0;
  let t1 = 0;
  let t2 = 0;
  let yy = 0;
  for (let i = 0; i < n; i++) {
    const u = (x[i] - middle) * inverse;
    const value = y[i] - base;
    const square = u * u;
    s1 += u;
    s2 += square;
    t0 += value;
    t1 += u * value;
    yy += value * value;
    if (degree === 2) {
      s3 += square * u;
      s4 += square * square;
      t2 += square * value;
    }
  }
  yy += base * (2 * t0 + n * base);
  t0 += base * n;
  t1 += base * s1;
  t2 += base * s2;
  return GramSum.of(
    degree === 1
      ? [
          [n, s1, t0],
          [s1, s2, t1],
          [t0, t1, yy],
        ]
      : [
          [n, s1, s2, t0],
          [s1, s2, s3, t1],
          [s2, s3, s4, t2],
          [t0, t1, t2, yy],
        ],
  );
}

/** Σ (y − polynomial)². */
function polynomialLeftOver(
  x: Float64Array,
  y: Float64Array,
  coefficients: readonly number[],
  { middle, scale }: Centred,
): number {
  const [c0, c1, c2 = 0] = coefficients;
  const inverse = 1 / scale;
  let sum = 0;
  for (let i = 0; i < x.length; i++) {
    const u = (x[i] - middle) * inverse;
    const rest = y[i] - (c0 + u * (c1 + u * c2));
    sum += rest * rest;
  }
  return sum;
}

/** The sums of a straight line or a parabola for the linear solver. */
export const directSums = (
  x: Float64Array,
  y: Float64Array,
  degree: 1 | 2,
  centred: Centred,
): DirectSums => ({
  gram: () => polynomialGram(x, y, degree, centred),
  residualSumOfSquares: (parameters) => polynomialLeftOver(x, y, parameters, centred),
});
