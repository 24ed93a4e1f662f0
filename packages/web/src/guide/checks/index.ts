import { type CheckKind } from '@heuristor/contracts';
import { type CheckKindHere } from './check';
import { conditions } from './conditions';
import { connected } from './connected';
import { level } from './level';
import { rate } from './rate';
import { recorded } from './recorded';
import { sign } from './sign';
import { still } from './still';
import { zeroed } from './zeroed';

/** Every kind of check, in the order in which they are offered. */
export const checkKindsHere: { readonly [K in CheckKind]: CheckKindHere } = {
  connected,
  rate,
  zeroed,
  still,
  sign,
  level,
  recorded,
  conditions,
};
