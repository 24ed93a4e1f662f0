import { type Device, frameKinds } from '@heuristor/contracts';
import { create } from 'zustand';
import { live } from '../api/live';

interface DeviceState {
  devices: Device[];
  /** Whether the live stream stands. */
  online: boolean;
  storageWaiting: boolean;
}

export const useDevices = create<DeviceState>(() => ({ devices: [], online: false, storageWaiting: false }));

/** The last ten seconds of one channel, for its card; kept outside React, which need not hear of every reading. */
export interface Thread {
  times: number[];
  values: number[];
}

const threadSeconds = 10;
const threads = new Map<string, Thread>();

export function threadOf(handle: number, channel: number): Thread {
  const key = `${handle}/${channel}`;
  let thread = threads.get(key);
  if (thread === undefined) threads.set(key, (thread = { times: [], values: [] }));
  return thread;
}

live.onState((online) => useDevices.setState({ online }));
live.onMessage((message) => {
  if (message.type === 'devices') useDevices.setState({ devices: message.devices });
  if (message.type === 'storage') useDevices.setState({ storageWaiting: message.waiting });
});
live.onFrame(({ kind, subject, channels, values }) => {
  if (kind !== frameKinds.device) return;
  const device = useDevices.getState().devices.find(({ handle }) => handle === subject);
  if (device === undefined) return;
  const now = performance.now() / 1000;
  const count = values.length / channels;
  for (let c = 0; c < channels; c++) {
    const thread = threadOf(subject, c);
    for (let i = 0; i < count; i++) {
      thread.times.push(now - (count - 1 - i) / device.rate);
      thread.values.push(values[i * channels + c]);
    }
    const old = thread.times.findIndex((time) => time > now - threadSeconds);
    if (old > 0) {
      thread.times.splice(0, old);
      thread.values.splice(0, old);
    }
  }
});
