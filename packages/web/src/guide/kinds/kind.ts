import { type GuideItem, type GuideItemKind, type GuideItemOf } from '@heuristor/contracts';
import { type ComponentType } from 'react';
import { type Icon } from 'react-bootstrap-icons';

/** What pages have to know of a kind of item of a guide. */
export interface ItemKind<K extends GuideItemKind> {
  kind: K;
  /** As it is called where one is added. */
  title: string;
  Icon: Icon;
  /** A new one; what is not said is empty. */
  empty(id: string): GuideItemOf<K>;
  /** What somebody who follows the guide does with it, under its title and its text. */
  Answer: ComponentType<{ item: GuideItemOf<K> }>;
  /** The fields that it has beside its title and its text, while it is written. */
  Fields: ComponentType<{ item: GuideItemOf<K>; change: (patch: Partial<GuideItemOf<K>>) => void }>;
}

/** What every question begins with. */
export const askedWith = (id: string) => ({ id, title: '', text: '', isBefore: false });

export type AnyItemKind = ItemKind<GuideItemKind>;
export type Question = Exclude<GuideItem, { kind: 'step' }>;
