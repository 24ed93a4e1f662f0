/** What makes a reading one that stands off from its neighbours. */
export interface HampelRule {
  /** Readings on either side that it is held against. */
  halfWindow: number;
  /** How many scaled median absolute deviations it may be off. */
  threshold: number;
}

export const usualRule: HampelRule = { halfWindow: 5, threshold: 3 };

/** Makes the median absolute deviation of normal values their standard deviation: 1/Φ⁻¹(3/4). */
export const madScale = 1.4826;

/**
 * Readings that stand off from the median m of the window about them by more than t·S, S = 1.4826 · median|x − m| (Hampel
 * identifier; Davies and Gather, Journal of the American Statistical Association 88 (1993) 782; Pearson, Neuvo, Astola and
 * Gabbouj, EURASIP Journal on Advances in Signal Processing 2016:87). Windows are cut off at the ends; missing readings are
 * neither judged nor counted. What differs by no more than `resolution` is not told apart.
 * @returns indices, ascending
 */
export function hampelOutliers(
  values: Float64Array,
  { halfWindow, threshold }: HampelRule = usualRule,
  { first = 0, past = values.length, resolution = 0 } = {},
): number[] {
  const found: number[] = [];
  const window: number[] = [];
  for (let i = first; i < past; i++) {
    const value = values[i];
    if (Number.isNaN(value)) continue;
    window.length = 0;
    for (let j = Math.max(i - halfWindow, first); j <= Math.min(i + halfWindow, past - 1); j++)
      if (!Number.isNaN(values[j])) window.push(values[j]);
    // Among fewer than three nobody can say which one stands off.
    if (window.length < 3) continue;
    const middle = medianOf(window);
    for (let j = 0; j < window.length; j++) window[j] = Math.abs(window[j] - middle);
    const spread = madScale * medianOf(window);
    if (Math.abs(value - middle) > Math.max(threshold * spread, resolution)) found.push(i);
  }
  return found;
}

/** The median; of an even number of values the mean of the two in the middle. Sorts them. */
function medianOf(values: number[]): number {
  values.sort((a, b) => a - b);
  const half = values.length >> 1;
  return values.length % 2 === 1 ? values[half] : (values[half - 1] + values[half]) / 2;
}
