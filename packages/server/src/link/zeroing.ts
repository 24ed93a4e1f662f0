import { type SampleFrame, type Zero } from '@heuristor/contracts';
import { Failure } from '../failure';
import { type LinkedDevice } from './device';
import { type DeviceRegistry } from './registry';

const averagingSeconds = 1;
/** A slow sensor is listened to until it has sent this many readings. */
const fewestReadings = 5;
/** A still target scatters by the sensor's own noise; five times that is motion. Common practice, no source. */
const stillFactor = 5;

/**
 * Listens to a device for a second and averages each channel; pinned readings are left out.
 * @throws Failure where the target moves, where the sensor only sees its limits, or where nothing comes
 */
export async function zeroReadings(
  registry: DeviceRegistry,
  device: LinkedDevice,
): Promise<Record<string, Zero>> {
  const wanted = Math.max(Math.ceil(averagingSeconds * device.rate), fewestReadings);
  const readings: number[][] = device.hello.channels.map(() => []);
  let came = 0;
  await new Promise<void>((resolve, reject) => {
    const patience = setTimeout(
      () =>
        finish(
          new Failure(
            'device-absent',
            `${device.code} stopped sending while it was being zeroed. Try again.`,
          ),
        ),
      (wanted / device.rate) * 1000 + 3000,
    );
    const listen = (from: LinkedDevice, { values, channels }: SampleFrame) => {
      if (from !== device) return;
      for (let i = 0; i < values.length && came < wanted; i += channels, came++)
        for (let c = 0; c < channels; c++) readings[c].push(values[i + c]);
      if (came >= wanted) finish();
    };
    const finish = (failure?: Failure) => {
      clearTimeout(patience);
      registry.off('samples', listen);
      if (failure === undefined) resolve();
      else reject(failure);
    };
    registry.on('samples', listen);
  });
  const at = new Date().toISOString();
  return Object.fromEntries(
    device.hello.channels.map(({ key, range, noise, unit, symbol }, c) => {
      const good = readings[c].filter((value) => value > range.low && value < range.high);
      if (good.length < wanted / 2)
        throw new Failure(
          'target-moves',
          `${device.code} sees nothing within its range of ${range.low} to ${range.high} ${unit}. Put the target in front of it and zero again.`,
        );
      const offset = good.reduce((sum, value) => sum + value, 0) / good.length;
      const spread = Math.sqrt(
        good.reduce((sum, value) => sum + (value - offset) ** 2, 0) / (good.length - 1),
      );
      if (noise > 0 && spread > stillFactor * noise)
        throw new Failure(
          'target-moves',
          `The target moves: ${symbol} spread by ${spread.toPrecision(2)} ${unit} in a second, and a still one spreads by about ${noise} ${unit}. Hold it still and zero again.`,
        );
      return [key, { offset, spread, at }];
    }),
  );
}
