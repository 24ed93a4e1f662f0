import { timeAt } from '../series/sampling';
import { type Series } from '../series/series';
import { isGap } from './gaps';

/** Noise reaches four times its standard deviation once in 30 000 readings (normal distribution). */
const clearlyFactor = 4;

/**
 * The moments at which a series goes through a level, in order: where the straight line between the two readings on either
 * side meets it. Noise about the level is no crossing: the series has to come from clearly before it, and goes on to stand
 * clearly beyond it. Up to three missing readings are bridged by the straight line; a longer gap begins anew.
 */
export function crossingsOf(
  series: Series,
  level: number,
  direction: 'rise' | 'fall',
  first = 0,
  past = series.values.length,
): Float64Array {
  const { values, sampling, noise } = series;
  const sigma = noise?.independent === true ? noise.root.level.between(first, past).standardDeviation : 0;
  const margin = Number.isFinite(sigma) ? clearlyFactor * sigma : 0;
  const sign = direction === 'rise' ? 1 : -1;
  const found: number[] = [];
  let isReady = false;
  let candidate: number | null = null;
  /** The last reading that was there. */
  let left = -1;
  for (let i = first; i < past; i++) {
    const height = sign * (values[i] - level);
    if (Number.isNaN(height)) continue;
    if (left >= 0 && i - left > 1 && isGap(sampling, left, i)) {
      isReady = false;
      candidate = null;
      left = -1;
    }
    if (height < 0) candidate = null;
    else if (isReady && candidate === null && left >= 0) {
      const before = sign * (values[left] - level);
      const [from, to] = [timeAt(sampling, left), timeAt(sampling, i)];
      candidate = from + ((0 - before) / (height - before)) * (to - from);
    }
    if (candidate !== null && height >= margin) {
      found.push(candidate);
      candidate = null;
      isReady = false;
    }
    if (height < -margin || (margin === 0 && height < 0)) isReady = true;
    left = i;
  }
  return Float64Array.from(found);
}

/**
 * The moment of the greatest or least value of an interval: the vertex of the parabola through that reading and its neighbours.
 * @returns null where the interval has no reading
 */
export function extremeOf(
  series: Series,
  kind: 'greatest' | 'least',
  first: number,
  past: number,
): number | null {
  const { values, sampling } = series;
  const sign = kind === 'greatest' ? 1 : -1;
  let best = -1;
  for (let i = first; i < past; i++)
    if (!Number.isNaN(values[i]) && (best < 0 || sign * values[i] > sign * values[best])) best = i;
  if (best < 0) return null;
  const at = timeAt(sampling, best);
  if (best === 0 || best === values.length - 1) return at;
  const [before, after] = [timeAt(sampling, best - 1), timeAt(sampling, best + 1)];
  const [left, middle, right] = [values[best - 1], values[best], values[best + 1]];
  // Newton's form of the parabola through three points, at distances of their own.
  const slopeLeft = (middle - left) / (at - before);
  const slopeRight = (right - middle) / (after - at);
  const bend = (slopeRight - slopeLeft) / (after - before);
  if (!(sign * bend < 0)) return at;
  const vertex = (before + at) / 2 - slopeLeft / (2 * bend);
  return Math.min(Math.max(vertex, before), after);
}
