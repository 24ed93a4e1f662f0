import { type LinkedDevice } from '../link/device';

/** So many devices are enough for any class; more are a fault or an attack. */
const mostDevices = 500;
/** Those that wait to be let in have few places, so that they take none from the others. */
const mostWaiting = 20;
/** Who has waited so long makes room for another one. */
const longestWaitMilliseconds = 60_000;

/** Whether there is a place for one more device, and which one makes room for it. */
export interface Place {
  isFree: boolean;
  leaves: LinkedDevice | null;
}

/**
 * A place for one more: where need be that of one that has gone, or of one that has waited long.
 * @param isProven whether it came with the program, or has shown the key that it was given
 * @param now the moment, on the clock of `waitsSince`
 */
export function placeFor(devices: readonly LinkedDevice[], isProven: boolean, now: number): Place {
  const waiting = devices.filter((device) => device.waiting);
  if (isProven) {
    if (devices.length - waiting.length < mostDevices) return { isFree: true, leaves: null };
    const gone = devices.find((device) => !device.present && device.use === null) ?? null;
    return { isFree: gone !== null, leaves: gone };
  }
  if (waiting.length < mostWaiting) return { isFree: true, leaves: null };
  const oldest = waiting.reduce((a, b) => (b.waitsSince < a.waitsSince ? b : a));
  return now - oldest.waitsSince < longestWaitMilliseconds
    ? { isFree: false, leaves: null }
    : { isFree: true, leaves: oldest };
}
