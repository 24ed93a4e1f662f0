import { type Ending } from '@heuristor/contracts';
import { type EndWatch, type EndingKind } from './ending';
import { events } from './events';
import { level } from './level';

/** Time alone, or a person: there is nothing to watch. */
const unwatched: EndingKind<Ending, never> = { arm: () => ({ kind: 'nothing' }) };

/** Every way of ending a run. */
const endings: {
  [K in Ending['kind']]: EndingKind<Extract<Ending, { kind: K }>, Extract<EndWatch, { kind: K }>>;
} = { after: unwatched, stopped: unwatched, level, events };

/** The way of ending that a plan names, or that belongs to what a run watches. */
export const endingOf = ({ kind }: Pick<Ending | EndWatch, 'kind'>): EndingKind<Ending, EndWatch> =>
  (kind === 'nothing' ? unwatched : endings[kind]) as EndingKind<Ending, EndWatch>;
