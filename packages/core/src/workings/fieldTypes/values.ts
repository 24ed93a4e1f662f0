import { type EventKind } from '../../calculus/events';
import { type ResultRef, type SeriesRef } from '../references';

/** A formula as it was typed, and what its names meant when it was: a reference outlasts a renaming. */
export interface FormulaText {
  text: string;
  names: Readonly<Record<string, SeriesRef | ResultRef>>;
}

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
