import { type ChannelFields, type Plan, keptOf, longestOf } from '@heuristor/contracts';
import { Failure } from '../failure';
import { endingOf } from './endings';
import { type RecorderEffect, type RecorderState } from './state';
import { type Source, type Track } from './track';
import { zeroedAtStart } from './zeroAtStart';

type Armed = Extract<RecorderState, { phase: 'armed' }>;

/** A run that begins at a moment, in ms of the server's clock, with the time before it that its plan keeps. */
export function begin(
  plan: Plan,
  sources: readonly Source[],
  origin: number,
  notes: readonly string[] = [],
): [Armed, RecorderEffect[]] {
  const endsAt = longestOf(plan) ?? Infinity;
  const kept = keptOf(plan);
  const tracks = sources.flatMap((source) => tracksOf(source, origin, kept, endsAt));
  const channels = tracks.map((track): ChannelFields => ({
    ...track.fields,
    sampling:
      track.sampling === 'regular'
        ? { kind: 'regular', start: track.start, interval: 1 / track.rate }
        : { kind: track.sampling },
  }));
  const unrested = tracks
    .filter(({ still }) => still !== null && still.rest === null)
    .map(
      ({ fields }) => `${fields.symbol} did not rest before this run, so its zero is that of an earlier run.`,
    );
  const { endWatch, endless } = endWatchOf(plan, sources);
  return [
    {
      phase: 'armed',
      plan,
      origin,
      endsAt,
      endWatch,
      tracks,
      gaps: [],
      notes: [...notes, ...unrested, ...endless],
    },
    [{ kind: 'enter', plan, channels }],
  ];
}

/** What a run is to end at; it begins all the same where the sensor for that has gone while it waited, and says so. */
function endWatchOf(
  { end }: Plan,
  sources: readonly Source[],
): { endWatch: Armed['endWatch']; endless: string[] } {
  try {
    return { endWatch: endingOf(end).arm(end, sources), endless: [] };
  } catch (error) {
    if (!(error instanceof Failure)) throw error;
    return {
      endWatch: { kind: 'nothing' },
      endless: [
        'The quantity that was to end this run was no longer measured; the run ended in another way.',
      ],
    };
  }
}

function tracksOf(source: Source, origin: number, kept: number, endsAt: number): Track[] {
  const { code, rate, sampling, epoch, stream, missing } = source;
  const isRegular = sampling === 'regular';
  // A double of ms since the server began holds microseconds; a reading that falls on the beginning belongs to the run.
  const first = isRegular ? Math.max(Math.ceil(((origin - kept * 1000 - epoch) * rate) / 1000 - 1e-6), 0) : 0;
  const start = isRegular ? Number(((epoch - origin) / 1000 + first / rate).toFixed(9)) + 0 : 0;
  return source.tracks.map((track) => ({
    ...zeroedAtStart(track),
    code,
    rate,
    sampling,
    start,
    next: 0,
    lastTime: -Infinity,
    limit: limitOf({ sampling, rate, start }, endsAt),
    // What has begun anew is laid on the run's clock by its first reading; what is away is missing from the beginning.
    stream:
      missing === 'away'
        ? null
        : {
            number: stream,
            shift: missing === 'back' ? NaN : isRegular ? -first : (epoch - origin) / 1000,
          },
    broken: null,
    awaitedUntil: null,
    closed: null,
    lost: 0,
    awaySince: missing === undefined ? null : isRegular ? start : -kept,
  }));
}

/** How many readings a track has when its run ends at a time. */
export const limitOf = (
  { sampling, rate, start }: Pick<Track, 'sampling' | 'rate' | 'start'>,
  endsAt: number,
): number =>
  endsAt === Infinity || sampling !== 'regular'
    ? Infinity
    : Math.max(Math.floor((endsAt - start) * rate + 1e-6) + 1, 1);
