import { type Beginning } from '@heuristor/contracts';
import { type BeginningKind, type Waiting } from './beginning';

type Kind<T> = Extract<T, { kind: 'countdown' }>;

/** After so many seconds, so that one person can start it and run to the track. */
export const countdown: BeginningKind<Kind<Beginning>, Kind<Waiting>> = {
  arm: ({ seconds }, _sources, now) => ({ kind: 'countdown', until: now + seconds * 1000 }),
  tick: (waiting, now) => (now >= waiting.until ? waiting.until : waiting),
};
