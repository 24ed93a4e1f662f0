import fDistribution from '@stdlib/stats-base-dists-f-cdf';
import { square } from '../elementary';
import { inCases } from '../results/chances';
import { describe } from '../statistics/describe';

/** Whether the means of groups differ by more than the scatter within them explains. */
export interface OneWay {
  groups: number;
  values: number;
  /** Mean square between groups over that within them. */
  ratio: number;
  /** Degrees of freedom between the groups, and within them. */
  between: number;
  within: number;
  /** Probability that chance alone makes the ratio as large. */
  chance: number;
}

/**
 * Compares the means of several groups by the scatter within them, which is taken as the same in each (one-way analysis of variance;
 * NIST/SEMATECH e-Handbook of Statistical Methods, 7.4.3). What all values owe to one source moves all means alike, and is no difference.
 * @param groups values of each; groups without any are left out
 * @returns null where there are not two groups, or no group has two values
 */
export function oneWay(groups: readonly Float64Array[]): OneWay | null {
  const some = groups.filter(({ length }) => length > 0);
  const values = some.reduce((sum, { length }) => sum + length, 0);
  const [between, within] = [some.length - 1, values - some.length];
  if (between < 1 || within < 1) return null;
  // Counted from one of them, so that values with much in common lose nothing.
  const base = some[0][0];
  const own = some.map((group) => describe(group.map((value) => value - base)));
  const mean = own.reduce((sum, one) => sum + one.mean * one.count, 0) / values;
  const ofMeans = own.reduce((sum, one) => sum + one.count * square(one.mean - mean), 0) / between;
  const ofScatter =
    own.reduce((sum, one) => sum + (one.count > 1 ? (one.count - 1) * square(one.standardDeviation) : 0), 0) /
    within;
  if (ofScatter === 0 && ofMeans === 0) return null;
  const ratio = ofMeans / ofScatter;
  const chance = ratio === Infinity ? 0 : Math.max(1 - fDistribution(ratio, between, within), 0);
  return { groups: some.length, values, ratio, between, within, chance };
}

/** What that says, in a sentence. */
export function oneWayWords({ groups, ratio, between, within, chance }: OneWay): string {
  const what = chance < unusual ? 'differ by more than' : 'differ by no more than';
  return `The means of the ${groups} groups ${what} the scatter within them explains: F = ${ratio === Infinity ? 'infinite' : ratio.toPrecision(3)} with ${between} and ${within} degrees of freedom; chance alone makes as much in ${inCases(chance)}.`;
}

/** Below this chance a difference is called one (common practice, no source). */
const unusual = 0.05;
