import { type Channel } from '@heuristor/contracts';
import { bandwidthOf, parseUnit, strayFloor, withoutStrays } from '@heuristor/core';

/** What a channel of a run showed. */
export interface SeenReadings {
  key: string;
  deviceCode: string | null;
  /** Ends of its readings as the device sent them, before zero, sign and unit; the greatest is below the least where there is none. */
  least: number;
  greatest: number;
  /** Hertz below which nearly all of its motion lies; null where nothing moves, or the readings are no regular ones. */
  band: number | null;
}

/**
 * What a channel of a run showed: its ends as the device sent them, and how fast it moved.
 * @param values readings as they are stored, in the unit of the channel
 */
export function seenOf(channel: Channel, values: Float64Array): SeenReadings {
  const { key, deviceCode, applied, low, high } = channel;
  const [scale, offset] = [applied?.scale ?? 1, applied?.offset ?? 0];
  let [least, greatest] = [Infinity, -Infinity];
  for (const value of values) {
    const sent = (value - offset) / scale;
    if (sent < least) least = sent;
    if (sent > greatest) greatest = sent;
  }
  // An echo that was lost, or came from something else, is no motion.
  const good = values.map((value) =>
    value > (low ?? -Infinity) && value < (high ?? Infinity) ? value : NaN,
  );
  return { key, deviceCode, least, greatest, band: bandOf(channel, good) };
}

function bandOf(channel: Channel, values: Float64Array): number | null {
  if (channel.sampling.kind !== 'regular') return null;
  const { interval } = channel.sampling;
  const noise = channel.noise ?? 0;
  const floor = strayFloor({ quantity: channel.quantity, unit: parseUnit(channel.unit), noise }, interval);
  const good = withoutStrays(values, floor);
  // Two stretches of a power of two readings, the first and the last, hold all of a run.
  const size = 2 ** Math.floor(Math.log2(good.length));
  // The window spreads a single tone over two lines of the spectrum to either side.
  const spread = 2 / (size * interval);
  const bands = [good.subarray(0, size), good.subarray(good.length - size)]
    .map((part) => bandwidthOf(part, 1 / interval, Math.max(noise, channel.resolution)))
    .filter((band) => band !== null)
    .map((band) => Math.max(band - spread, spread / 2));
  return bands.length === 0 ? null : Math.max(...bands);
}
