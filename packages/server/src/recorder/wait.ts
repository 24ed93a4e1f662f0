import { beginningOf } from './beginnings';
import { type Waiting } from './beginnings/beginning';
import { begin } from './begin';
import { checkTogether } from './conditions';
import { endingOf } from './endings';
import { heardOf } from './heard';
import { type RecorderEffect, type RecorderEvent, type RecorderState } from './state';
import { type Readings, type Source } from './track';
import { watchRest } from './stillness';
import { zeroedAtStart } from './zeroAtStart';

type Step = [RecorderState, RecorderEffect[]];
type Wait = Extract<RecorderState, { phase: 'waiting' }>;

/** A run is armed: it begins, or waits for what its plan says. @throws Failure where what the plan says can never happen */
export function arm({ plan, sources, now }: Extract<RecorderEvent, { kind: 'arm' }>): Step {
  const waiting = beginningOf(plan.begin).arm(plan.begin, sources, now);
  // What it is to end at is refused now, not when it has begun.
  endingOf(plan.end).arm(plan.end, sources);
  checkTogether(plan, sources);
  return typeof waiting === 'number'
    ? begin(plan, sources, waiting)
    : [{ phase: 'waiting', plan, sources, waiting, notes: [] }, []];
}

/** What a recording that waits makes of what happens. */
export function wait(state: Wait, event: RecorderEvent): Step {
  // Its sensors have all gone for good: there is nothing to begin with, and it can only be cancelled.
  if (state.sources.length === 0 && event.kind !== 'stop') return [state, []];
  const kind = beginningOf(state.waiting);
  switch (event.kind) {
    case 'stop':
      return [{ phase: 'idle' }, []];
    case 'begin': {
      const atOnce = beginningOf({ kind: 'at-once' }).arm({ kind: 'at-once' }, state.sources, event.now);
      return typeof atOnce === 'number' ? begin(state.plan, state.sources, atOnce, state.notes) : [state, []];
    }
    case 'tick':
      return answered(state, kind.tick?.(state.waiting, event.now) ?? state.waiting);
    case 'readings':
      return hear(state, event);
    case 'left':
      return [
        {
          ...state,
          sources: state.sources.map((source) =>
            source.code === event.code ? { ...source, missing: 'away' } : source,
          ),
        },
        [],
      ];
    case 'returned':
      return [returned(state, event), []];
    case 'disbelieved':
    case 'remarked':
      return [{ ...state, notes: [...state.notes, event.sentence] }, []];
    default:
      return [state, []];
  }
}

const answered = (state: Wait, answer: Waiting | number): Step =>
  typeof answer === 'number'
    ? begin(state.plan, state.sources, answer, state.notes)
    : [{ ...state, waiting: answer }, []];

function hear(state: Wait, event: Readings): Step {
  const place = state.sources.findIndex(({ code, stream }) => code === event.code && stream === event.stream);
  if (place < 0) return [state, []];
  const source: Source = {
    ...state.sources[place],
    epoch: event.epoch,
    missing: undefined,
    tracks: state.sources[place].tracks.map((track) => ({
      ...track,
      still:
        track.still === null
          ? null
          : watchRest(
              track.still,
              event,
              track.channel,
              event.epoch + (event.firstIndex * 1000) / state.sources[place].rate,
            ),
    })),
  };
  const sources = state.sources.with(place, source);
  const kind = beginningOf(state.waiting);
  const quantity = kind.quantity?.(state.waiting);
  const track = source.tracks.find(({ fields }) => fields.key === quantity);
  const next = { ...state, sources };
  if (track === undefined || kind.hear === undefined) return [next, []];
  return answered(next, kind.hear(state.waiting, heardOf(zeroedAtStart(track), source.rate, event)));
}

/** A device that was away is back: its streams have other numbers and its readings begin anew, where they have not gone on meanwhile. */
function returned(state: Wait, { code, places }: Extract<RecorderEvent, { kind: 'returned' }>): Wait {
  if (places === null) return { ...state, sources: state.sources.filter((source) => source.code !== code) };
  return {
    ...state,
    sources: state.sources.map((source) => {
      const place = places[source.tracks[0].channelKey];
      if (source.code !== code || place === undefined) return source;
      const tracks = source.tracks.map((track) => ({
        ...track,
        channel: places[track.channelKey]?.channel ?? track.channel,
      }));
      return { ...source, stream: place.stream, missing: place.isWhole ? undefined : 'back', tracks };
    }),
  };
}
