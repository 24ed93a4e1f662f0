import { readableUnitOf, resultInUnit } from '@heuristor/core';
import { UnitText } from '../../ui/UnitText';
import { shortText } from '../../ui/numberText';
import { type ShownOutcome } from '../../workers/protocol';
import { mainOf } from '../entries/shownUnit';
import { type RegionOffer } from './regionOffers';

/** Digits that tell whether it is worth keeping; all that it has stand on its card. */
const digits = 3;

/** What an offer is called: a relation says which of its parameters its value is. */
export function labelOf({ title, group }: RegionOffer, outcome: ShownOutcome | undefined): string {
  const main = mainOf(outcome);
  return group !== 'fit' || main === undefined ? title : `${title}: ${main.name}`;
}

/** What an offer would come to; nothing where that is not known. */
export function OfferValue({ outcome }: { outcome: ShownOutcome | undefined }) {
  if (outcome?.kind === 'refused')
    return (
      <span className="offer-value none" title={outcome.sentence}>
        –
      </span>
    );
  const main = mainOf(outcome);
  if (main === undefined) return null;
  const { value, unit } = resultInUnit(main, readableUnitOf(main));
  return (
    <span className="offer-value">
      {shortText(value, digits)} <UnitText unit={unit} />
    </span>
  );
}
