import {
  type Applied,
  type Calibration,
  type LinkChannel,
  type LinkRange,
  type Setup,
  type Zero,
} from '@heuristor/contracts';
import { conversionOf, parseUnit } from '@heuristor/core';

/** A channel as it is shown and recorded: shown = scale × sent + offset. */
export interface ChannelView {
  key: string;
  on: boolean;
  quantity: string;
  symbol: string;
  unit: string;
  range: LinkRange;
  reversed: boolean;
  zeroAtStart: boolean;
  scale: number;
  offset: number;
  low: number;
  high: number;
  noise: number;
  resolution: number;
}

/**
 * What an investigation's set-up and a device's calibration make of a channel. In this order: the zero is taken off, two typed
 * points give the gain, the sign is turned, the unit is changed.
 * @param zero in place of the one that is kept with the device
 */
export function viewOf(
  channel: LinkChannel,
  setup: Setup,
  calibration: Calibration,
  zero: Zero | undefined = calibration.zeros[channel.key],
): ChannelView {
  const { on = true, reversed = false, zeroAtStart = false, ...chosen } = setup.channels[channel.key] ?? {};
  const range = channel.ranges.find(({ key }) => key === chosen.range) ?? channel.ranges[0];
  const unit = chosen.unit ?? channel.unit;
  const own = parseUnit(channel.unit);
  // Of a device that knows no unit, what is given is a label and changes no number.
  const { factor, offset: shift } =
    own.length === 0 ? { factor: 1, offset: 0 } : conversionOf(own, parseUnit(unit));
  const scale = (reversed ? -1 : 1) * (calibration.scales[channel.key]?.gain ?? 1) * factor;
  const offset = shift - scale * (zero?.offset ?? 0);
  const ends = [scale * range.low + offset, scale * range.high + offset];
  return {
    key: channel.key,
    on,
    quantity: chosen.quantity ?? channel.quantity,
    symbol: chosen.symbol ?? channel.symbol,
    unit,
    range,
    reversed,
    zeroAtStart,
    scale,
    // A plain 0, never −0, which would be stored as such.
    offset: offset + 0,
    low: Math.min(...ends),
    high: Math.max(...ends),
    noise: Math.abs(scale) * range.noise,
    resolution: Math.abs(scale) * range.resolution,
  };
}

/** What is kept with a run of how a channel came about. */
export const appliedOf = (
  { key, scale, offset, range, reversed, zeroAtStart }: ChannelView,
  { zeros, scales, numbers }: Calibration,
  zero: Zero | null = zeros[key] ?? null,
): Applied => ({
  scale,
  offset,
  range: range.key,
  zero,
  twoPoint: scales[key] ?? null,
  reversed,
  zeroedAtStart: zeroAtStart,
  numbers,
});
