import { NoiseLevel } from './noiseLevel';
import { type WeightSpan, normSquared } from './noisePath';
import { timed, timesOf } from './sampling';
import { type Series } from './series';

/** Readings on either side that tell the noise of one. */
const reach = 100;

/**
 * The standard deviation that noise gives to one value of a series, followed through the filters that made it. It is estimated from
 * the readings beside it, not from sums over all of them.
 * @returns null where nothing is known of it
 */
export function noiseAt({ noise, uncertainties, timeUnit }: Series, index: number): number | null {
  const own = uncertainties?.[index];
  if (own !== undefined && own > 0) return own;
  if (noise === null) return null;
  const row = noise.row(index);
  if (row === null) return null;
  const level = levelBeside(noise.root.readings(), row, timeUnit.length > 0);
  const found = level * Math.sqrt(normSquared(row.weights));
  return found > 0 && Number.isFinite(found) ? found : null;
}

function levelBeside(
  { sampling, values }: ReturnType<NonNullable<Series['noise']>['root']['readings']>,
  { first, weights }: WeightSpan,
  inTime: boolean,
): number {
  const [from, to] = [Math.max(first - reach, 0), Math.min(first + weights.length + reach, values.length)];
  const beside = values.subarray(from, to);
  const times = timesOf(sampling).subarray(from, to);
  const level = new NoiseLevel(() => ({ sampling: timed(times), values: beside }), null, inTime);
  return level.between(0, beside.length).standardDeviation;
}
