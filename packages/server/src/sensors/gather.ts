import { type SampleFrame } from '@heuristor/contracts';
import { type Bus } from '../bus';
import { Failure } from '../failure';
import { type LinkedStream } from '../link/device';

const patienceMilliseconds = 3000;

/**
 * The next so many readings of a stream, channel by channel, as the device sends them; one that is lost on the way is missing
 * (NaN) in its place.
 * @throws Failure where the device stops sending before it has sent them
 */
export async function gather(bus: Bus, stream: LinkedStream, wanted: number): Promise<Float64Array[]> {
  const { device, description, sending } = stream;
  const readings = description.channels.map(() => new Float64Array(wanted).fill(NaN));
  const seconds = wanted / (sending?.rate ?? stream.rate);
  let first: number | null = null;
  await new Promise<void>((resolve, reject) => {
    const finish = (failure?: Failure) => {
      clearTimeout(patience);
      bus.off('readings', hear);
      bus.off('gone', goes);
      if (failure === undefined) resolve();
      else reject(failure);
    };
    const stopped = () =>
      finish(
        new Failure('device-absent', `${device.code} stopped sending while it was listened to. Try again.`),
      );
    const patience = setTimeout(stopped, seconds * 1000 + patienceMilliseconds);
    const goes = (gone: typeof device) => {
      if (gone === device) stopped();
    };
    const hear = (from: LinkedStream, { values, channels, firstIndex, subject }: SampleFrame) => {
      if (from !== stream) return;
      // Begun anew, with another range or rate: what came before belongs to something else.
      if (subject !== sending?.number) {
        stopped();
        return;
      }
      first ??= firstIndex;
      for (let i = 0; i < values.length; i += channels) {
        const place = firstIndex - first + i / channels;
        if (place >= wanted) break;
        for (let c = 0; c < channels; c++) readings[c][place] = values[i + c];
      }
      if (firstIndex - first + values.length / channels >= wanted) finish();
    };
    bus.on('readings', hear);
    bus.on('gone', goes);
  });
  return readings;
}
