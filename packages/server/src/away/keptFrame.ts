import { type SampleFrame } from '@heuristor/contracts';
import { Failure } from '../failure';
import { type LinkedDevice } from '../link/device';

/** Holds readings that a device has kept against what it was asked for. @throws Failure that says what is wrong */
export function checkKept(
  { code, description }: LinkedDevice,
  key: string,
  { subject, firstIndex, channels, values, times }: SampleFrame,
  { id, from, count, lastTime }: { id: number; from: number; count: number; lastTime: number },
): void {
  const stream = description.streams.find((candidate) => candidate.key === key);
  const wrong = (what: string) =>
    new Failure(
      'device-absent',
      `${code} sent something else than was asked for: ${what}. What is here stays; fetch it again.`,
    );
  if (stream === undefined) throw wrong(`it has no ${key} any more`);
  if (subject !== id) throw wrong(`readings of run ${subject} instead of ${id}`);
  if (firstIndex !== from) throw wrong(`reading ${firstIndex} instead of ${from}`);
  if (channels !== stream.channels.length)
    throw wrong(`${channels} channels instead of ${stream.channels.length}`);
  if (values.length === 0) throw wrong('no readings, and it said that it holds some');
  if (values.length / channels > count)
    throw wrong(`${values.length / channels} readings instead of ${count}`);
  if ((times === null) !== (stream.sampling === 'regular')) throw wrong('times where none belong, or none');
  if (
    times?.some((time, i) => !(time > (i === 0 ? lastTime : times[i - 1]) && Number.isFinite(time))) === true
  )
    throw wrong('times that do not ascend');
  if (values.some((value) => value === Infinity || value === -Infinity)) throw wrong('infinite readings');
}
