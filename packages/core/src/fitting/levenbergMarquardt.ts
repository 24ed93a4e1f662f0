import { Refusal } from '../refusal';
import { solveLowerTransposed, solveUpper, triangularise } from './householder';

/**
 * A relation as the solver sees it: fills `out` with the model at the given parameters, and `jacobian` (one column a
 * parameter) with its partial derivatives where that is asked for.
 */
export type ModelFunction = (
  parameters: readonly number[],
  out: Float64Array,
  jacobian: readonly Float64Array[] | null,
) => void;

export interface Solution {
  parameters: number[];
  residualSumOfSquares: number;
  /** Partial derivatives at the solution, one column a parameter. */
  jacobian: Float64Array[];
  residuals: Float64Array;
  iterations: number;
  /** Why the search ended. */
  reason: 'gradient vanishes' | 'steps vanish' | 'sum of squares settles';
}

export interface SolverOptions {
  maxIterations?: number;
}

const epsilon = 2 ** -52;

/**
 * Least squares by Levenberg and Marquardt in the scaled form of Moré (Lecture Notes in Mathematics 630 (1978) 105): every
 * step solves the damped problem by orthogonal triangularisation, never by the normal equations; parameters are scaled by
 * the largest column norms met so far; damping follows the gain ratio (Nielsen, IMM-REP-1999-05).
 * @param y readings, at least as many as parameters
 * @throws Refusal where the search does not settle or leaves the finite numbers
 */
export function leastSquares(
  model: ModelFunction,
  y: Float64Array,
  start: readonly number[],
  { maxIterations = 300 }: SolverOptions = {},
): Solution {
  const n = y.length;
  const p = start.length;
  if (n < p) throw new Refusal(`A fit with ${p} parameters needs at least ${p} readings; there are ${n}.`);
  const jacobian = Array.from({ length: p }, () => new Float64Array(n));
  const scale = new Array<number>(p).fill(0);
  const work = Array.from({ length: p + 1 }, () => new Float64Array(n));
  let residuals = new Float64Array(n);
  let trialResiduals = new Float64Array(n);
  let parameters = [...start];

  const evaluate = (
    at: readonly number[],
    into: Float64Array,
    columns: readonly Float64Array[] | null,
  ): number => {
    model(at, into, columns);
    let sum = 0;
    for (let i = 0; i < n; i++) {
      into[i] = y[i] - into[i];
      sum += into[i] * into[i];
    }
    return sum;
  };

  /**
   * Whether the model bends so much along a step that the step is not to be trusted: the second-order correction must stay
   * below three quarters of the step (Transtrum and Sethna, arXiv:1201.5885, eq. 9). It keeps the search from leaping onto a
   * plateau; close to the solution it is not worth its evaluation.
   */
  const bendsTooMuch = (
    step: readonly number[],
    predicted: number,
    damped: readonly (readonly number[])[],
  ): boolean => {
    if (predicted < 0.05 * sum) return false;
    const h = 0.1;
    model(
      parameters.map((value, k) => value + h * step[k]),
      trialResiduals,
      null,
    );
    const right = new Array<number>(p).fill(0);
    for (let i = 0; i < n; i++) {
      let linear = 0;
      for (let k = 0; k < p; k++) linear += jacobian[k][i] * step[k];
      const bend = (2 / h) * ((trialResiduals[i] - (y[i] - residuals[i])) / h - linear);
      for (let k = 0; k < p; k++) right[k] -= jacobian[k][i] * bend;
    }
    const correction = solveUpper(damped, solveLowerTransposed(damped, right));
    let bent = 0;
    let straight = 0;
    for (let k = 0; k < p; k++) {
      bent += (scale[k] * correction[k]) ** 2;
      straight += (scale[k] * step[k]) ** 2;
    }
    return !(2 * Math.sqrt(bent) <= 0.75 * Math.sqrt(straight));
  };

  let sum = evaluate(parameters, residuals, jacobian);
  if (!Number.isFinite(sum)) throw new Refusal('The relation has no finite value at the first guess.');
  let damping = 1e-3;
  let growth = 2;
  let quiet = 0;

  const finish = (reason: Solution['reason'], iterations: number): Solution => ({
    parameters,
    residualSumOfSquares: sum,
    jacobian,
    residuals,
    iterations,
    reason,
  });

  for (let iteration = 1; iteration <= maxIterations; iteration++) {
    for (let k = 0; k < p; k++) work[k].set(jacobian[k]);
    work[p].set(residuals);
    const r = triangularise(work);
    let gradientAngle = 0;
    for (let k = 0; k < p; k++) {
      let dot = 0;
      let norm = 0;
      for (let i = 0; i <= k; i++) {
        dot += r[i][k] * r[i][p];
        norm += r[i][k] * r[i][k];
      }
      norm = Math.sqrt(norm);
      if (!Number.isFinite(norm))
        throw new Refusal('The fit left the finite numbers. Choose another region.');
      scale[k] = Math.max(scale[k], norm, Number.MIN_VALUE);
      if (norm > 0 && sum > 0)
        gradientAngle = Math.max(gradientAngle, Math.abs(dot) / (norm * Math.sqrt(sum)));
    }
    if (gradientAngle < 1e-11) return finish('gradient vanishes', iteration);

    for (;;) {
      const stacked = Array.from({ length: p + 1 }, (_, k) => {
        const column = new Float64Array(2 * p);
        for (let i = 0; i < p; i++) column[i] = r[i][k];
        if (k < p) column[p + k] = Math.sqrt(damping) * scale[k];
        return column;
      });
      const damped = triangularise(stacked);
      const step = solveUpper(
        damped,
        Array.from({ length: p }, (_, i) => damped[i][p]),
      );
      let predicted = 0;
      for (let i = 0; i < p; i++) {
        let projected = 0;
        for (let k = i; k < p; k++) projected += r[i][k] * step[k];
        predicted += 2 * projected * r[i][p] - projected * projected;
      }
      const trial = parameters.map((value, k) => value + step[k]);
      const trialSum = bendsTooMuch(step, predicted, damped)
        ? Infinity
        : evaluate(trial, trialResiduals, null);
      const gain = (sum - trialSum) / predicted;
      const stepIsNothing = step.every((value, k) => Math.abs(value) <= 1e-13 * Math.abs(parameters[k]));
      const nothingToGain = predicted <= 4 * epsilon * sum;

      if (trialSum < sum && Number.isFinite(trialSum)) {
        const settled = sum - trialSum <= 4 * epsilon * sum;
        parameters = trial;
        [residuals, trialResiduals] = [trialResiduals, residuals];
        sum = evaluate(parameters, residuals, jacobian);
        damping *= Math.max(1 / 10, 1 - (2 * gain - 1) ** 3);
        damping = Math.max(damping, 1e-16);
        growth = 2;
        // One more step from here still sharpens the parameters, to which the sum is blind near its bottom.
        quiet = settled || nothingToGain ? quiet + 1 : 0;
        if (stepIsNothing) return finish('steps vanish', iteration);
        if (quiet >= 2) return finish('sum of squares settles', iteration);
        break;
      }
      if (stepIsNothing) return finish('steps vanish', iteration);
      if (nothingToGain) return finish('sum of squares settles', iteration);
      damping *= growth;
      growth *= 2;
      if (!Number.isFinite(damping))
        throw new Refusal('The fit finds no way down from here. Choose another region.');
    }
  }
  throw new Refusal(
    `The fit does not settle within ${maxIterations} steps. Choose another region or relation.`,
  );
}
