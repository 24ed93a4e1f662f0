import { expm1, log1p } from '../elementary';
import fDistribution from '@stdlib/stats-base-dists-f-cdf';
import tQuantile from '@stdlib/stats-base-dists-t-quantile';

/** Probability of one standard deviation on both sides of a normal distribution. */
export const oneSigma = 0.6826894921370859;

/** Results of one region, in one run after the other, ask for the same few. */
const factors = new Map<string, number>();
const mostFactors = 500;

/**
 * The factor by which a standard uncertainty with `degreesOfFreedom` is multiplied to cover 68.27 %, or another share: Student's t
 * (JCGM 100:2008, annex G.3, table G.2), of the normal distribution for many degrees of freedom; NaN for none.
 */
export function coverageFactor(degreesOfFreedom: number, share = oneSigma): number {
  if (!(degreesOfFreedom > 0)) return NaN;
  if (share === oneSigma && degreesOfFreedom > 1e4) return 1;
  const key = `${degreesOfFreedom}/${share}`;
  let factor = factors.get(key);
  if (factor === undefined) {
    if (factors.size >= mostFactors) factors.clear();
    factors.set(key, (factor = tQuantile((1 + share) / 2, Math.min(degreesOfFreedom, 1e6))));
  }
  return factor;
}

/**
 * Probability that noise alone makes a sum of squares fall from `simpler` to `richer` or further by `added` parameters
 * (F test of nested least-squares models; Seber and Lee, Linear Regression Analysis, 2nd ed. 2003, th. 4.1).
 * @param degreesOfFreedom those that the richer model leaves
 */
export function chanceOfGain(
  simpler: number,
  richer: number,
  added: number,
  degreesOfFreedom: number,
): number {
  if (!(degreesOfFreedom > 0) || !(simpler > richer)) return 1;
  if (richer <= 0) return 0;
  const ratio = (simpler - richer) / added / (richer / degreesOfFreedom);
  return Math.max(1 - fDistribution(ratio, added, degreesOfFreedom), 0);
}

/**
 * Probability that chance alone makes a value as far from zero as `times` standard uncertainties or further, to either side, where
 * that uncertainty is known by `degreesOfFreedom` (Student's t, as the square root of F with one degree of freedom).
 */
export function chanceBeyond(times: number, degreesOfFreedom: number): number {
  const known = Math.min(degreesOfFreedom, mostDegrees);
  return known > 0 ? Math.max(1 - fDistribution(times * times, 1, known), 0) : NaN;
}

/** More degrees of freedom than these differ in nothing from infinitely many. */
const mostDegrees = 1e6;

/** Probability that the luckiest of `trials` independent tries has a chance of `single` or less. */
export const chanceOfBest = (single: number, trials: number): number => -expm1(trials * log1p(-single));
