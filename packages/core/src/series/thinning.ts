import { log2, pow } from '../elementary';
import { pyramidOf } from './pyramid';
import { type Sampling, indexAfter, indexAtOrAfter, timeAt, timesOf } from './sampling';
import { type Series } from './series';

/** Points to draw, in order; a NaN breaks the line. */
export interface DrawnLine {
  x: Float64Array;
  y: Float64Array;
  /** True where points come in pairs, the least and the greatest value of one interval each: a band rather than a line. */
  isBand: boolean;
}

/** An interval of an axis. */
export interface Interval {
  from: number;
  to: number;
}

/** At most so many values a bucket are drawn as they are. */
const fewPerBucket = 3;

/**
 * What an interval of a series looks like at the width of a screen: least and greatest value of each of about `buckets` parts
 * of it, or the values themselves where they are few, with one more on either side, towards which the line leads out. The
 * least and the greatest value of what is drawn in the interval are those of the readings in it. Parts begin at the same readings
 * wherever the interval lies, so that a spike keeps its look while the interval is moved. A part with a missing value breaks
 * the line.
 */
export function thinSeries(series: Series, interval: Interval, buckets: number): DrawnLine {
  const { values, sampling } = series;
  const first = indexAtOrAfter(sampling, interval.from);
  const past = Math.max(indexAfter(sampling, interval.to), first);
  const [before, after] = [Math.max(first - 1, 0), Math.min(past + 1, values.length)];
  if (past - first <= buckets * fewPerBucket)
    return { x: timesOf(sampling).slice(before, after), y: values.slice(before, after), isBand: false };
  const ends = partsOf(sampling, first, past, interval, buckets);
  const pyramid = pyramidOf(series);
  const room = 4 * (ends.length + 2);
  const x = new Float64Array(room);
  const y = new Float64Array(room);
  let length = 0;
  const push = (at: number, low: number, high: number) => {
    x[length] = x[length + 1] = at;
    y[length] = low;
    y[length + 1] = high;
    length += 2;
  };
  if (before < first) push(timeAt(sampling, before), values[before], values[before]);
  let from = first;
  for (const to of ends) {
    const { low, high, missing } = pyramid.extremes(values, from, to);
    const [left, right] = [timeAt(sampling, from), timeAt(sampling, to - 1)];
    if (low <= high) push((left + right) / 2, low, high);
    if (missing) push(right, NaN, NaN);
    from = to;
  }
  if (after > past) push(timeAt(sampling, past), values[past], values[past]);
  return { x: x.slice(0, length), y: y.slice(0, length), isBand: true };
}

/** The indices at which the parts of an interval end. */
function partsOf(
  sampling: Sampling,
  first: number,
  past: number,
  { from, to }: Interval,
  buckets: number,
): number[] {
  const ends: number[] = [];
  if (sampling.kind === 'regular') {
    const size = roundedUp((past - first) / buckets, 1);
    for (let end = (Math.floor(first / size) + 1) * size; end < past; end += size) ends.push(end);
  } else {
    // Where readings have times of their own, a part is as wide as the others and may hold any number of them.
    const width = roundedUp((to - from) / buckets, 0);
    let known = first;
    for (let part = Math.floor(from / width) + 1; known < past && part * width < to; part++) {
      const end = Math.min(indexAtOrAfter(sampling, part * width), past);
      if (end > known && end < past) ends.push((known = end));
    }
  }
  ends.push(past);
  return ends;
}

/** A size that is a little larger, in steps of an eighth to a quarter of it, so that nearly equal sizes come out the same. */
function roundedUp(size: number, leastStep: number): number {
  const step = Math.max(pow(2, Math.floor(log2(size)) - 2), leastStep);
  return Math.ceil(size / step) * step;
}

/**
 * Points of one quantity against another, as far as they lie in sight, in the order in which they were read. Nothing in sight
 * is lost: where there are more points than could be told apart, one of those that fall on the same spot of a fine grid is
 * kept. Where the way from one point to the next leads out of sight, or a value is missing, the line is broken (NaN).
 * @param heights the interval of the vertical axis that is looked at; null where it shows all points
 */
export function thinPoints(
  x: Float64Array,
  y: Float64Array,
  sight: Interval,
  heights: Interval | null,
  grid: number,
  most: number,
): DrawnLine {
  const chosen: number[] = [];
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < x.length; i++) {
    if (!(x[i] >= sight.from && x[i] <= sight.to) || y[i] !== y[i]) continue;
    if (heights !== null && !(y[i] >= heights.from && y[i] <= heights.to)) continue;
    chosen.push(i);
    if (y[i] < low) low = y[i];
    if (y[i] > high) high = y[i];
  }
  const isTooMany = chosen.length > most;
  const seen = new Set<number>();
  const [perX, perY] = [grid / (sight.to - sight.from), grid / (high - low || 1)];
  const line = { x: [] as number[], y: [] as number[] };
  let before = -1;
  let isBroken = false;
  for (const i of chosen) {
    if (before >= 0 && i > before + 1) isBroken = true;
    before = i;
    if (isTooMany) {
      const spot = Math.floor((x[i] - sight.from) * perX) * (grid + 1) + Math.floor((y[i] - low) * perY);
      if (seen.has(spot)) continue;
      seen.add(spot);
    }
    if (isBroken && line.x.length > 0) {
      line.x.push(x[i]);
      line.y.push(NaN);
    }
    isBroken = false;
    line.x.push(x[i]);
    line.y.push(y[i]);
  }
  return { x: Float64Array.from(line.x), y: Float64Array.from(line.y), isBand: false };
}
