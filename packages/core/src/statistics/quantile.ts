/**
 * The value below which a share of values lies, between two of them on the straight line from one to the other (R. J. Hyndman, Y. Fan,
 * The American Statistician 50 (1996) 361, definition 7).
 * @param sorted upwards, at least one
 * @param share from 0 to 1
 */
export function quantileOf(sorted: Float64Array, share: number): number {
  const count = sorted.length;
  const place = share * (count - 1);
  const below = Math.floor(place);
  const above = Math.min(below + 1, count - 1);
  return sorted[below] + (place - below) * (sorted[above] - sorted[below]);
}
