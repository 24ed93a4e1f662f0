import { type Gap, keptAgainSeconds, keptOf } from '@heuristor/contracts';
import { limitOf } from './begin';
import { endingOf } from './endings';
import { heardOf } from './heard';
import {
  type Place,
  type RecorderEffect,
  type RecorderEvent,
  type RecorderState,
  longestFilledHole,
} from './state';
import { type Readings, type Track } from './track';
import { arm, wait } from './wait';

type Step = [RecorderState, RecorderEffect[]];
type Running = Extract<RecorderState, { phase: 'armed' | 'recording' | 'ending' }>;

/** How long after its length a run waits for a device that does not send. */
const patienceSeconds = 1.5;
/** A device that sends again what it read while it was away is waited for so long, though the run is over by then. */
const longestAwaySeconds = keptAgainSeconds + 1;
/** Up to so many readings missing in a row are single losses, which are counted; more are a gap, which is marked. */
const mostLost = 3;
/** Gaps nearer to each other than this are one. */
const joinedWithinSeconds = 0.5;
/** Of the time between two readings. */
const almostOne = 1 - 1e-5;
const mostGaps = 100;
const mostNotes = 20;

/**
 * One step of a recording: what it becomes, and what it wants done. Pure: no clock, no input or output, so that every course
 * of events can be tried without waiting for it.
 */
export function step(state: RecorderState, event: RecorderEvent): Step {
  switch (state.phase) {
    case 'idle':
    case 'failed':
      return event.kind === 'arm' ? arm(event) : [state, []];
    case 'waiting':
      return wait(state, event);
    case 'armed':
    case 'recording':
      return run(state, event);
    case 'ending':
      return event.kind === 'stored' ? [{ phase: 'idle' }, []] : [state, []];
  }
}

function run(state: Extract<Running, { phase: 'armed' | 'recording' }>, event: RecorderEvent): Step {
  switch (event.kind) {
    case 'entered':
      return [{ ...state, phase: 'recording' }, [{ kind: 'replay' }]];
    case 'not-entered':
      return [{ phase: 'failed', sentence: event.sentence }, []];
    case 'readings':
      return state.phase === 'recording' ? take(state, event) : [state, []];
    case 'left':
      return [
        withTracks(state, event.code, (track) => ({
          ...track,
          stream: null,
          broken: track.stream ?? track.broken,
          awaySince: track.awaySince ?? reached(track, secondsAt(state, event.now)),
          awaitedUntil: event.sendsAgain ? secondsAt(state, event.now) + longestAwaySeconds : null,
        })),
        [],
      ];
    case 'returned':
      return event.places === null
        ? close(state, event.code, secondsAt(state, event.now), differs(event.code, state, event.now))
        : [withTracks(state, event.code, (track) => back(track, event.places?.[track.channelKey])), []];
    case 'disbelieved':
      return close(state, event.code, secondsAt(state, event.now), event.sentence);
    case 'remarked':
      return [noted(state, event.sentence), [{ kind: 'mark' }]];
    case 'tick':
    case 'stop': {
      // Its readings are taken when it has been entered, however late that is; time alone does not end it before.
      if (event.kind === 'tick' && state.phase === 'armed') return [state, []];
      const now = secondsAt(state, event.now);
      const awaited = state.tracks.map((track) => (track.closed === null ? (track.awaitedUntil ?? 0) : 0));
      const isOver = now > Math.max(state.endsAt + patienceSeconds, ...awaited);
      return event.kind === 'stop' || isOver ? finish(state, now) : [state, []];
    }
    case 'arm':
    case 'begin':
    case 'stored':
      return [state, []];
  }
}

/** A track whose device is back: it goes on where it was, or its readings are laid on the run's clock anew. */
function back(track: Track, place: Place | undefined): Track {
  const { broken, awaySince, sampling, awaitedUntil } = track;
  const hasGoneOn = broken !== null && broken.number === place?.stream;
  return {
    ...track,
    channel: place?.channel ?? track.channel,
    stream: hasGoneOn ? broken : { number: place?.stream ?? -1, shift: NaN },
    broken: null,
    // The numbers of regular readings tell what is missing; of others only the device knows.
    awaySince: hasGoneOn && place.isWhole && sampling !== 'regular' ? null : awaySince,
    awaitedUntil: hasGoneOn ? awaitedUntil : null,
  };
}

const secondsAt = ({ origin }: Running, now: number) => Math.max((now - origin) / 1000, 0);

const shown = (seconds: number) => Number(seconds.toFixed(2));

const differs = (code: string, state: Running, now: number) =>
  `${code} came back with other channels, ranges, units or rates than this run knows; its part ends at ${shown(secondsAt(state, now))} s.`;

/** Up to where a track holds readings, in seconds of the run. */
const reached = ({ sampling, start, next, rate }: Track, now: number) =>
  sampling === 'regular' ? start + next / rate : now;

function withTracks(
  state: Extract<Running, { phase: 'armed' | 'recording' }>,
  code: string,
  change: (track: Track) => Track,
): Extract<Running, { phase: 'armed' | 'recording' }> {
  return {
    ...state,
    tracks: state.tracks.map((track) =>
      track.code === code && track.closed === null ? change(track) : track,
    ),
  };
}

function noted<S extends Running>(state: S, sentence: string): S {
  if (state.notes.includes(sentence) || state.notes.length >= mostNotes) return state;
  return { ...state, notes: [...state.notes, sentence] };
}

/** Ends the part of a device, with a gap from there to the end and a sentence. */
function close(
  state: Extract<Running, { phase: 'armed' | 'recording' }>,
  code: string,
  now: number,
  sentence: string,
): Step {
  if (!state.tracks.some((track) => track.code === code && track.closed === null)) return [state, []];
  const closed = withTracks(state, code, (track) => ({
    ...track,
    closed: 'differs',
    stream: null,
    awaySince: track.awaySince ?? reached(track, now),
  }));
  const said = noted(closed, sentence);
  const [next, effects] = completeIfDone(said);
  return [next, [{ kind: 'mark' }, ...effects]];
}

/** Holds readings against what the run is to end at; its end may lie in the past by then. */
function watchEnd(
  state: Extract<Running, { phase: 'recording' }>,
  event: Readings,
): Extract<Running, { phase: 'recording' }> {
  const kind = endingOf(state.endWatch);
  const quantity = kind.quantity?.(state.endWatch);
  const track = state.tracks.find(
    ({ fields, code, stream }) =>
      fields.key === quantity && code === event.code && stream?.number === event.stream,
  );
  if (track === undefined || kind.hear === undefined) return state;
  const answer = kind.hear(state.endWatch, heardOf(track, track.rate, event), state.origin);
  if (typeof answer !== 'number') return { ...state, endWatch: answer };
  const endsAt = Math.min((answer - state.origin) / 1000, state.endsAt);
  const tracks = state.tracks.map((other) => {
    // With the first reading beyond, however many came together in one message.
    const limit = limitOf(other, endsAt + almostOne / other.rate);
    return { ...other, limit, closed: other.closed ?? (other.next >= limit ? ('complete' as const) : null) };
  });
  return { ...state, endsAt, endWatch: { kind: 'nothing' }, tracks };
}

function take(before: Extract<Running, { phase: 'recording' }>, event: Readings): Step {
  const state = watchEnd(before, event);
  const effects: RecorderEffect[] = [];
  let { gaps } = state;
  const tracks = state.tracks.map((track, place) => {
    if (track.code !== event.code || track.closed !== null || track.stream?.number !== event.stream)
      return track;
    const taken =
      event.times === null ? takeRegular(state, track, event) : takeTimed(state, track, event, event.times);
    if (taken === null) return track;
    effects.push(...taken.parts.map((part) => ({ kind: 'append' as const, track: place, ...part })));
    if (taken.gap !== null) {
      gaps = withGap(gaps, taken.gap);
      effects.push({ kind: 'mark' });
    }
    return taken.track;
  });
  const [next, more] = completeIfDone({ ...state, tracks, gaps });
  return [next, [...effects, ...more]];
}

interface Taken {
  track: Track;
  parts: { firstIndex: number; values: Float64Array; times: Float64Array | null }[];
  gap: Gap | null;
}

function takeRegular(state: Running, track: Track, event: Readings): Taken | null {
  const { stream } = track;
  if (stream === null) return null;
  const count = event.values.length / event.channels;
  // A stream that has just begun is laid on the track's clock once; from then on its own index tells the place.
  const shift = Number.isNaN(stream.shift)
    ? Math.round(((event.epoch - state.origin) / 1000 - track.start) * track.rate)
    : stream.shift;
  const first = event.firstIndex + shift;
  const from = Math.max(track.next - first, 0);
  const to = Math.min(count, track.limit - first);
  const laid: Track = { ...track, stream: { ...stream, shift } };
  if (to <= from) return { track: laid, parts: [], gap: null };
  const at = first + from;
  const hole = at - track.next;
  const isGap = hole > mostLost || (track.awaySince !== null && hole > 0);
  const isFilled = hole > 0 && hole <= longestFilledHole;
  const filled = isFilled ? hole : 0;
  const values = new Float64Array(filled + to - from).fill(NaN, 0, filled);
  const { scale, offset } = track;
  for (let i = from; i < to; i++)
    values[filled + i - from] = scale * event.values[i * event.channels + track.channel] + offset;
  const next = first + to;
  return {
    track: {
      ...laid,
      next,
      lost: track.lost + (isGap ? 0 : hole),
      awaySince: null,
      awaitedUntil: null,
      closed: next >= track.limit ? 'complete' : null,
    },
    parts: [{ firstIndex: at - filled, values, times: null }],
    gap: isGap
      ? {
          channel: track.fields.key,
          from: track.start + track.next / track.rate,
          to: track.start + at / track.rate,
        }
      : null,
  };
}

function takeTimed(state: Running, track: Track, event: Readings, sent: Float64Array): Taken | null {
  const { stream } = track;
  if (stream === null) return null;
  const from = -keptOf(state.plan);
  // What is known of a stream's beginning grows better as it goes on; a run keeps what it was begun with, or times would turn back.
  const shift = Number.isNaN(stream.shift) ? (event.epoch - state.origin) / 1000 : stream.shift;
  const laid: Track = { ...track, stream: { ...stream, shift } };
  const { scale, offset } = track;
  const times: number[] = [];
  const values: number[] = [];
  for (let i = 0; i < sent.length; i++) {
    const time = sent[i] + shift;
    const value = event.values[i * event.channels + track.channel];
    // Of events, what is no edge of this channel belongs to another one.
    const isNone = track.sampling === 'events' && Number.isNaN(value);
    if (isNone || !(time >= from) || time <= track.lastTime || time > state.endsAt) continue;
    times.push(time);
    values.push(scale * value + offset);
  }
  const lastTime = times.at(-1);
  if (lastTime === undefined) return { track: laid, parts: [], gap: null };
  const gap =
    track.awaySince === null ? null : { channel: track.fields.key, from: track.awaySince, to: times[0] };
  return {
    track: { ...laid, next: track.next + times.length, lastTime, awaySince: null, awaitedUntil: null },
    parts: [{ firstIndex: track.next, values: Float64Array.from(values), times: Float64Array.from(times) }],
    gap,
  };
}

/** Adds a gap, joined with one of its channel that it nearly touches; the list stays short, whatever happens. */
function withGap(gaps: readonly Gap[], gap: Gap): Gap[] {
  const same = gaps.findLastIndex(({ channel }) => channel === gap.channel);
  const last = gaps[same];
  if (same >= 0 && (gap.from - last.to < joinedWithinSeconds || gaps.length >= mostGaps))
    return gaps.with(same, { ...last, to: Math.max(last.to, gap.to) });
  return [...gaps, gap];
}

function completeIfDone(state: Extract<Running, { phase: 'armed' | 'recording' }>): Step {
  if (state.phase !== 'recording' || state.tracks.some(({ closed }) => closed === null)) return [state, []];
  const reach = Math.max(...state.tracks.map((track) => reached(track, 0)), 0);
  return finish(state, state.endsAt === Infinity ? reach : state.endsAt);
}

/** Ends a run: what is away at its end leaves a gap up to it, and single losses are said. */
function finish(state: Extract<Running, { phase: 'armed' | 'recording' }>, now: number): Step {
  const elapsed = Math.min(now, state.endsAt);
  let { gaps } = state;
  let ending: Extract<Running, { phase: 'ending' }> = { ...state, phase: 'ending' };
  for (const track of state.tracks) {
    const { awaySince, rate, lost, fields, code, next } = track;
    if (awaySince !== null && elapsed - awaySince > 2 / rate)
      gaps = withGap(gaps, { channel: fields.key, from: awaySince, to: elapsed });
    if (lost > 0)
      ending = noted(
        ending,
        `${code} lost ${lost} of ${next} readings of ${fields.symbol}, here and there; they are left out.`,
      );
  }
  return [{ ...ending, gaps }, [{ kind: 'finish' }]];
}
