import { type Influence } from '../results/quantity';

/** A relation that was fitted: its parameters, how well they are known, and what it leaves. */
export interface Fit {
  /** Named parameters of the relation, in its order. */
  parameters: number[];
  /** Standard uncertainties (one standard deviation), in the same order. */
  standardUncertainties: number[];
  covariance: number[][];
  /** Degrees of freedom by which the uncertainties are known. */
  degreesOfFreedom: number;
  /** √(RSS / (n − p)), in the unit of y. */
  residualStandardDeviation: number;
  residualSumOfSquares: number;
  /** Σ of squared residuals over their variances, for each degree of freedom; only where points count by their uncertainties. */
  reducedChiSquared?: number;
  /** 1 − RSS / Σ(y − ȳ)². */
  rSquared: number;
  count: number;
  /** y − fitted value, for each point. */
  residuals(): Float64Array;
  /** The fitted value at x. */
  valueAt(x: number): number;
  /** Standard uncertainty of the fitted value at x, by that of the parameters. */
  uncertaintyAt(x: number): number;
  /** What moves one of the parameters; empty for plain numbers. */
  influencesOn(parameter: number): Influence[];
  /**
   * How far one of the parameters moves, to first order, when every value and every place changes by so much; null where the
   * places stay.
   */
  movedBy(parameter: number, values: Float64Array, places: Float64Array | null): number;
  /** The same where every value changes alike. */
  movedEvenly(parameter: number, by: number): number;
  /** Largest share of its own uncertainty by which the noise of x would have shifted a parameter, had it not been corrected. */
  correctedShift: number;
  iterations: number;
  reason: string;
  /** Sentences about what the fit leaves standing. */
  remarks: string[];
}
