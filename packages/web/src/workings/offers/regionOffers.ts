import { type EntryKindKey, entryKindKeys, kindOf } from '@heuristor/core';

/** What an offer does with a region: reads a number off, lays a relation through it, or shows it in another way. */
export type OfferGroup = 'measure' | 'fit' | 'look';

export interface RegionOffer {
  kind: EntryKindKey;
  title: string;
  preset: Readonly<Record<string, unknown>>;
  group: OfferGroup;
}

const groupOf = (kind: EntryKindKey): OfferGroup => {
  const { draws, fields } = kindOf(kind);
  if (draws === 'graph') return 'look';
  return kind === 'fit' || 'formula' in fields ? 'fit' : 'measure';
};

/** All that can be worked out on a region, as the kinds declare it. */
export const regionOffers: readonly RegionOffer[] = entryKindKeys
  .filter((kind) => kindOf(kind).offered === 'region')
  .flatMap((kind) =>
    kindOf(kind).offers.map(({ title, preset }) => ({ kind, title, preset, group: groupOf(kind) })),
  );

export const offersIn = (group: OfferGroup): RegionOffer[] =>
  regionOffers.filter((offer) => offer.group === group);
