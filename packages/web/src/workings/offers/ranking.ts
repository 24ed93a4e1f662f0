import { type RelationKey } from '@heuristor/core';
import { type RankedRelation } from '../../workers/offered';
import { type ShownOutcome, type ShownResult } from '../../workers/protocol';
import { mainOf } from '../entries/shownUnit';
import { type RegionOffer } from './regionOffers';

/** An offer with what would come of it. */
export interface ValuedOffer {
  offer: RegionOffer;
  /** Undefined where it has not been worked out. */
  outcome: ShownOutcome | undefined;
}

/** A relation that leaves more of the scatter than this unexplained is no likely one. */
const leastExplained = 0.5;
/** A slope within so many half-widths of zero is none. */
const noSlope = 2;
/** So many peaks are a swing. */
const swing = 2;

const relationOfOffer = ({ offer }: ValuedOffer): RelationKey | undefined =>
  offer.kind === 'fit' ? (offer.preset.relation as RelationKey) : undefined;

const isKnown = ({ outcome }: ValuedOffer) => outcome?.kind === 'results';

const resultOf = (outcome: ShownOutcome | undefined, key: string): ShownResult | undefined =>
  outcome?.kind === 'results' ? outcome.results.find((result) => result.key === key) : undefined;

/**
 * The offers that readings like these are likely to be asked for, the likeliest first: the mean of what stands still, the best
 * relation, peaks and periods where there are several, and then what is usual. What cannot be worked out is none of them.
 */
export function likelyOffers(
  all: readonly ValuedOffer[],
  relations: readonly RankedRelation[],
): ValuedOffer[] {
  const byTitle = (title: string) => all.filter(({ offer }) => offer.title === title);
  const slope = mainOf(byTitle('slope')[0]?.outcome);
  const stands =
    slope?.halfWidth != null && Math.abs(slope.value) < noSlope * slope.halfWidth
      ? !relations.some(({ rSquared }) => rSquared > leastExplained)
      : false;
  const [best] = relations;
  const explains = best !== undefined && best.rSquared > leastExplained && !stands;
  const fit = explains ? all.filter((one) => relationOfOffer(one) === best.key) : [];
  const peaks = byTitle('peaks');
  const counted = resultOf(peaks[0]?.outcome, 'count')?.value ?? 0;
  const swings = counted >= swing ? [...byTitle('periods'), ...peaks] : [];
  // The slope of a straight line is asked for more often than all of the line.
  const isLine = explains && best.key === 'line';
  const ordered = [
    ...(stands ? byTitle('mean') : []),
    ...(isLine ? byTitle('slope') : []),
    ...fit,
    ...swings,
    ...['slope', 'mean', 'change', 'area', 'peaks'].flatMap(byTitle),
  ];
  return [...new Set(ordered)].filter(isKnown);
}

/** The fits in the order in which their relations explain the readings; what was not tried, or in vain, comes last. */
export function rankedFits(
  fits: readonly ValuedOffer[],
  relations: readonly RankedRelation[],
): ValuedOffer[] {
  const place = (one: ValuedOffer) => {
    const found = relations.findIndex(({ key }) => key === relationOfOffer(one));
    return found < 0 ? relations.length : found;
  };
  return [...fits].sort((one, other) => place(one) - place(other));
}
