import { log, pow, square } from '../elementary';
import { normalRandom, uniformRandom } from '../random';
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
 * Draws of correlated quantities, with the covariances that their common roots give them: normal distributions (JCGM 101:2008,
 * 6.4.8), or shifted and scaled t-distributions where an uncertainty is known by few degrees of freedom, as that of a mean of
 * repeats (6.4.9.2). Quantities that hang together are drawn from one multivariate t, by the fewest degrees of freedom among them
 * (JCGM 102:2011, 5.3.2.2). One array of draws for each.
 */
export function drawsOf(quantities: readonly Quantity[], count: number, seed = 1): Float64Array[] {
  const n = quantities.length;
  const covariance = quantities.map((a) => quantities.map((b) => covarianceOf(a, b)));
  const factor = choleskyOf(covariance);
  const out = quantities.map(() => new Float64Array(count));
  const normal = normalRandom(seed);
  const groups = groupsOf(covariance);
  const degrees = groups.map((group) =>
    Math.min(
      ...quantities.flatMap(({ degreesOfFreedom }, i) => (groups[i] === group ? [degreesOfFreedom] : [])),
    ),
  );
  const uniform = uniformRandom(seed + 1);
  const z = new Float64Array(n);
  const widened = new Float64Array(n);
  for (let draw = 0; draw < count; draw++) {
    for (let i = 0; i < n; i++) z[i] = normal();
    for (let i = 0; i < n; i++)
      widened[i] =
        groups[i] === i
          ? degrees[i] < manyDegrees
            ? Math.sqrt(degrees[i] / chiSquared(degrees[i], normal, uniform))
            : 1
          : widened[groups[i]];
    for (let i = 0; i < n; i++) {
      let away = 0;
      for (let j = 0; j <= i; j++) away += factor[i][j] * z[j];
      out[i][draw] = quantities[i].value + widened[i] * away;
    }
  }
  return out;
}

/** With so many degrees of freedom t is normal to a part in a thousand. */
const manyDegrees = 1000;

/** For each quantity the first one that it hangs together with, directly or through others. */
function groupsOf(covariance: readonly (readonly number[])[]): number[] {
  const group = covariance.map((_, i) => i);
  for (let pass = 0; pass < covariance.length; pass++)
    covariance.forEach((row, i) =>
      row.forEach((value, j) => {
        if (value !== 0) group[i] = group[j] = Math.min(group[i], group[j]);
      }),
    );
  return group;
}

/**
 * One draw of χ² with any number of degrees of freedom, as twice a gamma variable (Marsaglia and Tsang, ACM Transactions on
 * Mathematical Software 26 (2000) 363); of less than two degrees by a power of a uniform number, as given there.
 */
function chiSquared(degreesOfFreedom: number, normal: () => number, uniform: () => number): number {
  const shape = degreesOfFreedom / 2;
  if (shape < 1) return chiSquared(degreesOfFreedom + 2, normal, uniform) * pow(1 - uniform(), 1 / shape);
  const d = shape - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = normal();
    const v = pow(1 + c * x, 3);
    if (v > 0 && log(1 - uniform()) < 0.5 * x * x + d - d * v + d * log(v)) return 2 * d * v;
  }
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
  for (const value of good) squares += square(value - mean);
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
