import { type Device, type DeviceStream, type DiskState, frameKinds } from '@heuristor/contracts';
import { create } from 'zustand';
import { live } from '../api/live';

interface DeviceState {
  devices: Device[];
  /** Whether the live stream stands. */
  online: boolean;
  /** Whether the database answers, and whether readings wait for it. */
  storage: { away: boolean; waiting: boolean; disk: DiskState; free: number | null };
}

export const useDevices = create<DeviceState>(() => ({
  devices: [],
  online: false,
  storage: { away: false, waiting: false, disk: 'plenty', free: null },
}));

/** The last seconds of one channel, for its card; kept outside React, which need not hear of every reading. */
export interface Thread {
  times: number[];
  values: number[];
  /** Grows with every frame, so that nobody draws the same twice. */
  revision: number;
  /** Of events: how it stands, and since when on the device's clock; how long it last stood at 1. Null while that is not known. */
  standing: number | null;
  since: number;
  lasted: number | null;
}

/** What a card shows. */
export const threadSeconds = 10;
/** How far back views look that are open. */
const lookedBack = new Set<{ seconds: number }>();
const threads = new Map<string, Thread>();

/** Threads reach so far back, from now until the function that comes back is called. */
export function keepThreads(seconds: number): () => void {
  const view = { seconds };
  lookedBack.add(view);
  return () => lookedBack.delete(view);
}

export function threadOf(handle: number, channel: number): Thread {
  const key = `${handle}/${channel}`;
  let thread = threads.get(key);
  if (thread === undefined)
    threads.set(
      key,
      (thread = { times: [], values: [], revision: 0, standing: null, since: NaN, lasted: null }),
    );
  return thread;
}

/** All streams of all devices. */
export const streamsIn = (devices: readonly Device[]): DeviceStream[] =>
  devices.flatMap(({ streams }) => streams);

/** A new zero, sign or unit makes another quantity of what was drawn before; the thread begins anew. */
function forgetOutdatedThreads(before: readonly Device[], now: readonly Device[]): void {
  const known = streamsIn(before);
  for (const { handle, channels } of streamsIn(now)) {
    const old = known.find((stream) => stream.handle === handle);
    channels.forEach(({ scale, offset }, channel) => {
      const was = old?.channels[channel];
      if (was === undefined || (was.scale === scale && was.offset === offset)) return;
      const thread = threadOf(handle, channel);
      thread.times.length = thread.values.length = 0;
    });
  }
}

live.onState((online) => useDevices.setState({ online }));
live.onMessage((message) => {
  if (message.type === 'devices') {
    forgetOutdatedThreads(useDevices.getState().devices, message.devices);
    useDevices.setState({ devices: message.devices });
  }
  if (message.type === 'storage') {
    const { away, waiting, disk, free } = message;
    useDevices.setState({ storage: { away, waiting, disk, free } });
  }
});
interface Clock {
  rate: number;
  next: number;
  /** When sample 0 was taken, by the page's clock: the earliest that any arrival allows. */
  epoch: number;
}

const clocks = new Map<number, Clock>();

/** The device's clock, begun anew with every stream, so that a busy page does not bend the thread. */
function clockOf(handle: number, rate: number, firstIndex: number, count: number): Clock {
  let clock = clocks.get(handle);
  if (clock === undefined || clock.rate !== rate || firstIndex < clock.next)
    clocks.set(handle, (clock = { rate, next: 0, epoch: Infinity }));
  clock.next = firstIndex + count;
  clock.epoch = Math.min(clock.epoch, performance.now() / 1000 - (clock.next - 1) / rate);
  return clock;
}

live.onFrame(({ kind, subject, channels, values, firstIndex, times }) => {
  if (kind !== frameKinds.device) return;
  const stream = streamsIn(useDevices.getState().devices).find(({ handle }) => handle === subject);
  if (stream === undefined) return;
  const now = performance.now() / 1000;
  const kept = Math.max(threadSeconds, ...[...lookedBack].map(({ seconds }) => seconds));
  const count = values.length / channels;
  const { epoch } = clockOf(subject, stream.liveRate, firstIndex, count);
  for (let c = 0; c < channels; c++) {
    const thread = threadOf(subject, c);
    for (let i = 0; i < count; i++) {
      thread.times.push(
        times === null ? epoch + (firstIndex + i) / stream.liveRate : now - (times[count - 1] - times[i]),
      );
      thread.values.push(values[i * channels + c]);
    }
    thread.revision++;
    if (stream.sampling === 'events' && times !== null) follow(thread, values, times, channels, c);
    const old = thread.times.findIndex((time) => time > now - kept);
    // Dropped in lots, so that a fast sensor does not move its whole thread with every frame.
    if (old > thread.times.length / 4) {
      thread.times.splice(0, old);
      thread.values.splice(0, old);
    }
  }
});

/** Follows how something stands that switches, by the times of its own device. */
function follow(
  thread: Thread,
  values: Float64Array,
  times: Float64Array,
  channels: number,
  channel: number,
): void {
  for (let i = 0; i < times.length; i++) {
    const state = values[i * channels + channel];
    if (state === thread.standing && times[i] >= thread.since) continue;
    if (state === 0 && thread.standing === 1 && times[i] > thread.since)
      thread.lasted = times[i] - thread.since;
    thread.standing = state;
    thread.since = times[i];
  }
}
