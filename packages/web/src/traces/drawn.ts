import { type Panel } from '@heuristor/contracts';
import { type SeriesRef, type Unit } from '@heuristor/core';
import {
  type Axis,
  type Bars,
  type FittedCurve,
  type Line,
  type Sight,
  type Whole,
} from '../workers/protocol';

/** The scale that something is drawn in. */
export type Side = 'left' | 'right';

export interface DrawnRun extends Line {
  runId: string;
  side: Side;
}

export interface DrawnLine extends DrawnRun {
  /** Which of the quantities of its trace it shows, from 0. */
  place: number;
  isBand: boolean;
  pinned?: Line;
  strays?: Line;
  aside?: Line;
  bars?: Bars;
  isDots?: boolean;
}

/** A vertical axis with what is read on it. */
export interface DrawnAxis {
  /** Symbols of what it shows: "x", or "x, y". */
  symbol: string;
  unit: Unit;
  low: number;
  high: number;
  /** Equal ratios are equally long on it; both ends are above zero. */
  isLogarithmic?: true;
}

/** A quantity of a trace, and the axis on which it is read. */
export interface DrawnQuantity {
  reference: SeriesRef;
  symbol: string;
  /** In words: "position"; empty where it has none. */
  quantity: string;
  side: Side;
}

/** One panel of the stack, with the lines of all runs in one unit an axis; its own axis is the left one. */
export interface DrawnTrace extends DrawnAxis {
  key: string;
  /** What the trace shows first; null for residuals of a fit. */
  reference: SeriesRef | null;
  quantities: DrawnQuantity[];
  /** A second axis, for what is measured in another unit. */
  right: DrawnAxis | null;
  /** Symbols of what is in a third unit, and is not drawn. */
  lacking: string[];
  weight: number;
  lines: DrawnLine[];
  /** Least and greatest value of what each line is a part of. */
  wholes: ({ side: Side } & Whole)[];
  curves: (DrawnRun & Pick<FittedCurve, 'look'>)[];
  /** Runs that measure something else under this name, or under that of the horizontal axis, and are not drawn. */
  others: string[];
  /** How many of its values are not above zero, and stand on no logarithmic axis. */
  notPositive?: number;
  /** The line that is to be followed here. */
  target?: Line;
  /** How its readings are drawn, and where its legend was put. */
  look?: Panel['look'];
  legend?: Panel['legend'];
}

/** A line that is to be followed, where it belongs. */
export interface ShownTarget extends Line {
  reference: SeriesRef;
  symbol: string;
  unit: Unit;
}

/** Whether axes show their zero: all, none, or those whose values lie near it. */
export type ZeroShown = boolean | 'near';

export interface Frame {
  horizontal: Axis;
  /** Part of the axis that is drawn, and the one that would show all data. */
  sight: Sight;
  whole: Sight;
  /** How many values of what it shows stand on no logarithmic axis. */
  notPositive: number;
  withZero: ZeroShown;
  target: ShownTarget | null;
  /** Vertical axes that a hand has set, by trace and side. */
  scales: Readonly<Record<string, Sight>>;
  /** Whether the others are made for what is in sight, or for all of the data. */
  reach: 'shown' | 'all';
  /** While readings come, what is looked at changes calmly. */
  isGrowing: boolean;
  /** Finest step of the horizontal axis, for keys that move by one reading. */
  step: number;
}
