import { type Unit } from '../units/unit';
import { type NoisePath, readingsNoise } from './noise';

/**
 * Values over an ascending abscissa, of equal length. The abscissa is time in seconds for a recorded run, or the number
 * of the reading where a file had no time. A missing value is NaN; the abscissa has no NaN.
 */
export interface Series {
  readonly symbol: string;
  readonly quantity: string;
  readonly unit: Unit;
  readonly times: Float64Array;
  readonly timeUnit: Unit;
  readonly values: Float64Array;
  /** Spacing of a regularly sampled series, in units of the abscissa; null where times are irregular. */
  readonly interval: number | null;
  readonly noise: NoisePath;
}

/** Readings as a series; the noise path starts here. */
export function readingsSeries(parts: Omit<Series, 'noise'>): Series {
  if (parts.times.length !== parts.values.length)
    throw new RangeError(
      `times (${parts.times.length}) and values (${parts.values.length}) differ in length`,
    );
  return { ...parts, noise: readingsNoise(parts.values) };
}

/** First index whose abscissa is at or above `at`, in O(log n). */
export function indexAtOrAfter(times: Float64Array, at: number): number {
  let low = 0;
  let high = times.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (times[middle] < at) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** First index whose abscissa is above `at`. */
export function indexAfter(times: Float64Array, at: number): number {
  let low = 0;
  let high = times.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (times[middle] <= at) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Linear interpolation of a series at one abscissa; NaN outside it or beside a missing value. */
export function valueAt(series: Series, at: number): number {
  const { times, values } = series;
  const right = indexAtOrAfter(times, at);
  if (right < times.length && times[right] === at) return values[right];
  if (right === 0 || right === times.length) return NaN;
  const left = right - 1;
  const part = (at - times[left]) / (times[right] - times[left]);
  return values[left] + part * (values[right] - values[left]);
}

/** The values of `series` at the times of another one: the very values where both share their times, else interpolated. */
export function valuesAtTimesOf(series: Series, other: Series): Float64Array {
  if (series.times === other.times) return series.values;
  return other.times.map((time) => valueAt(series, time));
}
