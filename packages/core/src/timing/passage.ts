import { type Unit } from '../units/unit';
import { type Edge, type LeftOutPass } from './edges';

/** How strongly the time of one edge moves a value. */
export interface EdgeWeight {
  edge: number;
  weight: number;
}

/** What the arithmetic makes of edges: values at ascending moments, and what moves them. */
export interface Timed {
  times: number[];
  values: number[];
  /** Derivative of each value by the times of the edges that it comes from. */
  byEdge: EdgeWeight[][];
  /** Derivative of each value by the typed length; 0 where it does not depend on it. */
  byLength: number[];
  /** Passes that are no measurement, by the moments at which they were. */
  leftOut: LeftOutPass[];
}

/** One quantity that can be determined from the edges. */
export interface TimedQuantity {
  symbol: string;
  quantity: string;
  /** Of values that come from a length in this unit and times in that one. */
  unit(length: Unit, time: Unit): Unit;
}

/** What is known of how edges came about. */
export interface EdgesOf {
  edges: readonly Edge[];
  /** Typed length, in the unit in which results are to be; 1 where there is none. */
  length: number;
  /** One second in the unit of the edges' times. */
  second: number;
}

export const nothingTimed = (leftOut: LeftOutPass[] = []): Timed => ({
  times: [],
  values: [],
  byEdge: [],
  byLength: [],
  leftOut,
});

/** Adds a value to what was timed. */
export function addTimed(
  timed: Timed,
  time: number,
  value: number,
  byEdge: EdgeWeight[],
  byLength: number,
): void {
  timed.times.push(time);
  timed.values.push(value);
  timed.byEdge.push(byEdge);
  timed.byLength.push(byLength);
}
