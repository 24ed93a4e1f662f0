/** Values of which more than this share differ from all before are no steps. */
const mostDistinct = 0.5;
/** How far from a whole number of steps a difference may lie, as a share of a step. */
const slack = 0.01;

/**
 * The step of values that come in steps: the least difference, where all others are whole multiples and most values repeat.
 * @param sorted ascending, finite
 * @returns null where they do not come in steps, or are all the same
 */
export function stepOf(sorted: Float64Array): number | null {
  let least = Infinity;
  let distinct = 1;
  for (let i = 1; i < sorted.length; i++) {
    const difference = sorted[i] - sorted[i - 1];
    if (difference <= 1e-12 * Math.abs(sorted[i])) continue;
    distinct++;
    if (difference < least) least = difference;
  }
  if (distinct < 2 || distinct > mostDistinct * sorted.length) return null;
  for (let i = 1; i < sorted.length; i++) {
    const steps = (sorted[i] - sorted[i - 1]) / least;
    if (Math.abs(steps - Math.round(steps)) > slack) return null;
  }
  const range = sorted[sorted.length - 1] - sorted[0];
  return range / Math.round(range / least);
}
