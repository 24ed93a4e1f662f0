import { type Plan, type SampleFrame } from '@heuristor/contracts';
import { Failure } from '../failure';
import { type LinkedDevice } from '../link/device';
import { boundKeys } from './bindings';
import { type RecorderEvent, type Source } from './state';

/** Whether readings of its stream have come. */
export const isSending = ({ stream }: LinkedDevice): boolean =>
  stream !== null && stream.clock.epoch < Infinity;

/** What a frame of a device is to a recording; null where it belongs to a stream that is over. */
export function readingsOf(device: LinkedDevice, frame: SampleFrame): RecorderEvent | null {
  const { stream } = device;
  if (stream === null || frame.subject !== stream.number) return null;
  return {
    kind: 'readings',
    code: device.code,
    stream: stream.number,
    epoch: stream.clock.epoch,
    firstIndex: frame.firstIndex,
    channels: frame.channels,
    values: frame.values,
    times: frame.times,
  };
}

/** What takes part in a run, and the plan with its quantities bound to channels. */
export function sourcesOf(
  devices: readonly LinkedDevice[],
  plan: Plan,
  isConnected: (code: string) => boolean,
): { sources: Source[]; plan: Plan } {
  const offered = devices.flatMap(({ code, hello }) =>
    hello.channels.map(({ key, symbol }) => ({ code, channel: key, symbol })),
  );
  const { keys, bindings } = boundKeys(plan.bindings, offered, isConnected);
  let place = 0;
  const sources = devices.map((device): Source => {
    const { stream, hello, code } = device;
    if (stream === null) throw new Failure('device-absent', 'A sensor went away. Try again.');
    return {
      code,
      stream: stream.number,
      rate: stream.rate,
      sampling: hello.sampling,
      epoch: stream.clock.epoch,
      tracks: hello.channels.map((channel, c) => {
        const key = keys[place++];
        return {
          channelKey: channel.key,
          channel: c,
          fields: {
            key,
            symbol: key,
            quantity: channel.quantity,
            unit: channel.unit,
            timeUnit: 's',
            ...device.calibratedRange(c),
            noise: channel.noise > 0 ? channel.noise : null,
            deviceCode: code,
            zero: device.zeroOf(c),
            reversed: device.settings.reversed,
          },
        };
      }),
    };
  });
  return { sources, plan: { ...plan, bindings } };
}
