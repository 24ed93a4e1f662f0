import { asin, pow, square } from '../elementary';
/** How long a beam is blocked by a ball that may miss its middle, as shares of the diameter. */
export interface ChordShare {
  /** The mean chord, less than 1. */
  mean: number;
  /** Its standard deviation. */
  standardDeviation: number;
}

/**
 * The chord of a ball whose middle passes a beam at a distance of up to `most` diameters, anywhere in there alike (common practice,
 * no source; the geometry is elementary): at a distance y of a ball of diameter d it is √(d² − 4y²). With q = 2·most its mean is
 * ½ (√(1 − q²) + asin(q)/q) of d and its mean square (1 − q²/3) of d².
 * @param most 0 to below 0.5
 */
export function chordShare(most: number): ChordShare {
  const q = 2 * most;
  // The series keeps its digits where the differences below lose them: 1 − q²/6 − q⁴/40 and q⁴/45.
  if (q < 0.02)
    return { mean: 1 - square(q) / 6 - pow(q, 4) / 40, standardDeviation: square(q) / Math.sqrt(45) };
  const mean = (Math.sqrt(1 - square(q)) + asin(q) / q) / 2;
  return { mean, standardDeviation: Math.sqrt(Math.max(1 - square(q) / 3 - square(mean), 0)) };
}
