import { type Side } from './drawn';
import { type Bars, type FittedCurve, type Line, type Sight } from '../workers/protocol';
import { type RegionBounds } from './geometry';

/** A fitted curve, and whether it belongs to the run in front. */
export interface DrawnCurve extends FittedCurve {
  front: boolean;
  side: Side;
}

/** The symbol of a quantity beside its line, where a trace holds several. */
export interface LineLabel {
  text: string;
  side: Side;
  /** Where the line stands, in its own scales. */
  x: number;
  y: number;
}

export interface UnderLayer {
  /** Parts of the axis in which something holds. */
  spans?: readonly Sight[];
  regions: readonly RegionBounds[];
  /** The line that is to be followed. */
  target: Line | null;
  /** Whether numbers stand under it, and at its right. */
  isBottom: boolean;
  hasRight: boolean;
  /** Of the horizontal axis, where its numbers stand under this trace. */
  bottomLabel: string | null;
}

/** Readings that are no measurement, in the colour of their run. */
export interface Marks extends Line {
  color: string;
  side: Side;
}

export interface OverLayer {
  curves: readonly DrawnCurve[];
  /** At a limit of their sensor: y is 1 at the upper one and −1 at the lower. */
  pinned: readonly Marks[];
  /** Wrong echoes, where they were read. */
  strays: readonly Marks[];
  /** Readings that were set aside, where they were read. */
  aside: readonly Marks[];
  /** How far values may be off. */
  bars: readonly (Marks & Bars)[];
  /** Lines whose direction in time is drawn. */
  arrows: readonly Marks[];
  /** Places that are pointed out along the horizontal axis, with how far they reach to either side. */
  places?: readonly { at: number; half: number; text: string; color: string; front: boolean }[];
  /** What stands beside the lines, where they are of several quantities. */
  lineLabels: readonly LineLabel[];
  label: string;
  /** Of the second axis. */
  rightLabel: string | null;
  bottomLabel: string | null;
}
