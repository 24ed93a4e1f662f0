import { type KeptMessage, type Prepare } from '@heuristor/contracts';
import { Failure } from '../failure';
import { type LinkedDevice } from '../link/device';
import { type AwayTrack } from '../models/awayRun';
import { type Source } from '../recorder/track';
import { type Holding } from './holding';

/** The channels of a run that a device is to keep, as they are set now. */
export function tracksOf(device: LinkedDevice, sources: readonly Source[]): AwayTrack[] {
  return sources.flatMap((source): AwayTrack[] => {
    const stream = device.streams.find(({ sending }) => sending?.number === source.stream);
    return stream === undefined
      ? []
      : source.tracks.map(({ channel, scale, offset, fields }) => ({
          stream: stream.description.key,
          channel,
          sampling: source.sampling,
          scale,
          offset,
          fields: {
            ...fields,
            sampling:
              source.sampling === 'regular'
                ? { kind: 'regular', start: 0, interval: 1 / source.rate }
                : { kind: source.sampling },
          },
        }));
  });
}

/** @throws Failure where a run is longer than the memory that is free */
export function checkRoom(
  { device: { code, description }, said, rows }: Holding,
  seconds: number | null,
  streams: readonly LinkedDevice['streams'][number][],
): void {
  if (seconds === null) return;
  const regular = streams.filter(({ description: { sampling } }) => sampling === 'regular');
  const rate = regular.reduce((sum, stream) => sum + stream.rate * stream.description.channels.length, 0);
  const freed = rows
    .filter(({ discardedAt }) => discardedAt !== null)
    .reduce((sum, { id }) => sum + numbersOf(said, id, streams), 0);
  const room = Math.min((said?.room ?? 0) + freed, description.keeps ?? 0);
  if (rate * seconds > room)
    throw new Failure(
      'too-large',
      `${code} has room for ${Math.floor(room / rate)} s at this rate, not for ${seconds} s. Choose a slower rate or a shorter run, or fetch what it holds.`,
    );
}

/** A level in the unit in which the device itself reads. @throws Failure where it has no such channel */
export function ownLevel(device: LinkedDevice, level: Extract<Prepare['begin'], { kind: 'level' }>) {
  const view = device.streams.flatMap(({ views }) => views).find(({ key }) => key === level.channel);
  if (view === undefined)
    throw new Failure('invalid-request', `${device.code} has no channel ${level.channel} to wait for.`);
  const isTurned = view.scale < 0;
  return {
    ...level,
    value: (level.value - view.offset) / view.scale,
    direction: isTurned ? (level.direction === 'rise' ? 'fall' : 'rise') : level.direction,
  } as const;
}

/** Numbers that a run takes in the memory of a device. */
function numbersOf(
  said: KeptMessage | null,
  id: number,
  streams: readonly LinkedDevice['streams'][number][],
): number {
  const counts = said?.runs.find((run) => run.id === id)?.counts ?? {};
  return streams.reduce(
    (sum, { description: { key, channels } }) => sum + (counts[key] ?? 0) * channels.length,
    0,
  );
}
