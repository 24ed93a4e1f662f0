import { Failure } from '../failure';
import { type LinkedDevice } from '../link/device';
import { type Presence } from '../presence/presence';

/** What Heuristor sets at devices, such as the frequency of a driver. */
export class Outputs {
  private readonly presence: Presence;

  constructor({ presence }: { presence: Presence }) {
    this.presence = presence;
  }

  /** @throws Failure for what a device has not, or cannot be set to */
  set(code: string, key: string, value: number): void {
    const device = this.check(code, key, value);
    device.send?.({ type: 'output', key, value });
    this.presence.state(device, {}, { [key]: value });
  }

  /** What an output stands at; undefined where a device has none of that name. @throws Failure where there is no such device */
  standing(code: string, key: string): number | undefined {
    return this.presence.find(code).description.outputs.find((output) => output.key === key)?.value;
  }

  /** @returns the device whose output can be set to a value @throws Failure for what it has not, or cannot be set to */
  check(code: string, key: string, value: number): LinkedDevice {
    const device = this.presence.find(code);
    if (!device.present)
      throw new Failure('device-absent', `${code} is not on the link; its output cannot be set.`);
    const output = device.description.outputs.find((candidate) => candidate.key === key);
    if (output === undefined) throw new Failure('not-found', `${code} has no output ${key}.`);
    if (!(value >= output.low && value <= output.high))
      throw new Failure(
        'invalid-request',
        `${output.label} of ${code} can be set from ${output.low} to ${output.high} ${output.unit}.`,
      );
    return device;
  }
}
