import { type Ending } from '@heuristor/contracts';
import { checkEvents } from '../conditions';
import { type EndWatch, type EndingKind } from './ending';

type Kind<T> = Extract<T, { kind: 'events' }>;

/** After so many times that something switched on. */
export const events: EndingKind<Kind<Ending>, Kind<EndWatch>> = {
  arm({ quantity, count }, sources) {
    checkEvents(quantity, sources);
    return { kind: 'events', quantity, left: count };
  },
  quantity: (watch) => watch.quantity,
  hear(watch, { moments, values }, origin) {
    let { left } = watch;
    for (let i = 0; i < values.length; i++)
      if (values[i] === 1 && moments[i] >= origin && --left === 0) return moments[i];
    return { ...watch, left };
  },
};
