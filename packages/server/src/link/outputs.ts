import { Failure } from '../failure';
import { type LinkedDevice } from './device';

/** Checks that an output of a device can be set to a value. @throws Failure for what it has not, or cannot be set to */
export function checkOutput({ code, present, description }: LinkedDevice, key: string, value: number): void {
  if (!present) throw new Failure('device-absent', `${code} is not on the link; its output cannot be set.`);
  const output = description.outputs.find((candidate) => candidate.key === key);
  if (output === undefined) throw new Failure('not-found', `${code} has no output ${key}.`);
  if (!(value >= output.low && value <= output.high))
    throw new Failure(
      'invalid-request',
      `${output.label} of ${code} can be set from ${output.low} to ${output.high} ${output.unit}.`,
    );
}
