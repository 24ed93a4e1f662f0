import { NoiseLevel } from '../series/noiseLevel';
import { type ReadingsRoot } from '../series/noisePath';
import { type Sampling, countOf, regular, timeAt } from '../series/sampling';
import { type Series, readingsSeries } from '../series/series';
import { parseUnit } from '../units/unit';

/** Readings as a series of metres over seconds, with a root of noise of their own. */
export function seriesOf(
  sampling: Sampling,
  values: Float64Array,
  { symbol = 'x', unit = 'm', key = symbol }: { symbol?: string; unit?: string; key?: string } = {},
): Series {
  const readings = () => ({ sampling, values });
  const root: ReadingsRoot = {
    key,
    label: `readings of ${symbol}`,
    level: new NoiseLevel(readings, null),
    readings,
  };
  return readingsSeries({
    symbol,
    quantity: 'position',
    unit: parseUnit(unit),
    timeUnit: parseUnit('s'),
    sampling,
    values,
    root,
  });
}

/** A position series at regular times, in metres over seconds. */
export function positionSeries(count: number, interval: number, position: (time: number) => number): Series {
  return sampledSeries(regular(0, interval, count), position);
}

export function sampledSeries(sampling: Sampling, position: (time: number) => number): Series {
  const values = Float64Array.from({ length: countOf(sampling) }, (_, i) => position(timeAt(sampling, i)));
  return seriesOf(sampling, values);
}
