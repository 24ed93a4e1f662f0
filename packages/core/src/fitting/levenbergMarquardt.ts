import { pow, square } from '../elementary';
import { Refusal } from '../refusal';
import {
  type Triangle,
  absorb,
  blockRows,
  emptyTriangle,
  fewRows,
  solveLowerTransposed,
  solveUpper,
} from './householder';
import { GramSum } from './gram';

/**
 * A relation as the solver sees it: fills `out` with the model for readings `first`, `first + 1`, … up to the length of
 * `out`, and `jacobian` (one column a parameter) with its partial derivatives where that is asked for.
 */
export type ModelFunction = (
  parameters: readonly number[],
  first: number,
  out: Float64Array,
  jacobian: readonly Float64Array[] | null,
) => void;

export interface Solution {
  parameters: number[];
  residualSumOfSquares: number;
  /** Triangle of the Jacobian at the solution, p × p: RᵀR = JᵀJ. */
  triangle: Triangle;
  /** y − model, for each reading. */
  residuals(): Float64Array;
  /** Partial derivatives at the solution, one column a parameter. */
  jacobian(): Float64Array[];
  iterations: number;
  /** Why the search ended. */
  reason: 'gradient vanishes' | 'steps vanish' | 'sum of squares settles' | 'solved at once';
}

/** The sums of the partial derivatives and the residuals, each with each, and of the squared residuals. */
export type SolverSums = (parameters: readonly number[]) => { gram: GramSum; sum: number };

/** Ends between which a parameter stays; null where it is free on that side. */
export interface Bounds {
  readonly low: number | null;
  readonly high: number | null;
}

/** A value brought between its bounds. */
const withinBounds = (value: number, { low, high }: Bounds): number =>
  Math.min(Math.max(value, low ?? -Infinity), high ?? Infinity);

export interface SolverOptions {
  /** Of each parameter; all are free where it is left out. */
  bounds?: readonly Bounds[];
  maxIterations?: number;
  /** Relative gain in the sum of squares that is no longer worth a step; the rounding of a double where it is left out. */
  tolerance?: number;
  /** How much the first step is held back; little where the start is known to be near. */
  damping?: number;
  /**
   * A step that promises to gain less than this share of the sum of squares is believed without another pass over the readings:
   * near the bottom the promise is right to second order. None where it is left out.
   */
  believed?: number;
  /** Where all sums of a step are known without writing its columns down. */
  sums?: SolverSums;
}

const epsilon = 2 ** -52;

/** The first value that is no finite number, or −1: all of them times nothing are nothing where there is none. */
function firstUnfit(values: Float64Array): number {
  let even = 0;
  let odd = 0;
  const n = values.length;
  for (let i = 0; i + 1 < n; i += 2) {
    even += 0 * values[i];
    odd += 0 * values[i + 1];
  }
  if (n % 2 === 1) even += 0 * values[n - 1];
  return even + odd === 0 ? -1 : values.findIndex((value) => !Number.isFinite(value));
}

/** Takes off what a model bends along a step by second differences, each time a column. */
function subtractBend(
  right: number[],
  columns: readonly Float64Array[],
  { step, h, ahead }: { step: readonly number[]; h: number; ahead: Float64Array },
): void {
  const p = step.length;
  const here = columns[p];
  for (let i = 0; i < ahead.length; i++) {
    let linear = 0;
    for (let k = 0; k < p; k++) linear += columns[k][i] * step[k];
    const bend = (2 / h) * ((ahead[i] - here[i]) / h - linear);
    for (let k = 0; k < p; k++) right[k] -= columns[k][i] * bend;
  }
}

/**
 * Least squares by Levenberg and Marquardt in the scaled form of Moré (Lecture Notes in Mathematics 630 (1978) 105): every
 * step solves the damped problem by orthogonal triangularisation, never by the normal equations; parameters are scaled by
 * the largest column norms met so far; damping follows the gain ratio (Nielsen, IMM-REP-1999-05). Readings are gone through
 * in blocks, so that no matrix is held. A parameter that the model does not feel at the start is left standing until it does.
 * Between bounds, a step is cut where it leaves them; a parameter that stands at a bound is held only while the sum of squares
 * falls beyond it, and let go as soon as it does not (projected steps: Bertsekas, SIAM J. Control Optim. 20 (1982) 221).
 * @param y readings, at least as many as parameters, all finite
 * @throws Refusal where readings are not finite, the search does not settle or leaves the finite numbers
 */
export function leastSquares(
  model: ModelFunction,
  y: Float64Array,
  start: readonly number[],
  {
    maxIterations = 300,
    tolerance = 4 * epsilon,
    damping: firstDamping = 1e-3,
    believed = 0,
    sums,
    bounds,
  }: SolverOptions = {},
): Solution {
  const n = y.length;
  const p = start.length;
  if (n < p) throw new Refusal(`A fit with ${p} parameters needs at least ${p} readings; there are ${n}.`);
  const unfit = firstUnfit(y);
  if (unfit >= 0) throw new Refusal(`Reading ${unfit + 1} is ${y[unfit]}; a fit needs finite numbers.`);
  const scale = new Array<number>(p).fill(0);
  const room = Math.min(blockRows, n);
  const work = Array.from({ length: p + 1 }, () => new Float64Array(room));
  const shifted = new Float64Array(room);

  interface State {
    parameters: number[];
    sum: number;
    /** Triangle of (J | residuals), (p + 1) × (p + 1). */
    r: Triangle;
  }

  /** One pass over all readings: the sum of squares and the triangle of what the next step needs. */
  const evaluate = (parameters: number[], byReflections = n <= fewRows): State => {
    const r = emptyTriangle(p + 1);
    if (!byReflections && sums !== undefined) {
      const { gram, sum } = sums(parameters);
      if (!Number.isFinite(sum)) return { parameters, sum, r };
      const triangle = gram.triangle(p);
      return triangle === null ? evaluate(parameters, true) : { parameters, sum, r: triangle };
    }
    const gram = byReflections ? null : new GramSum(p + 1);
    let sum = 0;
    for (let from = 0; from < n; from += blockRows) {
      const rows = Math.min(blockRows, n - from);
      const columns = rows === room ? work : work.map((column) => column.subarray(0, rows));
      const residuals = columns[p];
      model(parameters, from, residuals, columns);
      for (let i = 0; i < rows; i++) {
        residuals[i] = y[from + i] - residuals[i];
        sum += residuals[i] * residuals[i];
      }
      if (!Number.isFinite(sum)) return { parameters, sum, r };
      if (gram === null) absorb(r, columns, rows);
      else gram.add(columns, rows);
    }
    if (gram === null) return { parameters, sum, r };
    const triangle = gram.triangle(p);
    return triangle === null ? evaluate(parameters, true) : { parameters, sum, r: triangle };
  };

  /**
   * Whether the model bends so much along a step that the step is not to be trusted: the second-order correction must stay
   * below three quarters of the step (Transtrum and Sethna, arXiv:1201.5885, eq. 9). It keeps the search from leaping onto a
   * plateau; close to the solution it is not worth its evaluation.
   */
  const bendsTooMuch = (
    { parameters, sum }: State,
    step: readonly number[],
    predicted: number,
    damped: Triangle,
  ): boolean => {
    if (predicted < 0.05 * sum) return false;
    const h = 0.1;
    const right = new Array<number>(p).fill(0);
    const along = parameters.map((value, k) => value + h * step[k]);
    for (let from = 0; from < n; from += blockRows) {
      const rows = Math.min(blockRows, n - from);
      const columns = work.map((column) => column.subarray(0, rows));
      const ahead = shifted.subarray(0, rows);
      model(parameters, from, columns[p], columns);
      model(along, from, ahead, null);
      subtractBend(right, columns, { step, h, ahead });
    }
    const correction = solveUpper(damped, solveLowerTransposed(damped, right));
    let bent = 0;
    let straight = 0;
    for (let k = 0; k < p; k++) {
      bent += square(scale[k] * correction[k]);
      straight += square(scale[k] * step[k]);
    }
    return !(2 * Math.sqrt(bent) <= 0.75 * Math.sqrt(straight));
  };

  /** Brought between its bounds; what is within rounding of one stands there. */
  const clipped = (parameters: readonly number[]): number[] =>
    bounds === undefined
      ? [...parameters]
      : parameters.map((value, k) => {
          const { low, high } = bounds[k];
          const isAt = (bound: number | null) =>
            bound !== null && Math.abs(value - bound) <= 4 * epsilon * Math.abs(bound);
          return isAt(low) ? (low ?? value) : isAt(high) ? (high ?? value) : withinBounds(value, bounds[k]);
        });
  /** The damped step from a state. Between bounds it ends at the first one that it meets. */
  const dampedStep = (
    { r, parameters }: State,
    damping: number,
    held: number,
    pressed: ReadonlySet<number>,
  ): { damped: Triangle; step: number[] } => {
    const still = new Set(pressed);
    for (;;) {
      const damped = emptyTriangle(p + 1);
      for (let i = 0; i <= p; i++) for (let j = i; j <= p; j++) damped[i][j] = still.has(j) ? 0 : r[i][j];
      const columns = Array.from({ length: p + 1 }, (_, k) => {
        const column = new Float64Array(p);
        if (k < p) column[k] = Math.sqrt(damping) * (scale[k] > 0 ? scale[k] : held);
        return column;
      });
      absorb(damped, columns, p);
      const step = solveUpper(
        damped,
        Array.from({ length: p }, (_, i) => damped[i][p]),
      ).map((value, k) => (still.has(k) ? 0 : value));
      if (bounds === undefined) return { damped, step };
      // What stands at a bound and would leave it stays, and the others step anew.
      const room = step.map((value, k) => {
        const bound = value > 0 ? bounds[k].high : bounds[k].low;
        return value === 0 || bound === null ? Infinity : (bound - parameters[k]) / value;
      });
      const leaving = room.flatMap((share, k) => (share <= 0 ? [k] : []));
      if (leaving.length === 0) {
        const share = Math.min(1, ...room);
        return { damped, step: step.map((value) => share * value) };
      }
      leaving.forEach((k) => still.add(k));
    }
  };

  let state = evaluate(clipped(start));
  if (!Number.isFinite(state.sum)) throw new Refusal('The relation has no finite value at the first guess.');
  let damping = firstDamping;
  let growth = 2;
  let quiet = 0;

  const finish = (reason: Solution['reason'], iterations: number): Solution => {
    const { parameters, sum, r } = state;
    return {
      parameters,
      residualSumOfSquares: sum,
      triangle: Array.from({ length: p }, (_, i) => r[i].slice(0, p)),
      residuals() {
        const out = new Float64Array(n);
        model(parameters, 0, out, null);
        for (let i = 0; i < n; i++) out[i] = y[i] - out[i];
        return out;
      },
      jacobian() {
        const columns = Array.from({ length: p }, () => new Float64Array(n));
        model(parameters, 0, new Float64Array(n), columns);
        return columns;
      },
      iterations,
      reason,
    };
  };

  for (let iteration = 1; iteration <= maxIterations; iteration++) {
    const { r, sum, parameters } = state;
    let gradientAngle = 0;
    /** Parameters at a bound beyond which the sum falls. */
    const pressed = new Set<number>();
    for (let k = 0; k < p; k++) {
      let dot = 0;
      let norm = 0;
      for (let i = 0; i <= k; i++) {
        dot += r[i][k] * r[i][p];
        norm += r[i][k] * r[i][k];
      }
      norm = Math.sqrt(norm);
      if (!Number.isFinite(norm))
        throw new Refusal('The fit reached numbers that are not finite. Choose another region.');
      scale[k] = Math.max(scale[k], norm);
      const { low = null, high = null } = bounds?.[k] ?? {};
      if (
        (low !== null && parameters[k] <= low && dot <= 0) ||
        (high !== null && parameters[k] >= high && dot >= 0)
      )
        pressed.add(k);
      else if (norm > 0 && sum > 0)
        gradientAngle = Math.max(gradientAngle, Math.abs(dot) / (norm * Math.sqrt(sum)));
    }
    if (gradientAngle < 1e-11) return finish('gradient vanishes', iteration);
    // What the model does not feel here is held by a damping of its own, so that it neither moves nor blocks the others.
    const held = Math.max(...scale, Number.MIN_VALUE);

    for (;;) {
      const { damped, step } = dampedStep(state, damping, held, pressed);
      let predicted = 0;
      for (let i = 0; i < p; i++) {
        let projected = 0;
        for (let k = i; k < p; k++) projected += r[i][k] * step[k];
        predicted += 2 * projected * r[i][p] - projected * projected;
      }
      if (bounds === undefined && predicted >= 0 && predicted < believed * sum) {
        state = { parameters: parameters.map((value, k) => value + step[k]), sum: sum - predicted, r };
        return finish('sum of squares settles', iteration);
      }
      const trial: State = bendsTooMuch(state, step, predicted, damped)
        ? { parameters, sum: Infinity, r }
        : evaluate(clipped(parameters.map((value, k) => value + step[k])));
      const gain = (sum - trial.sum) / predicted;
      const stepIsNothing = step.every((value, k) => Math.abs(value) <= 1e-13 * Math.abs(parameters[k]));
      const nothingToGain = predicted <= tolerance * sum;

      if (trial.sum < sum && Number.isFinite(trial.sum)) {
        const settled = sum - trial.sum <= tolerance * sum;
        state = trial;
        damping *= Math.max(1 / 10, 1 - pow(2 * gain - 1, 3));
        damping = Math.max(damping, 1e-16);
        growth = 2;
        // One more step from here still sharpens the parameters, to which the sum is blind near its bottom.
        quiet = settled || nothingToGain ? quiet + 1 : 0;
        if (stepIsNothing) return finish('steps vanish', iteration);
        if (quiet >= (tolerance > 4 * epsilon ? 1 : 2)) return finish('sum of squares settles', iteration);
        break;
      }
      if (stepIsNothing) return finish('steps vanish', iteration);
      if (nothingToGain) return finish('sum of squares settles', iteration);
      damping *= growth;
      growth *= 2;
      if (!Number.isFinite(damping))
        throw new Refusal('The fit cannot improve on its start values. Choose another region.');
    }
  }
  throw new Refusal(
    `The fit does not converge within ${maxIterations} steps. Choose another region or relation.`,
  );
}
