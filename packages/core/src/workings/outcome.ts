import { type Series } from '../series/series';
import { type Unit } from '../units/unit';

/** One number that a line works out for one run. */
export interface NamedResult {
  key: string;
  name: string;
  value: number;
  /** One standard deviation; null where the number has none of its own. */
  standardUncertainty: number | null;
  /** Where there is no uncertainty to round to: the spread that decides how many digits are worth showing. */
  roundTo: number | null;
  unit: Unit;
  main: boolean;
}

export interface Curve {
  x: Float64Array;
  y: Float64Array;
}

/** What one line says about one run. */
export type Outcome =
  | { kind: 'refused'; sentence: string }
  | { kind: 'region'; start: number; end: number }
  | { kind: 'series'; series: Series }
  | {
      kind: 'results';
      results: NamedResult[];
      /** Sentences that belong beside the numbers, e.g. about readings left out. */
      notes: string[];
      fitted: { curve: Curve; residuals: Curve; correlations: number[][]; count: number } | null;
    };
