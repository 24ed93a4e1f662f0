import { type WorkingsDocument } from '@heuristor/contracts';
import {
  type Condition,
  type LeftOutPass,
  type Ranges,
  type SeriesRef,
  type TriedRelation,
  type Unit,
} from '@heuristor/core';
import { type VisibleEntries } from './visibleEntries';

/** One number on its way to the screen: plain, without what only the core can ask of it. */
export interface ShownResult extends ShownQuantity {
  key: string;
  name: string;
  roundTo: number | null;
  main: boolean;
  /** Whether it can be told how it comes about. */
  isWorkedOut?: boolean;
}

/** A value with what is known of its uncertainty. */
export interface ShownQuantity {
  value: number;
  /** What stands behind ±: half the width of the 68 % interval; null where the number has none of its own. */
  halfWidth: number | null;
  standardUncertainty: number | null;
  /** Where the half width is wider than the standard uncertainty: by how many degrees of freedom that is known. */
  degreesOfFreedom: number | null;
  unit: Unit;
}

/** Passes through a gate, one value each. */
export interface ShownPasses {
  times: Float64Array;
  values: Float64Array;
  uncertainties: Float64Array;
  leftOut: LeftOutPass[];
  mean: ShownQuantity | null;
  standardDeviation: number | null;
}

/** What a screen is told about one entry and one run; series stay in the worker. */
export type ShownOutcome =
  | {
      kind: 'refused';
      sentence: string;
      /** The channel that the run does not have, where that is all that is in the way. */
      lacks?: string;
      /** Where in the formula of the entry the fault lies. */
      at?: { from: number; to: number };
    }
  | { kind: 'region'; start: number; end: number; cut: { start: number; end: number }; notes: string[] }
  | {
      kind: 'series';
      symbol: string;
      quantity: string;
      unit: Unit;
      interval: number | null;
      notes: string[];
      passes?: ShownPasses;
    }
  | {
      kind: 'results';
      results: ShownResult[];
      notes: string[];
      correlations: number[][] | null;
      count: number | null;
    };

export interface Line {
  x: Float64Array;
  y: Float64Array;
}

/** A curve that was fitted; fainter where nothing was read, and the edges of the band in which further readings would fall. */
export interface FittedCurve extends Line {
  look?: 'faint' | 'edge';
}

/** Values with how far each may be off, by one standard uncertainty. */
export interface Bars extends Line {
  half: Float64Array;
  /** The same along the horizontal axis, where places are uncertain too. */
  across?: Float64Array;
}

/** Readings as they are drawn; a band has its points in pairs, see `thinSeries`. */
export interface ThinLine extends Line {
  isBand: boolean;
  /** Where readings stand at a limit of the sensor: y is 1 at the upper one and −1 at the lower. */
  pinned?: Line;
  /** Echoes of something else, where they were read. */
  strays?: Line;
  /** Readings that a person has set aside. */
  aside?: Line;
  bars?: Bars;
  /** Values that are measurements of their own, which nothing joins. */
  isDots?: boolean;
}

/** Least and greatest value of a series. */
export interface Whole {
  low: number;
  high: number;
  /** Where it is drawn on a logarithmic axis: the least that is above zero, null where none is, and how many are not. */
  positive?: { least: number | null; others: number };
}

/** What one run draws on one trace. */
export interface RunTrace {
  symbol: string;
  quantity: string;
  unit: Unit;
  /** Null where it is the one that was sent last. */
  line: ThinLine | null;
  /** Least and greatest value of the whole series; none of one without a value. */
  whole: Whole | null;
  /** Fitted curves that belong on this trace. */
  curves: FittedCurve[];
  /** True where what the horizontal axis shows is something else in this run, so that it cannot be drawn. */
  isElsewhere?: true;
}

/** What one run draws over axes of its own. */
export interface RunGraph {
  horizontal: Axis;
  vertical: Axis;
  shape: 'line' | 'bars';
  /** Bars are told as the outline of their steps. Null where it is the one that was sent last. */
  line: ThinLine | null;
  /** Ends of the whole of it, or of what stands out. */
  reach: Sight;
  marks: readonly { at: number; half: number; text: string }[];
}

export interface Sight {
  from: number;
  to: number;
  /** Equal ratios are equally long on it; both ends are above zero. */
  isLogarithmic?: true;
}

export interface Axis {
  symbol: string;
  unit: Unit;
  quantity: string;
}

/** Ends of the horizontal axis in one run, and the finest step along it. */
export interface Extent extends Axis {
  low: number;
  high: number;
  /** The least that is above zero; null where nothing is. */
  leastPositive: number | null;
  /** How many are not, and can stand on no logarithmic axis. */
  notPositive: number;
  step: number | null;
}

export interface RenderRequest {
  workings: WorkingsDocument;
  /** What the shared horizontal axis shows. */
  horizontal: SeriesRef;
  /** The series that are drawn. */
  traces: SeriesRef[];
  /** Entries whose graphs of their own are drawn, with the stretch of their axis that is looked at; null is all of it. */
  graphs: Partial<Record<SeriesRef, Sight | null>>;
  /** Stretch of the horizontal axis that is looked at. */
  sight: Sight;
  /** Unit that the horizontal axis is drawn in; runs in another one are brought into it. */
  axisUnit: Unit;
  /** Width of the plots in pixels. */
  width: number;
  /** True while a hand moves something: what can wait is left out. */
  moving: boolean;
  /** The entries that are worked out now; null is all of them. What is drawn comes with it. */
  visible: VisibleEntries | null;
  /** What was said of runs, by their ids. */
  conditions: Readonly<Record<string, readonly Condition[]>>;
  /** The run whose fitted curves are drawn also while a hand moves. */
  frontRunId: string | null;
  /** True where what was sent before was lost: everything is sent again. */
  asksForAll: boolean;
  /** What is drawn on a logarithmic vertical axis. */
  logarithmic?: readonly SeriesRef[];
  /** Vertical stretches that a hand has set, where points stand against points. */
  heights: Partial<Record<SeriesRef, Sight & { unit: Unit }>>;
}

/** What one run says and draws. Outcomes and lines that have not changed since the last answer are left out. */
export interface RenderedRun {
  runId: string;
  changed: Record<string, ShownOutcome>;
  entryIds: string[];
  traces: Record<string, RunTrace>;
  residuals: Record<string, RunTrace>;
  graphs: Partial<Record<SeriesRef, RunGraph>>;
}

/** What a cursor asks of runs: their values at one place of the time axis. */
export interface CursorQuestion {
  workings: WorkingsDocument;
  references: SeriesRef[];
  at: number;
  /** The nearest reading, or the straight line between two. */
  snap: boolean;
  /** Readings over which a tangent is laid; null where none is wanted. */
  tangentPoints: number | null;
  /** Whether it is told how much noise is in each value, which takes a while. */
  withNoise: boolean;
}

/** What one series of a run is at a cursor. */
export interface CursorValue {
  /** Where it was read. */
  x: number;
  y: number;
  unit: Unit;
  /** Standard deviation that noise gives to such a value; null where it is not known, or was not asked for. */
  noise: number | null;
  tangent: { slope: number; unit: Unit; window: number } | null;
}

export interface CursorReading {
  runId: string;
  values: Partial<Record<SeriesRef, CursorValue>>;
}

/** A stretch of an axis. */
export interface AxisInterval {
  /** UCUM code of the unit in which its ends are given, where that is not the one of each run. */
  unit?: string;
  along: SeriesRef;
  start: number;
  end: number;
}

/** A point of a plot. */
export interface Point {
  x: number;
  y: number;
}

/** An axis as it stands on the screen. */
export interface PlotAxis extends Sight {
  pixels: number;
}

/** Asks for the point of a series that stands nearest to a place of a plot. */
export interface PointQuestion {
  of: SeriesRef;
  along: SeriesRef;
  /** Of the place and the axes. */
  units: { x: Unit; y: Unit };
  place: Point;
  axes: { x: PlotAxis; y: PlotAxis };
  /** Pixels from the place within which a point is near. */
  reach: number;
}

/** What a hand has drawn around points of a plot. */
export interface Outline {
  of: SeriesRef;
  along: SeriesRef;
  units: { x: Unit; y: Unit };
  outline: readonly Point[];
}

/** A table of numbers: how many rows it has, and what its columns are. */
export interface TableShape {
  count: number;
  abscissa: Axis;
  /** From one row to the next on the abscissa; null of a single one. */
  step: number | null;
  /** Null where the run has no such series. */
  columns: (TableColumn | null)[];
}

export interface TableColumn extends Axis {
  /** Standard deviation that noise gives to one of its values; null where it is not known. */
  noise: number | null;
  /** Whether it was read at other times than the rows. */
  isBetween: boolean;
}

/** Rows of a table. */
export interface TablePart {
  first: number;
  times: Float64Array;
  columns: (Float64Array | null)[];
  /** 1 where a reading is no measurement, or was set aside. */
  leftOut: (Uint8Array | null)[];
}

/** Readings of a channel that were picked out of it. */
export interface ChosenReadings {
  channel: string;
  ranges: Ranges;
  /** All that it has. */
  total: number;
}

/** Every relation tried on the readings of a region. */
export interface TriedPoints {
  /** Points that are drawn: some of them, where there are many. */
  x: Float64Array;
  y: Float64Array;
  relations: TriedRelation[];
}
