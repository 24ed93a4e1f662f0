import { Refusal } from '../refusal';
import { type WeightSpan } from '../series/noisePath';
import { type Sampling, checkSampling, indexAfter, indexAtOrAfter, timeAt } from '../series/sampling';
import { type Series } from '../series/series';
import { gapRefusal, isGap, longestBridge } from './gaps';

export interface Area {
  value: number;
  /** Partial derivatives of the area by the values of the series. */
  byValues: WeightSpan;
  /** Partial derivatives by the values of the other series, of an area against one. */
  byAbscissas: WeightSpan | null;
  /** Missing readings that were bridged by a straight line. */
  bridged: number;
  /** Separate passes through the region that were added up. */
  passes: number;
}

const tooFew = () =>
  new Refusal('An area needs at least two readings in its region. Make the region longer.');

/**
 * The area under a series between two abscissas, by the trapezoidal rule on the straight lines from reading to reading,
 * cut at the very ends. Up to three missing readings in a row are bridged by a straight line, at the ends of the region too.
 * Outside the readings nothing is added.
 * @throws Refusal with fewer than two readings, across a longer gap, or where readings are missing where the run begins or ends
 */
export function areaBetween(series: Series, start: number, end: number): Area {
  const { sampling, values } = series;
  checkSampling(sampling);
  const first = indexAtOrAfter(sampling, start);
  const past = indexAfter(sampling, end);
  let lowest = first;
  while (lowest < past && values[lowest] !== values[lowest]) lowest++;
  let highest = past - 1;
  while (highest > lowest && values[highest] !== values[highest]) highest--;
  if (highest <= lowest) throw tooFew();
  // Where the region's end lies beyond a missing reading, or between two, the reading beyond it tells the straight line.
  const before = presentBeside(values, lowest, -1);
  const after = presentBeside(values, highest, 1);
  if (lowest > first && before < 0) throw gapRefusal(sampling, first, lowest);
  if (highest < past - 1 && after < 0) throw gapRefusal(sampling, highest, past - 1);
  const origin = before >= 0 && timeAt(sampling, lowest) > start ? before : lowest;
  const last = after >= 0 && timeAt(sampling, highest) < end ? after : highest;

  const weights = new Float64Array(last - origin + 1);
  let value = 0;
  let bridged = 0;
  let left = origin;
  let t0 = timeAt(sampling, left);
  // Between the pieces at both ends, which may be cut, regular readings that are all there weigh alike.
  const [low, high] = [origin + 1, last - 1];
  const inside = sampling.kind === 'regular' && high - low > 1 ? sumOf(values, low, high) : NaN;
  const isEven = sampling.kind === 'regular' && inside === inside;
  if (isEven) {
    value = sampling.interval * (inside - (values[low] + values[high]) / 2);
    weights.fill(sampling.interval, low - origin, high - origin + 1);
    weights[low - origin] /= 2;
    weights[high - origin] /= 2;
  }
  for (let right = origin + 1; right <= last; right++) {
    if (isEven && right === low + 1) {
      left = high;
      t0 = timeAt(sampling, left);
      right = last;
    }
    if (values[right] !== values[right]) continue;
    const t1 = timeAt(sampling, right);
    const from = t0 > start ? t0 : start;
    const to = t1 < end ? t1 : end;
    if (to > from) {
      if (right - left > 1 || sampling.kind !== 'regular') {
        if (isGap(sampling, left, right)) throw gapRefusal(sampling, left, right);
        bridged += right - left - 1;
      }
      const width = to - from;
      // ∫ of a straight line: its value at the middle of the cut piece, times the width.
      const part = ((from + to) / 2 - t0) / (t1 - t0);
      value += width * (values[left] + part * (values[right] - values[left]));
      weights[left - origin] += width * (1 - part);
      weights[right - origin] += width * part;
    }
    left = right;
    t0 = t1;
  }
  return { value, byValues: { first: origin, weights }, byAbscissas: null, bridged, passes: 1 };
}

/** Four sums side by side, so that one addition need not wait for the other. */
function sumOf(values: Float64Array, from: number, to: number): number {
  let [s0, s1, s2, s3] = [0, 0, 0, 0];
  let i = from;
  for (; i + 3 <= to; i += 4) {
    s0 += values[i];
    s1 += values[i + 1];
    s2 += values[i + 2];
    s3 += values[i + 3];
  }
  for (; i <= to; i++) s0 += values[i];
  return s0 + s1 + (s2 + s3);
}

/** The next reading that is there on one side of another, within a bridge; −1 where there is none. */
function presentBeside(values: Float64Array, index: number, direction: 1 | -1): number {
  for (let step = 1; step <= longestBridge + 1; step++) {
    const i = index + direction * step;
    if (i < 0 || i >= values.length) return -1;
    if (values[i] === values[i]) return i;
  }
  return -1;
}

/** Which part of a run an area against another quantity is taken over. */
export interface PathBounds {
  first: number;
  past: number;
  /** Interval of the other quantity, or null for the whole. */
  within: { start: number; end: number } | null;
}

/**
 * ∫ y dx along the way that was taken, from reading to reading. A region along x that was passed several times gives several
 * passes, each cut at the region's ends; they are added, and never joined to each other.
 * @throws Refusal with fewer than two readings, or across a gap
 */
export function areaAlongPath(
  sampling: Sampling,
  x: Float64Array,
  y: Float64Array,
  { first, past, within }: PathBounds,
): Area {
  checkSampling(sampling);
  const byY = new Float64Array(Math.max(past - first, 0));
  const byX = new Float64Array(byY.length);
  let value = 0;
  let bridged = 0;
  let passes = 0;
  let inPass = false;
  let left = -1;
  let pieces = 0;
  for (let right = first; right < past; right++) {
    if (x[right] !== x[right] || y[right] !== y[right]) continue;
    if (left >= 0) {
      const cut = cutPiece(x[left], x[right], within);
      if (cut === null) inPass = false;
      else {
        if (isGap(sampling, left, right)) throw gapRefusal(sampling, left, right);
        bridged += right - left - 1;
        if (!inPass) passes++;
        inPass = cut[1] === 1;
        pieces++;
        value += addPiece(x, y, left, right, cut, byX, byY, first);
      }
    }
    left = right;
  }
  if (pieces === 0) throw tooFew();
  return {
    value,
    byValues: { first, weights: byY },
    byAbscissas: { first, weights: byX },
    bridged,
    passes,
  };
}

/** The part of the way from x0 to x1 that lies within bounds, as fractions of it; null where none does. */
function cutPiece(x0: number, x1: number, within: PathBounds['within']): [from: number, to: number] | null {
  if (within === null) return [0, 1];
  const { start, end } = within;
  if (x0 === x1) return x0 >= start && x0 <= end ? [0, 1] : null;
  const at = (value: number) => (value - x0) / (x1 - x0);
  const [enter, leave] = x1 > x0 ? [at(start), at(end)] : [at(end), at(start)];
  const [from, to] = [Math.max(enter, 0), Math.min(leave, 1)];
  return to > from ? [from, to] : null;
}

/** Adds ∫ y dx over one piece, with its partial derivatives; an end that is cut lies at a fixed x. */
function addPiece(
  x: Float64Array,
  y: Float64Array,
  left: number,
  right: number,
  [p, q]: [number, number],
  byX: Float64Array,
  byY: Float64Array,
  origin: number,
): number {
  const [dx, dy] = [x[right] - x[left], y[right] - y[left]];
  const [a, b] = [left - origin, right - origin];
  const [yp, yq] = [y[left] + p * dy, y[left] + q * dy];
  // A = (q − p) dx (y_p + y_q) / 2 with p and q themselves hanging on x where the piece is cut.
  const width = (q - p) * dx;
  byY[a] += (width * (2 - p - q)) / 2;
  byY[b] += (width * (p + q)) / 2;
  const byP = -dx * yp;
  const byQ = dx * yq;
  const mean = ((q - p) * (yp + yq)) / 2;
  byX[b] += mean;
  byX[a] -= mean;
  if (dx !== 0) {
    // A cut fraction c at the fixed place e is (e − x₀)/dx: ∂c/∂x₀ = (c − 1)/dx, ∂c/∂x₁ = −c/dx.
    if (p > 0) {
      byX[a] += (byP * (p - 1)) / dx;
      byX[b] += (byP * -p) / dx;
    }
    if (q < 1) {
      byX[a] += (byQ * (q - 1)) / dx;
      byX[b] += (byQ * -q) / dx;
    }
  }
  return (width * (yp + yq)) / 2;
}
