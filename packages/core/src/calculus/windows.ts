import { Refusal } from '../refusal';
import { intervalOf, countOf, timesOf } from '../series/sampling';
import { type Series } from '../series/series';

/**
 * The odd number of readings that a window of some length holds: the nearest one, of irregular times by their median step.
 * @param length in the unit of the abscissa
 * @throws Refusal where it holds fewer than three
 */
export function readingsIn({ sampling, symbol }: Series, length: number): number {
  const step = intervalOf(sampling) ?? medianStep(timesOf(sampling), countOf(sampling));
  const points = 2 * Math.round(length / step / 2) + 1;
  if (!(length > 0 && points >= 3))
    throw new Refusal(
      `A window of ${length} s holds less than three readings of ${symbol}, which come every ${Number(step.toPrecision(3))} s. Make it longer.`,
    );
  return points;
}

function medianStep(times: Float64Array, count: number): number {
  const steps = Float64Array.from(
    { length: Math.max(count - 1, 0) },
    (_, i) => times[i + 1] - times[i],
  ).sort();
  return steps.length === 0 ? NaN : steps[steps.length >> 1];
}
