import { normalRandom } from '../random';
import { type Quantity, covarianceOf } from './quantity';

/** What many draws say of a value that is worked out from uncertain ones. */
export interface Drawn {
  count: number;
  mean: number;
  standardDeviation: number;
  /** Ends of the interval that holds the middle 68.27 % of the draws. */
  low: number;
  high: number;
  /** Draws without a value: a root of something negative, a division by nothing. */
  lost: number;
}

/**
 * Draws of correlated quantities: normal distributions with the covariances that their common roots give them (JCGM 101:2008,
 * 6.4.8). One array of draws for each.
 */
export function drawsOf(quantities: readonly Quantity[], count: number, seed = 1): Float64Array[] {
  const n = quantities.length;
  const factor = choleskyOf(quantities.map((a) => quantities.map((b) => covarianceOf(a, b))));
  const out = quantities.map(() => new Float64Array(count));
  const normal = normalRandom(seed);
  const z = new Float64Array(n);
  for (let draw = 0; draw < count; draw++) {
    for (let i = 0; i < n; i++) z[i] = normal();
    for (let i = 0; i < n; i++) {
      let value = quantities[i].value;
      for (let j = 0; j <= i; j++) value += factor[i][j] * z[j];
      out[i][draw] = value;
    }
  }
  return out;
}

/** L with L Lᵀ = C; a direction in which nothing is uncertain stays without. */
function choleskyOf(covariance: readonly (readonly number[])[]): number[][] {
  const n = covariance.length;
  const factor = covariance.map(() => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let sum = covariance[i][j];
      for (let k = 0; k < j; k++) sum -= factor[i][k] * factor[j][k];
      if (i === j) factor[i][i] = sum > 1e-12 * covariance[i][i] ? Math.sqrt(sum) : 0;
      else factor[i][j] = factor[j][j] > 0 ? sum / factor[j][j] : 0;
    }
  return factor;
}

/** Mean, standard deviation and middle interval of draws. */
export function summaryOfDraws(values: Float64Array): Drawn {
  const good = values.filter(Number.isFinite).sort();
  const count = good.length;
  let sum = 0;
  for (const value of good) sum += value;
  const mean = sum / count;
  let squares = 0;
  for (const value of good) squares += (value - mean) ** 2;
  const at = (share: number) => good[Math.min(Math.max(Math.round(share * (count - 1)), 0), count - 1)];
  return {
    count,
    mean,
    standardDeviation: Math.sqrt(squares / (count - 1)),
    low: at(0.158655),
    high: at(0.841345),
    lost: values.length - count,
  };
}
