import { Refusal } from '../refusal';
import { timesOf } from '../series/sampling';
import { type Series } from '../series/series';
import { conversionFactor } from '../units/conversion';
import { type Pace, targetAtAll, within } from './target';

export interface Closeness {
  /** Root of the mean squared difference, in the unit of the series. */
  rms: number;
  /** Mean difference, own less target. */
  mean: number;
  count: number;
}

/**
 * How closely a run followed its line: √(Σ (x − target)²/n) over the readings that the line reaches over; missing ones are
 * left out.
 * @throws Refusal where the line measures something else, or no reading is there
 */
export function closeness(series: Series, pace: Pace): Closeness {
  const factor = conversionFactor(pace.unit, series.unit);
  const { points } = pace;
  const [first, past] = within(series.sampling, points[0].t, points[points.length - 1].t);
  const times = timesOf(series.sampling).subarray(first, past);
  const target = targetAtAll(points, times);
  let [count, sum, squares] = [0, 0, 0];
  for (let i = 0; i < times.length; i++) {
    const difference = series.values[first + i] - factor * target[i];
    if (Number.isNaN(difference)) continue;
    count++;
    sum += difference;
    squares += difference * difference;
  }
  if (count === 0) throw new Refusal('This run has no readings where its line is.');
  return { rms: Math.sqrt(squares / count), mean: sum / count, count };
}
