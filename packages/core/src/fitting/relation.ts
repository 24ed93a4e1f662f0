import { type Unit } from '../units/unit';
import { type Solution } from './levenbergMarquardt';

/** What a relation is fitted to: pairs in any order, all finite, at least one. */
export interface FitPoints {
  x: Float64Array;
  y: Float64Array;
}

/** The physical meaning of the axes, so that parameters can carry names that mean something. */
export interface FitAxes {
  xUnit: Unit;
  yUnit: Unit;
  xQuantity: string;
  yQuantity: string;
  xSymbol: string;
  ySymbol: string;
}

export interface ParameterName {
  key: string;
  name: string;
  unit: Unit;
  /** The parameter people fit this relation for. */
  main: boolean;
}

/** A solution in the solver's own parameters, and the way from these to the named ones. */
export interface RelationSolution {
  solution: Solution;
  /** Named parameters at the solution. */
  parameters: number[];
  /** Partial derivatives of the named parameters by the solver's. */
  transformation: number[][];
}

/**
 * A relation between two quantities. Adding one: a file with such an object, and its line in the registry; menus, reports
 * and checks find it there.
 */
export interface Relation {
  key: string;
  /** The word in menus and sentences: "sine". */
  title: string;
  /** The formula in print, with the parameters' names. */
  formula: string;
  parameterCount: number;
  parameterNames(axes: FitAxes): ParameterName[];
  /** The value at x for the named parameters. */
  value(parameters: readonly number[], x: number): number;
  /** Fits with a first guess of its own. @throws Refusal where the points do not carry the relation */
  solve(points: FitPoints): RelationSolution;
}
