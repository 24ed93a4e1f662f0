import { type Beginning } from '@heuristor/contracts';
import { atOnce } from './atOnce';
import { type BeginningKind, type Waiting } from './beginning';
import { countdown } from './countdown';
import { level } from './level';
import { switched } from './switched';

/** Every way of beginning a run. */
const beginnings: {
  [K in Beginning['kind']]: BeginningKind<Extract<Beginning, { kind: K }>, Extract<Waiting, { kind: K }>>;
} = { 'at-once': atOnce, countdown, level, switch: switched };

export const beginningOf = (beginning: Pick<Beginning, 'kind'>): BeginningKind<Beginning, Waiting> =>
  beginnings[beginning.kind] as BeginningKind<Beginning, Waiting>;
