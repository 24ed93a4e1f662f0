import { pyramidOf } from './pyramid';
import { timeAt, timesOf } from './sampling';
import { type Series } from './series';

/** Points to draw, in order; a NaN breaks the line. */
export interface DrawnLine {
  x: Float64Array;
  y: Float64Array;
  /** True where points come in pairs, the least and the greatest value of one stretch each: a band rather than a line. */
  isBand: boolean;
}

/**
 * The values from `first` up to `end` for drawing over their abscissa at the width of a screen: least and greatest of each
 * of `buckets` stretches, or the values themselves where they are few. A stretch with a missing value breaks the line.
 */
export function thinSeries(series: Series, first: number, end: number, buckets: number): DrawnLine {
  const { values, sampling } = series;
  const count = end - first;
  if (count <= buckets * 3)
    return { x: timesOf(sampling).slice(first, end), y: values.slice(first, end), isBand: false };
  const pyramid = pyramidOf(series);
  const x = new Float64Array(buckets * 4);
  const y = new Float64Array(buckets * 4);
  let length = 0;
  const push = (at: number, low: number, high: number) => {
    x[length] = x[length + 1] = at;
    y[length] = low;
    y[length + 1] = high;
    length += 2;
  };
  for (let bucket = 0; bucket < buckets; bucket++) {
    const from = first + Math.floor((bucket * count) / buckets);
    const to = first + Math.floor(((bucket + 1) * count) / buckets);
    const { low, high, missing } = pyramid.extremes(values, from, to);
    const [left, right] = [timeAt(sampling, from), timeAt(sampling, to - 1)];
    if (low <= high) push((left + right) / 2, low, high);
    if (missing) push(right, NaN, NaN);
  }
  return { x: x.slice(0, length), y: y.slice(0, length), isBand: true };
}

/**
 * Points of one quantity against another, as far as they lie in sight. Nothing in sight is lost: where there are more points
 * than could be told apart, one of those that fall on the same spot of a fine grid is kept.
 */
export function thinPoints(
  x: Float64Array,
  y: Float64Array,
  sight: { from: number; to: number },
  grid: number,
  most: number,
): DrawnLine {
  const chosen: number[] = [];
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < x.length; i++) {
    if (!(x[i] >= sight.from && x[i] <= sight.to) || y[i] !== y[i]) continue;
    chosen.push(i);
    if (y[i] < low) low = y[i];
    if (y[i] > high) high = y[i];
  }
  let kept = chosen;
  if (chosen.length > most) {
    const seen = new Set<number>();
    const [perX, perY] = [grid / (sight.to - sight.from), grid / (high - low || 1)];
    kept = chosen.filter((i) => {
      const spot = Math.floor((x[i] - sight.from) * perX) * (grid + 1) + Math.floor((y[i] - low) * perY);
      if (seen.has(spot)) return false;
      seen.add(spot);
      return true;
    });
  }
  return { x: Float64Array.from(kept, (i) => x[i]), y: Float64Array.from(kept, (i) => y[i]), isBand: false };
}
