import { normSquared } from './noisePath';
import { type Series } from './series';

/** Readings on either side that tell the noise of one. */
const reach = 100;

/**
 * The standard deviation that noise gives to one value of a series, followed through the filters that made it.
 * @returns null where nothing is known of it
 */
export function noiseAt({ noise, uncertainties }: Series, index: number): number | null {
  const own = uncertainties?.[index];
  if (own !== undefined && own > 0) return own;
  if (noise === null) return null;
  const row = noise.row(index);
  if (row === null) return null;
  const { standardDeviation } = noise.root.level.between(
    row.first - reach,
    row.first + row.weights.length + reach,
  );
  const found = standardDeviation * Math.sqrt(normSquared(row.weights));
  return found > 0 && Number.isFinite(found) ? found : null;
}
