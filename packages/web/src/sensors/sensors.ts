import {
  type Device,
  type DeviceChannel,
  type DeviceStream,
  type Plan,
  boundKeys,
} from '@heuristor/contracts';
import { parseUnit, strayFloor } from '@heuristor/core';

/** A quantity of the runs to come, and where it comes from. */
export interface Quantity {
  /** Its key in the runs. */
  key: string;
  device: Device;
  stream: DeviceStream;
  channel: DeviceChannel;
  /** Place of the channel in its stream. */
  index: number;
}

/** How far a reading of a channel stands off when it is thought a wrong echo; null for what has no echoes. */
export const strayFloorOf = ({ own, unit, noise }: DeviceChannel, rate: number): number | null =>
  strayFloor({ quantity: own.quantity, unit: parseUnit(unit), noise }, 1 / rate);

/** The devices that an investigation uses. */
export const usedBy = (devices: readonly Device[], investigation: string): Device[] =>
  devices.filter(({ use }) => use?.investigation === investigation);

/** What the next run will hold, under the keys that the recorder will give. */
export function quantitiesOf(devices: readonly Device[], plan: Plan, investigation: string): Quantity[] {
  const used = usedBy(devices, investigation)
    .filter(({ present, waiting }) => present && !waiting)
    .sort((a, b) => (a.code < b.code ? -1 : 1));
  const channels = used.flatMap((device) =>
    device.streams.flatMap((stream) =>
      stream.channels.flatMap((channel, index) => (channel.on ? [{ device, stream, channel, index }] : [])),
    ),
  );
  const { keys } = boundKeys(
    plan.bindings,
    channels.map(({ device, channel }) => ({
      code: device.code,
      channel: channel.key,
      symbol: channel.symbol,
    })),
    (code) => devices.some((device) => device.code === code && device.use?.investigation === investigation),
  );
  return channels.map((channel, i) => ({ key: keys[i], ...channel }));
}
