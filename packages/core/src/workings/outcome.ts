import { type Quantity } from '../results/quantity';
import { type LeftOutPass } from '../timing/edges';
import { type Series } from '../series/series';
import { type Unit } from '../units/unit';

/** One number that an entry works out for one run. */
export interface NamedResult {
  key: string;
  name: string;
  quantity: Quantity;
  /** Where there is no uncertainty to round to: the spread that decides how many digits are worth showing. */
  roundTo: number | null;
  main: boolean;
  /** How it comes about, worked out when somebody asks; absent where it is read off. */
  working?: () => Working;
}

export interface Curve {
  x: Float64Array;
  y: Float64Array;
}

/** An axis of a graph of its own. */
export interface GraphAxis {
  symbol: string;
  quantity: string;
  unit: Unit;
}

/** What is drawn over axes of its own, not over that of the readings. */
export interface OwnGraph {
  horizontal: GraphAxis;
  vertical: GraphAxis;
  /** A line over its places; bars between their edges, of which there is one more than of heights. */
  shape: 'line' | 'bars';
  /** Ascending. */
  x: Float64Array;
  y: Float64Array;
  /** The interval of the horizontal axis in which something stands out; absent where that is all of it. */
  usual?: { from: number; to: number };
  /** Places on the horizontal axis that are pointed out, with what stands beside them and how far to either side they reach. */
  marks: readonly { at: number; half: number; text: string }[];
}

/** What a fit leaves to draw and to look up. */
export interface Fitted {
  /** Key of the relation, or the text of its formula. */
  relation: string;
  curve: Curve;
  residuals(): Curve;
  correlations: number[][];
  count: number;
  /** Named parameters, from which the next search may start while the region moves. */
  parameters: number[];
  /** Unit of the curve and of the residuals. */
  unit: Unit;
  /** The fitted value anywhere, also where nothing was read. */
  valueAt(x: number): number;
  /** Half the width of the band in which a share of further readings would fall; 68 % where none is said. */
  bandAt(x: number, share?: number): number;
  /** Half the width of the band in which the curve itself lies with that probability. */
  curveBandAt(x: number, share?: number): number;
}

/** How a number came about, in TeX: its formula, and the same with the numbers put in. */
export interface Working {
  formula: string;
  putIn: string;
  /** What has to be said of it in words. */
  says?: string;
  /** Of a relation with its parameters, which is no sum that ends in a number: what they make the least. */
  least?: string;
}

/** Passes through a gate, as their numbers need it. */
export interface Passes {
  leftOut: LeftOutPass[];
  /** Their mean and standard deviation; null of none, or of a single one. */
  mean: Quantity | null;
  standardDeviation: number | null;
}

/** Numbers of one kind that an entry has found one by one. */
export interface EachFound {
  key: string;
  /** What they are called: “period of x”. */
  symbol: string;
  unit: Unit;
  quantities: readonly Quantity[];
  /** Over how many places those lie apart that may owe something to the same readings, as two periods do to the crossing between. */
  reach: number;
  /** What that is called. @param later place of the later one, from 0 @param apart how many places before it the other one is */
  between(later: number, apart: number): string;
}

/** More of them than these are no rows that anybody reads. */
export const mostEach = 200;

/** Sentences beside numbers; those that take long are worked out at rest only, and stand until then. */
export const noted = (
  notes: readonly string[],
  atRest: readonly string[] | null,
): { notes: string[]; atRest: readonly string[] | null } => ({
  notes: [...notes, ...(atRest ?? [])],
  atRest,
});

/** What one entry says about one run. */
export type Outcome =
  | {
      kind: 'refused';
      sentence: string;
      /** Where in its formula the fault lies. */
      at?: { from: number; to: number };
      /** The channel that the run does not have, where that is all that is in the way. */
      lacks?: string;
      /** True where the program itself is at fault, and not what it was asked. */
      isFault?: true;
    }
  | {
      kind: 'region';
      start: number;
      end: number;
      /** Its ends before it was cut to whole cycles. */
      cut: { start: number; end: number };
      notes: string[];
    }
  | {
      kind: 'series';
      series: Series;
      notes: string[];
      /** Where each value is a pass through a gate: their mean, and which passes were left out. */
      passes?: Passes;
    }
  | {
      kind: 'results';
      results: NamedResult[];
      /** Sentences that belong beside the numbers, e.g. about readings left out. */
      notes: string[];
      /** Those of them that are worked out at rest only; null of what was worked out while a hand moved. */
      atRest?: readonly string[] | null;
      /** What it found one by one, such as each cycle of a swing, worked out when somebody asks; absent where there is no such. */
      each?: () => readonly EachFound[];
      fitted: Fitted | null;
      /** What is drawn over the trace of its series, where it is no fit. */
      curve?: Curve;
      graph?: OwnGraph;
    };
