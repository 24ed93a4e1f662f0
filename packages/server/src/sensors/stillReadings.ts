import { type LinkChannel, type LinkRange, type Zero } from '@heuristor/contracts';
import { parseUnit, strayFloor, uncertaintyOfRest, withoutStrays } from '@heuristor/core';
import { type Bus } from '../bus';
import { Failure } from '../failure';
import { type LinkedDevice, type LinkedStream } from '../link/device';
import { gather } from './gather';

const averagingSeconds = 1;
/** A slow sensor is listened to until it has sent this many readings, or, where that would take long, not at all. */
const fewestReadings = 5;
const longestWaitSeconds = 20;
/** A still target scatters by the sensor's own noise; five times that is motion. Common practice, no source. */
const stillFactor = 5;

/** A second of readings of a channel that is to be still, as the device sent them; pinned ones and wrong echoes are left out. */
export interface Still {
  channel: LinkChannel;
  range: LinkRange;
  mean: number;
  spread: number;
  count: number;
  wanted: number;
}

export const meanAndSpread = (values: readonly number[]): { mean: number; spread: number } => {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  const squares = values.reduce((sum, value) => sum + (value - mean) ** 2, 0);
  return { mean, spread: values.length < 2 ? 0 : Math.sqrt(squares / (values.length - 1)) };
};

/**
 * Listens to a device for a second.
 * @param keys channels that are wanted; all that are on and measure at a rate, where nothing is said
 * @throws Failure where nothing comes, or where a channel is not there
 */
export async function stillReadings(
  bus: Bus,
  device: LinkedDevice,
  keys?: readonly string[],
): Promise<Still[]> {
  const wanted = device.streams.filter(
    (stream) =>
      stream.sending !== null &&
      stream.description.sampling === 'regular' &&
      stream.views.some(({ key, on }) => (keys === undefined ? on : keys.includes(key))),
  );
  if (!device.present || wanted.length === 0)
    throw new Failure(
      'device-absent',
      `${device.code} sends nothing that could be zeroed. Connect it and wait for its reading first.`,
    );
  const all = await Promise.all(wanted.map((stream) => listen(bus, stream)));
  return all.flat().filter(({ channel }) => {
    const view = device.streams.flatMap(({ views }) => views).find(({ key }) => key === channel.key);
    return keys === undefined ? view?.on === true : keys.includes(channel.key);
  });
}

async function listen(bus: Bus, stream: LinkedStream): Promise<Still[]> {
  const { device, description, views, rate } = stream;
  const wanted = Math.max(Math.ceil(averagingSeconds * rate), fewestReadings);
  const seconds = wanted / rate;
  if (seconds > longestWaitSeconds)
    throw new Failure(
      'impossible-rate',
      `At this rate ${device.code} would need ${Math.round(seconds)} s to be zeroed. Set a faster rate, zero it, and set the rate back.`,
    );
  const readings = await gather(bus, stream, wanted);
  return description.channels.map((channel, c) => {
    const { range } = views[c];
    const floor = strayFloor({ ...channel, unit: parseUnit(channel.unit), noise: range.noise }, 1 / rate);
    const good = [...withoutStrays(readings[c], floor)].filter(
      (value) => value > range.low && value < range.high,
    );
    return { channel, range, ...meanAndSpread(good), count: good.length, wanted };
  });
}

/** Still readings as zeros. @throws Failure where the target moves, or where a sensor only sees its limits */
export function zerosOf(device: LinkedDevice, readings: readonly Still[]): Record<string, Zero> {
  const at = new Date().toISOString();
  return Object.fromEntries(
    readings.map(({ channel: { key, symbol, unit }, range, mean, spread, count, wanted }) => {
      if (count < wanted / 2)
        throw new Failure(
          'target-moves',
          `${device.code} sees nothing within its range of ${range.low} to ${range.high} ${unit}. Put the target in front of it and zero again.`,
        );
      if (range.noise > 0 && spread > stillFactor * Math.max(range.noise, range.resolution))
        throw new Failure(
          'target-moves',
          `The target moves: ${symbol} spread by ${spread.toPrecision(2)} ${unit} in a second, and a still one spreads by about ${range.noise} ${unit}. Hold it still and zero again.`,
        );
      const uncertainty = uncertaintyOfRest(count > 1 ? spread : range.noise, count, range.resolution);
      return [key, { offset: mean, spread, uncertainty, at }];
    }),
  );
}
