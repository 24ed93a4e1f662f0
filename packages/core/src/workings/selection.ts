import { Refusal } from '../refusal';
import { type FittedPoints } from '../fitting/covariance';
import { type FitPoints } from '../fitting/relation';
import { type Series, indexAfter, indexAtOrAfter, valuesAtTimesOf } from '../series/series';
import { type Context } from './context';
import { type RegionLine, type SeriesRef } from './lines';

/** The readings of a series that lie in a region, paired with another series. */
export interface Selection extends FitPoints, FittedPoints {
  /** Readings in the region that are missing in either series. */
  missing: number;
}

/** Index range of a series in a region along the abscissa; the whole series without a region. */
export function rangeIn(series: Series, region: RegionLine | null): [first: number, end: number] {
  if (region === null || region.along !== 't') return [0, series.times.length];
  return [indexAtOrAfter(series.times, region.start), indexAfter(series.times, region.end)];
}

/** What to say of readings left out, in a list that is empty where none were. */
export function missingNote(missing: number, count: number): string[] {
  if (missing === 0) return [];
  const [are, were] = missing === 1 ? ['is', 'was'] : ['are', 'were'];
  return [
    `${missing} of ${missing + count} readings ${are} missing or at the sensor’s limit and ${were} left out.`,
  ];
}

/**
 * Picks the readings of `of` inside the region and pairs them with `against`.
 * @throws Refusal where the region holds no reading
 */
export function select(
  context: Context,
  of: Series,
  against: SeriesRef,
  region: RegionLine | null,
): Selection {
  const x = valuesAtTimesOf(context.series(against, of), of);
  const along =
    region === null || region.along === 't' ? null : valuesAtTimesOf(context.series(region.along, of), of);
  const [first, end] = rangeIn(of, region);
  const indices = new Int32Array(Math.max(end - first, 0));
  let count = 0;
  let missing = 0;
  for (let i = first; i < end; i++) {
    if (along !== null && region !== null && !(along[i] >= region.start && along[i] <= region.end)) continue;
    if (Number.isNaN(of.values[i]) || Number.isNaN(x[i])) missing++;
    else indices[count++] = i;
  }
  const chosen = indices.slice(0, count);
  if (count === 0)
    throw new Refusal(
      missing > 0
        ? 'All readings in this region are missing or at the sensor’s limit. Choose another region.'
        : 'There is no reading in this region. Move it to where the trace is.',
    );
  const pick = (values: Float64Array) => {
    const out = new Float64Array(count);
    for (let i = 0; i < count; i++) out[i] = values[chosen[i]];
    return out;
  };
  return {
    x: pick(x),
    y: pick(of.values),
    indices: chosen,
    missing,
    seriesLength: of.values.length,
    noise: of.noise,
  };
}
