import { type Beginning } from '@heuristor/contracts';
import { atOnce } from './atOnce';
import { type BeginningKind } from './beginning';

/** Every way of beginning a run. */
const beginnings: { [K in Beginning['kind']]: BeginningKind<Extract<Beginning, { kind: K }>> } = {
  'at-once': atOnce,
};

export const beginningOf = (beginning: Beginning): BeginningKind =>
  beginnings[beginning.kind] as BeginningKind;
