import { Failure } from '../failure';
import { type LinkedDevice } from '../link/device';
import { type InRuns } from '../presence/inRuns';

/** @throws Failure while a run is recording a device, or while it waits to be let in */
export function checkChangeable(inRuns: InRuns, device: LinkedDevice): void {
  const reason = inRuns.whyBusy(device.code);
  if (reason !== null) throw new Failure('already-recording', reason);
  if (device.waiting)
    throw new Failure(
      'device-absent',
      `${device.code} is on another machine and not let in yet. Let it in first.`,
    );
}
