import { type Series, readingsSeries } from '../series/series';
import { type Unit } from '../units/unit';

/** The readings of one channel of a run, as recorded. A reading that never came is NaN. */
export interface ChannelData {
  key: string;
  symbol: string;
  quantity: string;
  unit: Unit;
  times: Float64Array;
  /** What the abscissa is: time, or the number of the reading. */
  timeUnit: Unit;
  interval: number | null;
  values: Float64Array;
  /** Limits of the sensor: a reading at or beyond one of them is pinned and no measurement. */
  low: number | null;
  high: number | null;
}

/** One run, as the evaluation sees it. */
export interface RunData {
  id: string;
  channels: ChannelData[];
}

/** The channel as a series, pinned readings taken out. */
export function channelSeries(channel: ChannelData): Series {
  const { low, high, values } = channel;
  const pinned = (value: number) => (high !== null && value >= high) || (low !== null && value <= low);
  const clean = values.some(pinned) ? values.map((value) => (pinned(value) ? NaN : value)) : values;
  return readingsSeries({
    symbol: channel.symbol,
    quantity: channel.quantity,
    unit: channel.unit,
    times: channel.times,
    timeUnit: channel.timeUnit,
    values: clean,
    interval: channel.interval,
  });
}

/** What the abscissa is called: "t" where it is time, else "reading". */
export const abscissaName = (timeUnit: Unit): string => (timeUnit.length > 0 ? 't' : 'reading');

/** The abscissa of a series as a series of its own. */
export function abscissaOf(series: Series): Series {
  const isTime = series.timeUnit.length > 0;
  return readingsSeries({
    symbol: abscissaName(series.timeUnit),
    quantity: isTime ? 'time' : 'reading number',
    unit: series.timeUnit,
    times: series.times,
    timeUnit: series.timeUnit,
    values: series.times,
    interval: series.interval,
  });
}
