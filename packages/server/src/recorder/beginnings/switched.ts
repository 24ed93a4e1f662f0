import { type Beginning } from '@heuristor/contracts';
import { checkEvents } from '../conditions';
import { type BeginningKind, type Waiting } from './beginning';

type Kind<T> = Extract<T, { kind: 'switch' }>;

/** When something switches on or off; the edge is time zero. */
export const switched: BeginningKind<Kind<Beginning>, Kind<Waiting>> = {
  arm({ quantity, to }, sources, now) {
    checkEvents(quantity, sources);
    return { kind: 'switch', quantity, to: to === 'on' ? 1 : 0, since: now };
  },
  quantity: (waiting) => waiting.quantity,
  hear(waiting, { moments, values }) {
    const edge = values.findIndex((state, i) => state === waiting.to && moments[i] > waiting.since);
    return edge < 0 ? waiting : moments[edge];
  },
};
