import { type WorkingsDocument } from '@heuristor/contracts';
import { type NamedResult, type SeriesRef, type Unit } from '@heuristor/core';

/** What a screen is told about one line and one run; series stay in the worker. */
export type ShownOutcome =
  | { kind: 'refused'; sentence: string }
  | { kind: 'region' }
  | { kind: 'series'; symbol: string; quantity: string; unit: Unit; interval: number | null }
  | {
      kind: 'results';
      results: NamedResult[];
      notes: string[];
      correlations: number[][] | null;
      count: number | null;
    };

export interface DrawnRun {
  runId: string;
  x: Float64Array;
  y: Float64Array;
}

export interface DrawnTrace {
  key: string;
  /** What the trace shows; null for residuals of a fit. */
  reference: SeriesRef | null;
  symbol: string;
  quantity: string;
  unit: Unit;
  lines: DrawnRun[];
  /** Fitted curves that belong on this trace. */
  curves: DrawnRun[];
  low: number;
  high: number;
}

export interface RenderRequest {
  workings: WorkingsDocument;
  runIds: string[];
  /** Stretch of the horizontal axis that is looked at; null frames all data. */
  viewport: { from: number; to: number } | null;
  /** Width of the plots in pixels. */
  width: number;
}

export interface Rendered {
  outcomes: Record<string, Record<string, ShownOutcome>>;
  traces: DrawnTrace[];
  horizontal: { symbol: string; unit: Unit; quantity: string };
  /** Stretch that is drawn, and the one that would show all data. */
  viewport: { from: number; to: number };
  whole: { from: number; to: number };
  /** Finest step of the horizontal axis, for keys that move by one reading. */
  step: number;
}
