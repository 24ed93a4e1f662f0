import { type GuideItemKind } from '@heuristor/contracts';
import { choice } from './choice';
import { type AnyItemKind, type ItemKind } from './kind';
import { number } from './number';
import { result } from './result';
import { sketch } from './sketch';
import { step } from './step';
import { words } from './words';

/** Every kind of item of a guide, in the order in which they are offered. */
export const itemKinds: { readonly [K in GuideItemKind]: ItemKind<K> } = {
  step,
  words,
  choice,
  number,
  result,
  sketch,
};

export const kindOfItem = (kind: GuideItemKind): AnyItemKind => itemKinds[kind] as unknown as AnyItemKind;
