import { Refusal } from '../refusal';
import { type WeightSpan } from '../series/noisePath';
import { indexAtOrAfter, timeAt } from '../series/sampling';
import { type Series } from '../series/series';
import { printedUnit } from '../units/unit';

/** Readings on either side of a moment that tell the noise of the reading there. */
export const noiseReach = 100;

/** A value of a series at one moment, and the weights on its readings that make it. */
export interface Moment {
  value: number;
  weights: WeightSpan;
}

/**
 * The value of a series at one place of its abscissa: a reading, or the point of the straight line between its neighbours.
 * @throws Refusal where the series does not reach there, or a reading beside it is missing
 */
export function momentAt(series: Series, at: number): Moment {
  const { sampling, values, symbol, timeUnit } = series;
  const count = values.length;
  const unit = printedUnit(timeUnit);
  const shown = (place: number) => `${Number(place.toPrecision(5))}${unit === '' ? '' : ` ${unit}`}`;
  if (count === 0) throw new Refusal(`${symbol} has no reading.`);
  const [from, to] = [timeAt(sampling, 0), timeAt(sampling, count - 1)];
  // A reading that is meant need not be hit to the last bit.
  const spare = count > 1 ? (1e-6 * (to - from)) / (count - 1) : 0;
  if (!(at >= from - spare && at <= to + spare))
    throw new Refusal(
      `${symbol} was read from ${shown(from)} to ${shown(to)}. Choose a moment between them, not ${shown(at)}.`,
    );
  const right = Math.min(indexAtOrAfter(sampling, at - spare), count - 1);
  const isReading = right === 0 || Math.abs(timeAt(sampling, right) - at) <= spare;
  const left = right - 1;
  const share = isReading
    ? 1
    : (at - timeAt(sampling, left)) / (timeAt(sampling, right) - timeAt(sampling, left));
  const value = isReading ? values[right] : values[left] + share * (values[right] - values[left]);
  if (Number.isNaN(value))
    throw new Refusal(
      `The reading of ${symbol} at ${shown(at)} is missing or no measurement. Choose another moment.`,
    );
  return {
    value,
    weights: isReading
      ? { first: right, weights: Float64Array.of(1) }
      : { first: left, weights: Float64Array.of(1 - share, share) },
  };
}
