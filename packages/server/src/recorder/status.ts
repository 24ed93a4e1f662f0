import { type RecorderStatus } from '@heuristor/contracts';
import { type RecorderState } from './state';
import { type TrackPlan } from './track';

/** What a recording does, for the screens. */
export function statusOf(state: RecorderState, number: number, now: number): RecorderStatus {
  if (!('plan' in state)) return { phase: 'idle' };
  const { times } = state.plan;
  if (state.phase === 'ending') return { phase: 'ending', number, times };
  if (state.phase !== 'waiting')
    return { phase: 'recording', number, times, waitsFor: waitedFor(state, now) };
  const { waiting } = state;
  switch (waiting.kind) {
    case 'countdown':
      return { phase: 'countdown', number, times, secondsLeft: Math.max((waiting.until - now) / 1000, 0) };
    case 'level': {
      const track = state.sources
        .flatMap(({ tracks }) => tracks)
        .find(({ fields }) => fields.key === waiting.level.quantity);
      return {
        phase: 'waiting',
        number,
        times,
        for: {
          kind: 'level',
          level: waiting.level,
          threshold: waiting.threshold.value,
          rest: track === undefined ? null : restOf(track),
          device: track?.fields.deviceCode ?? '',
          channel: track?.channelKey ?? '',
        },
      };
    }
    case 'switch':
      return {
        phase: 'waiting',
        number,
        times,
        for: { kind: 'switch', quantity: waiting.quantity, to: waiting.to === 1 ? 'on' : 'off' },
      };
  }
}

/** The device whose readings are all that a run lacks that is over; null where there is none. */
function waitedFor(
  { origin, endsAt, tracks }: Extract<RecorderState, { phase: 'armed' | 'recording' }>,
  now: number,
): string | null {
  if ((now - origin) / 1000 <= endsAt) return null;
  return tracks.find(({ closed, awaitedUntil }) => closed === null && awaitedUntil !== null)?.code ?? null;
}

/** The reading shown where a quantity rests, no finer than its noise; null where its runs have no zero of their own. */
function restOf({ still, scale, offset, fields }: TrackPlan): number | null {
  if (still === null) return null;
  if (still.rest === null) return 0;
  const step = Math.max(fields.noise ?? 0, fields.resolution, 1e-9);
  return Math.round((scale * still.rest.offset + offset) / step) * step;
}
