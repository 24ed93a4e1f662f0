import { Refusal } from '../refusal';
import { indexAtOrAfter, timeAt, timesOf, timed } from '../series/sampling';
import { type Series } from '../series/series';
import { derivative } from './derivative';

/** A straight line that touches a series at one of its readings. */
export interface Tangent {
  /** Place and height of the reading that it is laid through. */
  at: number;
  value: number;
  slope: number;
  /** How far the readings reach that tell the slope, in units of the abscissa. */
  window: number;
}

/** The reading nearest to a place. */
export function nearestReading({ sampling, values }: Series, at: number): number {
  const right = Math.min(indexAtOrAfter(sampling, at), values.length - 1);
  if (right <= 0) return Math.max(right, 0);
  return at - timeAt(sampling, right - 1) <= timeAt(sampling, right) - at ? right - 1 : right;
}

/**
 * The tangent at the reading nearest to a place: its slope is that of the least-squares polynomial, a parabola usually, through the window about it,
 * the same as the derivative over as many readings has there.
 * @param windowPoints odd number of readings
 * @throws Refusal where the series has fewer readings, or they are missing there
 */
export function tangentAt(
  series: Series,
  at: number,
  { windowPoints, degree = 2 }: { windowPoints: number; degree?: number },
): Tangent {
  const { values, sampling, symbol } = series;
  const count = values.length;
  if (count < windowPoints)
    throw new Refusal(`A tangent over ${windowPoints} readings needs as many; ${symbol} has ${count}.`);
  const index = nearestReading(series, at);
  const first = Math.min(Math.max(index - (windowPoints >> 1), 0), count - windowPoints);
  const own = values.slice(first, first + windowPoints);
  const times = timesOf(sampling).slice(first, first + windowPoints);
  const piece: Series = {
    ...series,
    values: own,
    sampling: timed(times),
    noise: null,
    lineage: own,
    settled: windowPoints,
  };
  const slope = derivative(piece, { symbol: 'slope', windowPoints, degree }).values[index - first];
  const value = values[index];
  if (Number.isNaN(slope) || Number.isNaN(value))
    throw new Refusal(`Readings of ${symbol} are missing there. Choose another place, or a shorter window.`);
  return { at: timeAt(sampling, index), value, slope, window: times[windowPoints - 1] - times[0] };
}
