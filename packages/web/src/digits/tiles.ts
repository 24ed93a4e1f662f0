import { type Unit } from '@heuristor/core';
import { type Quantity } from '../sensors/sensors';

/** A value as it stands now, with how far it may be off. */
export interface TileValue {
  value: number;
  halfWidth: number | null;
  /** Where no half-width is known, the step to which it is rounded. */
  roundTo: number | null;
  unit: Unit;
}

/** Something that can be shown large, or beside the traces. */
export interface Tile {
  key: string;
  /** Under which it stands in the list. */
  group: 'Live' | 'Gate' | 'Cursor' | 'Results of the run in front';
  /** In the list. */
  title: string;
  /** On its tile. */
  name: string;
  about: string;
  /** Line of the run that it belongs to; null of what is live. */
  style: number | null;
  /** What is read now, or a value. */
  shows: { kind: 'live'; quantity: Quantity } | { kind: 'value'; value: TileValue };
  /** Entry that has to be worked out for it. */
  entryId: string | null;
  /** Whether it is one of those that are likely to be looked at. */
  isUsual: boolean;
}
