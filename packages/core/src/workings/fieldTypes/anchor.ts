import { type EventKind } from '../../calculus/events';
import { type SeriesRef } from '../references';
import { defineFieldType } from './fieldType';

/** A moment that each run has for itself: something that happens in a series, and how long after it. */
export interface Anchor {
  event: EventKind;
  of: SeriesRef;
  /** Where a level is crossed: that level, in the unit that the entry tells numbers of this series in. */
  level: number;
  /** Which one of its kind, from 1 on. */
  count: number;
  /** In the unit of the abscissa. */
  offset: number;
}

interface AnchorShape {
  type: 'anchor';
  label: string;
  usual: Anchor | null;
}

const hasLevel = ({ event }: Anchor) => event === 'rises' || event === 'falls';

export const anchorField = (label: string) => ({ type: 'anchor', label, usual: null }) as const;

export const anchor = defineFieldType<AnchorShape, Anchor | null>({
  usual: ({ usual }) => usual,
  speaksOf: (value) => (value === null ? {} : { anchors: [value] }),
  withReferences: (value, map) => (value === null ? null : { ...value, of: map.series(value.of) }),
  toldOf: (value) => (value !== null && hasLevel(value) ? value.of : null),
  inUnits: (value, _field, { read }) =>
    value === null ? undefined : { ...value, level: read(value.level, false) },
});
