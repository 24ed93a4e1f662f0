import { choice } from './choice';
import { type CheckableKind, type CheckedKind } from './kind';
import { number } from './number';
import { result } from './result';

/** Every kind of question whose answers can be checked. */
export const checkedKinds: { readonly [K in CheckableKind]: CheckedKind<K> } = { choice, number, result };
