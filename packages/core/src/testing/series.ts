import { type Series, readingsSeries } from '../series/series';
import { parseUnit } from '../units/unit';

/** A position series at regular times, in metres over seconds. */
export function positionSeries(count: number, interval: number, position: (time: number) => number): Series {
  const times = Float64Array.from({ length: count }, (_, i) => i * interval);
  return readingsSeries({
    symbol: 'x',
    quantity: 'position',
    unit: parseUnit('m'),
    times,
    timeUnit: parseUnit('s'),
    values: times.map(position),
    interval,
  });
}
