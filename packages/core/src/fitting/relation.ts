import { type Unit } from '../units/unit';
import { type Bounds, type Solution } from './levenbergMarquardt';

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
  /** Named parameters for the solver's own. */
  named(own: readonly number[]): number[];
  /** Partial derivatives of the named parameters by the solver's, at the solution: one row a name. */
  transformation: number[][];
  /**
   * The value at x for any values of the solver's parameters, reckoned about the middle of the points, so that nothing is lost
   * far from the origin.
   */
  value(own: readonly number[], x: number): number;
  /** Where parameters have bounds: all of them, and the same relation with only some of them free. */
  bounded?: {
    bounds: readonly Bounds[];
    parameters: readonly number[];
    among(parameters: readonly number[], places: readonly number[]): RelationSolution;
  };
  /** Derivative of the value by x. */
  slope(own: readonly number[], x: number): number;
  /** Partial derivatives of the value by the solver's parameters. */
  gradient(own: readonly number[], x: number): number[];
}

/** What a search may start from, and how thorough it must be. */
export interface Hint {
  /**
   * Named parameters of an earlier solution nearby: while a hand moves a region the search starts there, stops where nothing
   * visible is left to gain, and leaves the tests of its worth to the search at rest.
   */
  near: readonly number[] | null;
}

/** A relation in letters, as a physicist writes it; each letter stands for a parameter, in their order. */
export interface Letters {
  /** With x for the abscissa, as formulas are typed. */
  formula: string;
  of: readonly string[];
  /** What follows from these parameters, in the order of their names. */
  further?: readonly string[];
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
  letters: Letters;
  parameterCount: number;
  /** Those of the formula first, then what follows from them. */
  parameterNames(axes: FitAxes): ParameterName[];
  /** The value at x for the named parameters. */
  value(parameters: readonly number[], x: number): number;
  /** Whether its numbers mean something from any place on the axis, as a period and a value at the beginning do. */
  movable?: true;
  /** The axes whose zero means something in it, because they are multiplied, divided or raised to a power as a whole. */
  multiplies?: readonly ('x' | 'y')[];
  /** Fits with a first guess of its own. @throws Refusal where the points do not carry the relation */
  solve(points: FitPoints, hint: Hint): RelationSolution;
  /** What to say where the parameters cannot be told apart; of a relation that ships, a longer region helps. */
  whenDependent?: string;
  /** Sentences about what the fit leaves standing, e.g. a drift. */
  remarks?(points: FitPoints, solved: RelationSolution): string[];
}
