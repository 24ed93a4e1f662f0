import { type Ending } from '@heuristor/contracts';
import { thresholdOf } from '../conditions';
import { nothingSeen, watchLevel } from '../crossing';
import { type EndWatch, type EndingKind } from './ending';

type Kind<T> = Extract<T, { kind: 'level' }>;

/** When a reading, or its speed, crosses a level: a cart near the end of its track. */
export const level: EndingKind<Kind<Ending>, Kind<EndWatch>> = {
  arm: ({ level: wanted }, sources) => ({
    kind: 'level',
    level: wanted,
    threshold: thresholdOf(wanted, sources),
    watch: nothingSeen,
  }),
  quantity: (watch) => watch.level.quantity,
  hear(ending, heard, origin) {
    const watch = watchLevel(ending.watch, ending.level, ending.threshold, heard, origin);
    return typeof watch === 'number' ? watch : { ...ending, watch };
  },
};
