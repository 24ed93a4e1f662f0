import { type DeviceDescription, type Run } from '@heuristor/contracts';
import { type Deferred, deferred } from '../deferred';
import { type LinkedDevice, type LinkedStream, canRun, sameChannel } from '../link/device';
import { type Place, type RecorderEvent, type RecorderState } from './state';
import { type TrackPlan } from './track';

/** The recording of one investigation, and what of it is known to the database. */
export interface Recording {
  investigationId: string;
  state: RecorderState;
  run: Run | null;
  /** What the devices said when the run began, to hold their return against. */
  known: Map<string, DeviceDescription>;
  /** Which run of the row this is, from 1. */
  number: number;
  /** Whether a request waits for it to be entered, and can say that it was not. */
  isAwaited: boolean;
  /** A person has ended it: no other one follows. */
  isStopped: boolean;
  /** What the screens were told of its status last. */
  lastStatus: string;
  entered: Deferred<Run>;
  ended: Deferred<Run>;
  marked: { dirty: boolean; timer: NodeJS.Timeout | null };
  /** Whether readings had to be let go because too many waited for the database. */
  hasOverflowed: boolean;
}

export function newRecording(investigationId: string, number: number): Recording {
  const recording: Recording = {
    investigationId,
    state: { phase: 'idle' },
    run: null,
    known: new Map(),
    number,
    isAwaited: true,
    isStopped: false,
    lastStatus: '',
    entered: deferred(),
    ended: deferred(),
    marked: { dirty: false, timer: null },
    hasOverflowed: false,
  };
  // Nobody may be waiting for these when they fail.
  recording.entered.promise.catch(() => undefined);
  recording.ended.promise.catch(() => undefined);
  return recording;
}

/** The channels that a recording takes from a device, or waits to take, and their rates. */
export function channelsFrom(
  code: string,
  { state }: Recording,
): (Pick<TrackPlan, 'channelKey'> & { rate: number })[] {
  if ('tracks' in state) return state.tracks.filter((track) => track.code === code);
  if (state.phase !== 'waiting') return [];
  return state.sources
    .filter((source) => source.code === code)
    .flatMap(({ rate, tracks }) => tracks.map(({ channelKey }) => ({ channelKey, rate })));
}

/** Where the channels of a device that came back are now, or null where it is not the one that the run knows. */
export function placesOf(
  device: LinkedDevice,
  known: DeviceDescription,
  mine: readonly (Pick<TrackPlan, 'channelKey'> & { rate: number })[],
): Extract<RecorderEvent, { kind: 'returned' }>['places'] {
  const places: Record<string, Place> = {};
  for (const { channelKey, rate } of mine) {
    const before = known.streams.find(({ channels }) => channels.some(({ key }) => key === channelKey));
    const stream = device.streams.find(({ description }) =>
      description.channels.some(({ key }) => key === channelKey),
    );
    if (before === undefined || stream?.sending == null) return null;
    const { channels, sampling } = stream.description;
    const channel = channels.findIndex(({ key }) => key === channelKey);
    const was = before.channels.find(({ key }) => key === channelKey);
    const isSame =
      was !== undefined &&
      sameChannel(was, channels[channel]) &&
      sampling === before.sampling &&
      (sampling !== 'regular' || canRun(stream.description, rate));
    if (!isSame) return null;
    places[channelKey] = {
      stream: stream.sending.number,
      channel,
      isWhole: stream.wentOn?.isWhole === true,
    };
  }
  return places;
}

/** Why a device must not be changed right now, or null. */
export function busyWith(code: string, recordings: Iterable<Recording>): string | null {
  for (const { run, state } of recordings) {
    if ('tracks' in state && state.tracks.some((track) => track.code === code))
      return `${code} is recording ${run?.name ?? 'a run'}. Stop the run before changing the sensor.`;
    if (state.phase === 'waiting' && state.sources.some((source) => source.code === code))
      return `${code} takes part in a run that waits to begin. Cancel it before changing the sensor.`;
  }
  return null;
}

/** Why an investigation cannot be removed now. */
export const underWay = ({ state }: Recording): string =>
  state.phase === 'waiting'
    ? 'A run of this investigation waits to begin. Cancel it before removing the investigation.'
    : 'A run of this investigation is being recorded. Stop it before removing the investigation.';

/** The rate at which a run is recording a stream or waits to, or null. */
export function rateInRuns(
  { device, description }: LinkedStream,
  recordings: Iterable<Recording>,
): number | null {
  const keys = description.channels.map(({ key }) => key);
  for (const { state } of recordings) {
    if (state.phase === 'recording' || state.phase === 'armed')
      for (const { code, channelKey, rate } of state.tracks)
        if (code === device.code && keys.includes(channelKey)) return rate;
    if (state.phase === 'waiting')
      for (const { code, tracks, rate } of state.sources)
        if (code === device.code && tracks.some(({ channelKey }) => keys.includes(channelKey))) return rate;
  }
  return null;
}
