import { type Beginning } from '@heuristor/contracts';
import { thresholdOf } from '../conditions';
import { nothingSeen, watchLevel } from '../crossing';
import { type BeginningKind, type Waiting } from './beginning';

type Kind<T> = Extract<T, { kind: 'level' }>;

/** When a reading, or its speed, crosses a level; the crossing is time zero. */
export const level: BeginningKind<Kind<Beginning>, Kind<Waiting>> = {
  arm: ({ level: wanted }, sources, now) => ({
    kind: 'level',
    level: wanted,
    threshold: thresholdOf(wanted, sources),
    since: now,
    watch: nothingSeen,
  }),
  quantity: (waiting) => waiting.level.quantity,
  hear(waiting, heard) {
    const watch = watchLevel(waiting.watch, waiting.level, waiting.threshold, heard, waiting.since);
    return typeof watch === 'number' ? watch : { ...waiting, watch };
  },
};
