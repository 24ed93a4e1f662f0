import { type Readings, type TrackPlan } from './track';

/** Readings of one channel with their moments, in ms of the server's clock, and values as they are stored. */
export interface Heard {
  moments: Float64Array;
  values: Float64Array;
}

/** What a frame says of a channel; a pinned reading is none (NaN). */
export function heardOf(
  { channel, scale, offset, fields }: TrackPlan,
  rate: number,
  { values, channels, times, epoch, firstIndex }: Readings,
): Heard {
  const count = values.length / channels;
  const low = fields.low ?? -Infinity;
  const high = fields.high ?? Infinity;
  const heard = { moments: new Float64Array(count), values: new Float64Array(count) };
  for (let i = 0; i < count; i++) {
    heard.moments[i] = epoch + (times === null ? (firstIndex + i) / rate : times[i]) * 1000;
    const value = scale * values[i * channels + channel] + offset;
    heard.values[i] = value > low && value < high ? value : NaN;
  }
  return heard;
}
