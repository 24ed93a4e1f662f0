import { type Plan, type SampleFrame, boundKeys, mostQuantities } from '@heuristor/contracts';
import { Failure } from '../failure';
import { appliedOf } from '../link/channelView';
import { type LinkedDevice, type LinkedStream } from '../link/device';
import { type Readings, type Source, type TrackPlan } from './track';
import { restless, watchRest } from './stillness';

/** A sensor that has just been asked to send may take so long to its first reading before a run begins without it. */
const firstReadingMilliseconds = 1000;
const lookMilliseconds = 20;

/** What a frame of a stream is to a recording; null where it belongs to a start that is over. */
export function readingsOf({ device, sending }: LinkedStream, frame: SampleFrame): Readings | null {
  if (sending === null || frame.subject !== sending.number) return null;
  return {
    kind: 'readings',
    code: device.code,
    stream: sending.number,
    epoch: sending.clock.epoch,
    firstIndex: frame.firstIndex,
    channels: frame.channels,
    values: frame.values,
    times: frame.times,
  };
}

/** Streams that can take part in a run: those that send, and those of events, which may be silent for long. */
export const streamsOf = (devices: readonly LinkedDevice[]): LinkedStream[] =>
  devices.flatMap(({ streams }) =>
    streams.filter(
      (stream) =>
        stream.isOn &&
        stream.sending !== null &&
        (stream.isSending || stream.description.sampling !== 'regular'),
    ),
  );

/** Whether a device is to send at a rate and has not yet begun to. */
const isBeginning = ({ streams }: LinkedDevice): boolean =>
  streams.some(
    (stream) => stream.sending !== null && stream.description.sampling === 'regular' && !stream.isSending,
  );

/** Waits for sensors that send at a rate but have not yet begun to; answers whether there were any. */
export async function firstReadings(devices: () => readonly LinkedDevice[]): Promise<boolean> {
  const until = performance.now() + firstReadingMilliseconds;
  let hasWaited = false;
  while (devices().some(isBeginning) && performance.now() < until) {
    hasWaited = true;
    await new Promise((resolve) => setTimeout(resolve, lookMilliseconds));
  }
  return hasWaited;
}

/** What takes part in a run, and the plan with its quantities bound to channels. */
export function sourcesOf(
  devices: readonly LinkedDevice[],
  plan: Plan,
  isUsed: (code: string) => boolean,
): { sources: Source[]; plan: Plan } {
  const parts = streamsOf(devices).map((stream) => ({
    stream,
    views: stream.views.flatMap((view, channel) => (view.on ? [{ view, channel }] : [])),
  }));
  const offered = parts.flatMap(({ stream, views }) =>
    views.map(({ view }) => ({ code: stream.device.code, channel: view.key, symbol: view.symbol })),
  );
  if (offered.length > mostQuantities)
    throw new Failure(
      'invalid-request',
      `A run has at most ${mostQuantities} quantities, and ${offered.length} are switched on. Switch some off in the set-up of their sensors.`,
    );
  const { keys, bindings } = boundKeys(plan.bindings, offered, isUsed);
  let place = 0;
  const sources = parts.flatMap(({ stream, views }): Source[] => {
    const { device, sending, description } = stream;
    if (sending === null) return [];
    const epoch = sending.clock.epoch < Infinity ? sending.clock.epoch : sending.clock.asked;
    const tracks = views.map(({ view, channel }): TrackPlan => {
      const key = keys[place++];
      const applied = appliedOf(view, device.calibration);
      const { scale, offset, range, zeroAtStart } = view;
      return {
        channelKey: view.key,
        channel,
        scale,
        offset,
        still:
          zeroAtStart && description.sampling === 'regular'
            ? stream.ring
                .kept()
                .reduce(
                  (still, { frame, at }) => watchRest(still, frame, channel, at),
                  restless(range.noise, range.low, range.high, range.resolution),
                )
            : null,
        fields: {
          key,
          // Two sensors of one kind are told apart by the number that their keys have.
          symbol: key.startsWith(view.symbol) ? key : view.symbol,
          quantity: view.quantity,
          unit: view.unit,
          timeUnit: 's',
          low: description.sampling === 'events' ? null : view.low,
          high: description.sampling === 'events' ? null : view.high,
          noise: view.noise > 0 ? view.noise : null,
          resolution: view.resolution,
          edges: description.edges ?? null,
          deviceCode: device.code,
          applied,
        },
      };
    });
    return [
      {
        code: device.code,
        stream: sending.number,
        rate: sending.rate,
        sampling: description.sampling,
        epoch,
        tracks,
      },
    ];
  });
  return { sources, plan: { ...plan, bindings } };
}
