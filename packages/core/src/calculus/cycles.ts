import { square } from '../elementary';
import { type WeightSpan, sumOfSpans } from '../series/noisePath';
import { indexAtOrAfter, timeAt } from '../series/sampling';
import { type Series } from '../series/series';
import { crossingsOf } from './crossings';

/** A number with what each reading does to it, to first order. */
export interface WeightedValue {
  value: number;
  weights: WeightSpan;
}

/** A number whose weights are worked out when somebody asks for them. */
export class LazyWeightedValue implements WeightedValue {
  private made: WeightSpan | null = null;

  constructor(
    readonly value: number,
    private readonly make: () => WeightSpan,
  ) {}

  get weights(): WeightSpan {
    return (this.made ??= this.make());
  }
}

/** The swings of a series about a level. */
export interface Cycles {
  /** Moments at which the series rises through the level. */
  starts: WeightedValue[];
  /** Half the way from the least to the greatest reading of each whole cycle. */
  amplitudes: WeightedValue[];
}

/**
 * A crossing of a level, and how readings move it. It lies on the straight line between two readings; where noise reaches over
 * more of them than two, on the least-squares line through all that are not clearly before or beyond the level.
 */
export function crossingAt(
  series: Series,
  level: number,
  at: number,
  first = 0,
  past = Infinity,
): WeightedValue {
  const { sampling, values, noise } = series;
  let right = Math.max(indexAtOrAfter(sampling, at), 1);
  let left = right - 1;
  while (right + 1 < values.length && Number.isNaN(values[right])) right++;
  while (left > 0 && Number.isNaN(values[left])) left--;
  const sigma =
    noise?.independent === true
      ? noise.root.level.between(first, Math.min(past, values.length)).standardDeviation
      : 0;
  const isNear = (i: number) => Math.abs(values[i] - level) < notClear * sigma;
  let [from, to] = [left, right];
  while (from - 1 >= first && isNear(from - 1) && to - from < mostNear) from--;
  while (to + 1 < Math.min(past, values.length) && isNear(to + 1) && to - from < mostNear) to++;
  // Across a missing reading the two beside it tell all there is.
  if (right - left === 1 && to - from > 1) {
    const met = metBetween(series, level, [from, to], [first, Math.min(past, values.length)]);
    if (met !== null) return met;
  }
  const [t0, t1] = [timeAt(sampling, left), timeAt(sampling, right)];
  const [y0, y1] = [values[left], values[right]];
  const rise = (t1 - t0) / square(y1 - y0);
  const weights = new Float64Array(right - left + 1);
  weights[0] = rise * (level - y1);
  weights[right - left] = rise * (y0 - level);
  return { value: at, weights: { first: left, weights } };
}

/**
 * A crossing of a level by the least-squares line through the readings that lie within a time of it on either side, which has to be
 * so short that the series is straight there. With less than three of them, or one that is missing, as `crossingAt` tells it.
 */
export function crossingNear(series: Series, level: number, at: number, reach: number): WeightedValue {
  const { sampling, values } = series;
  let found: WeightedValue | null = null;
  for (let round = 0; round < 3; round++) {
    const here = found?.value ?? at;
    const low = Math.max(indexAtOrAfter(sampling, here - reach), 0);
    const high = Math.min(indexAtOrAfter(sampling, here + reach) - 1, values.length - 1);
    if (high - low < 2 || values.subarray(low, high + 1).some(Number.isNaN))
      return found ?? crossingAt(series, level, at);
    const next = onLine(series, level, low, high);
    // A line that meets the level elsewhere is none through this crossing.
    if (!(Math.abs(next.value - at) < reach)) return found ?? crossingAt(series, level, at);
    found = next;
  }
  return found ?? crossingAt(series, level, at);
}

/** Noise reaches so many standard deviations once in 400 readings. */
const notClear = 3;
const mostNear = 400;

/**
 * Where a line through several readings meets a level that lies among them; null where none does. Readings that a sensor rounds to the
 * same step have no slope of their own: a line through them meets the level nowhere, or far away. There the readings beside them
 * take part.
 */
function metBetween(
  series: Series,
  level: number,
  [from, to]: readonly [number, number],
  [first, past]: readonly [number, number],
): WeightedValue | null {
  const { sampling, values } = series;
  const rough = onLine(series, level, from, to);
  // Which readings count is decided by time: chosen by what they read, they would scatter less than they do.
  const reach = (timeAt(sampling, to) - timeAt(sampling, from)) / 3;
  const low = Math.max(indexAtOrAfter(sampling, rough.value - reach), first);
  const high = Math.min(indexAtOrAfter(sampling, rough.value + reach), past - 1);
  const tries = [
    [low, high],
    [from - 1, to + 1],
    [from, to],
  ] as const;
  for (const [begin, end] of tries) {
    if (!(begin >= first && end < past && end - begin > 1)) continue;
    if (values.subarray(begin, end + 1).some(Number.isNaN)) continue;
    const { value, weights } = onLine(series, level, begin, end);
    if (value >= timeAt(sampling, begin) && value <= timeAt(sampling, end)) return { value, weights };
  }
  return null;
}

/** Where the least-squares line through readings meets a level. */
function onLine({ sampling, values }: Series, level: number, from: number, to: number): WeightedValue {
  const count = to - from + 1;
  let [meanT, meanY] = [0, 0];
  for (let i = from; i <= to; i++) {
    meanT += timeAt(sampling, i) / count;
    meanY += values[i] / count;
  }
  let [spread, joint] = [0, 0];
  for (let i = from; i <= to; i++) {
    const off = timeAt(sampling, i) - meanT;
    spread += off * off;
    joint += off * (values[i] - meanY);
  }
  const slope = joint / spread;
  const later = (level - meanY) / slope;
  const weights = Float64Array.from({ length: count }, (_, k) => {
    const off = timeAt(sampling, from + k) - meanT;
    // t = t̄ + (level − ȳ)/b: ∂t/∂y = −1/(n b) − (level − ȳ)/b² · ∂b/∂y.
    return -1 / (count * slope) - (later / slope) * (off / spread);
  });
  return { value: meanT + later, weights: { first: from, weights } };
}

/**
 * Cuts an interval of a series into whole cycles, from each rise through a level to the next. A crossing lies on the straight line
 * between two readings; noise about the level is none (see `crossingsOf`).
 */
export function cyclesOf(series: Series, level: number, first: number, past: number): Cycles {
  const { sampling, values } = series;
  const starts = Array.from(crossingsOf(series, level, 'rise', first, past), (at) =>
    crossingAt(series, level, at, first, past),
  );
  const amplitudes = starts.slice(1).map(({ value: end }, i) => {
    const [from, to] = [indexAtOrAfter(sampling, starts[i].value), indexAtOrAfter(sampling, end)];
    let [top, bottom] = [from, from];
    for (let k = from; k < to; k++) {
      if (values[k] > values[top] || values[top] !== values[top]) top = k;
      if (values[k] < values[bottom] || values[bottom] !== values[bottom]) bottom = k;
    }
    const one = (place: number): WeightSpan => ({ first: place, weights: Float64Array.of(1) });
    return new LazyWeightedValue((values[top] - values[bottom]) / 2, () =>
      sumOfSpans([
        [one(top), 1 / 2],
        [one(bottom), -1 / 2],
      ]),
    );
  });
  return { starts, amplitudes };
}

/** The difference of two, divided. */
export const differenceOf = (a: WeightedValue, b: WeightedValue, divided: number): WeightedValue => ({
  value: (a.value - b.value) / divided,
  weights: sumOfSpans([
    [a.weights, 1 / divided],
    [b.weights, -1 / divided],
  ]),
});
