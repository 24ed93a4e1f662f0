import { cos, sin, sinCos, atan2, square } from '../../elementary';
import { Refusal, orRefusal } from '../../refusal';
import { chanceOfBest, chanceOfGain } from '../../statistics/significance';
import { type ModelFunction, type Solution, type SolverOptions, leastSquares } from '../levenbergMarquardt';
import { linearLeastSquares } from '../linear';
import { type FitPoints, type Hint, type RelationSolution } from '../relation';
import { fillPower } from './polynomial';
import { directSums } from './polynomialSums';
import { swingSums, turnLength } from './swingSums';
import { type Swing, binned, mostBinnedCycles, searchSwing } from './swingGuess';
import { wrapped } from './wrapped';

const { PI } = Math;

/** Less of a swing than this, and offset, amplitude and period cannot be told apart. */
const fewestCycles = 0.4;
/** A swing that noise alone would show once in a thousand tries is not believed. */
const believable = 1e-3;
const noSwing = () =>
  new Refusal(
    'No swing stands out of the noise in this region (F test against none, at 1 in 1000). Mark a part where it swings, or record with less noise.',
  );
const noSwingBeyondDrift = (hint: string) =>
  new Refusal(
    `A slow drift explains this region as well as a swing does (F test at 1 in 1000), so it has no period.${hint}`,
  );

/** Abscissas mapped onto u ∈ [−1, 1], where the parameters hardly depend on each other. */
function centred(x: Float64Array): { u: Float64Array; middle: number; reach: number; step: number | null } {
  const n = x.length;
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < n; i++) {
    if (x[i] < low) low = x[i];
    if (x[i] > high) high = x[i];
  }
  const middle = low + (high - low) / 2;
  const reach = (high - low) / 2;
  if (!(reach > 0)) throw new Refusal('A sine needs readings at different places along the axis.');
  const u = new Float64Array(n);
  const step = 2 / (n - 1);
  let isRegular = true;
  for (let i = 0; i < n; i++) {
    u[i] = (x[i] - middle) / reach;
    if (Math.abs(u[i] + 1 - i * step) > 1e-9 * step + 1e-12) isRegular = false;
  }
  return { u, middle, reach, step: isRegular ? step : null };
}

/** a sin ωu + b cos ωu + c (+ d u). */
function swingModel(u: Float64Array, step: number | null, onLine: boolean): ModelFunction {
  return (parameters, first, out, jacobian) => {
    const [a, b, c, w] = parameters;
    const d = onLine ? parameters[4] : 0;
    const n = out.length;
    const turnS = step === null ? 0 : sin(w * step);
    const turnC = step === null ? 1 : cos(w * step);
    let s = 0;
    let k = 1;
    for (let start = 0; start < n; start += turnLength) {
      const end = Math.min(start + turnLength, n);
      for (let i = start; i < end; i++) {
        const at = u[first + i];
        if (step === null || i === start) {
          s = sin(w * at);
          k = cos(w * at);
        } else {
          const turned = s * turnC + k * turnS;
          k = k * turnC - s * turnS;
          s = turned;
        }
        out[i] = a * s + b * k + c + d * at;
        if (jacobian === null) continue;
        jacobian[0][i] = s;
        jacobian[1][i] = k;
        jacobian[2][i] = 1;
        jacobian[3][i] = at * (a * k - b * s);
        if (onLine) jacobian[4][i] = at;
      }
    }
  };
}

/** Residual sum of squares of a polynomial in u. */
function leftByPolynomial(u: Float64Array, y: Float64Array, degree: number): number {
  const solved = orRefusal(() =>
    linearLeastSquares(
      (first, columns) => {
        columns[0].fill(1);
        for (let k = 1; k <= degree; k++)
          fillPower(columns[k], columns[k - 1], { x: u, first, middle: 0, scale: 1 });
      },
      degree + 1,
      y,
      'dependent',
      degree === 1 || degree === 2 ? directSums(u, y, degree, { middle: 0, scale: 1 }) : null,
    ),
  );
  return solved instanceof Refusal ? Infinity : solved.residualSumOfSquares;
}

/** Starts the solver at a frequency, the other parameters solved for it. */
function fromFrequency(swing: Swing, angular: number): Solution | Refusal {
  const { y, onLine } = swing;
  return orRefusal(() => {
    const [a, b, c, d] = linearLeastSquares(
      (first, columns) => fillSwing(columns, swing, angular, first),
      onLine ? 4 : 3,
      y,
      'dependent',
    ).parameters;
    return fromParameters(swing, onLine ? [a, b, c, angular, d] : [a, b, c, angular]);
  });
}

/** Sine, cosine and 1 of the points from one on, and where they lie themselves. */
function fillSwing(
  columns: readonly Float64Array[],
  { u, step, onLine }: Swing,
  angular: number,
  first: number,
): void {
  const [sines, cosines, ones] = columns;
  const at = new Float64Array(2);
  sinCos(angular * (step ?? 0), at);
  const [turnS, turnC] = at;
  for (let i = 0; i < sines.length; i++) {
    if (step === null || i % turnLength === 0) sinCos(angular * u[first + i], at);
    else {
      const [s, k] = at;
      at[0] = s * turnC + k * turnS;
      at[1] = k * turnC - s * turnS;
    }
    sines[i] = at[0];
    cosines[i] = at[1];
  }
  ones.fill(1);
  if (onLine) columns[3].set(u.subarray(first, first + sines.length));
}

function fromParameters(
  { u, y, step, onLine }: Swing,
  start: number[],
  options: SolverOptions = {},
): Solution {
  return leastSquares(swingModel(u, step, onLine), y, start, {
    ...(step === null || onLine ? {} : { sums: swingSums(u, y, step) }),
    ...options,
  });
}

/** A gain below this share of the sum of squares cannot be seen while a hand moves. */
const movingTolerance = 1e-7;
/** A step that promises so little is believed while a hand moves; at rest everything is confirmed. */
const movingBelief = 1e-4;
/** The last step at rest, which moves no parameter by a thousandth of its uncertainty, need not be seen either. */
const lastBelief = 1e-10;

/**
 * The global least-squares sine, with or without a line under it: candidates over all frequencies from 0.4 cycles in the
 * region to one cycle in two readings, the best of them sharpened by the solver. A sine must earn its place: it has to leave
 * distinctly less over than no swing does (F test, times the number of frequencies that were tried), and than a slow bend.
 */
export function solveSwing(points: FitPoints, hint: Hint, onLine: boolean): RelationSolution {
  const { y } = points;
  const n = y.length;
  const { u, middle, reach, step } = centred(points.x);
  const swing: Swing = { u, y, step, onLine };
  const mostCycles = (n - 1) / 2;
  const cyclesOf = ({ parameters }: Solution) => Math.abs(parameters[3]) / PI;
  const inReach = (solution: Solution) => cyclesOf(solution) < mostCycles * 0.995;

  let best: Solution | null = null;
  if (hint.near !== null) {
    const [amplitude, period, phase, offset, drift = 0] = hint.near;
    const omega = (2 * PI) / period;
    const turned = phase + omega * middle;
    const start = [amplitude * cos(turned), amplitude * sin(turned), offset + drift * middle, omega * reach];
    const nearby = orRefusal(() =>
      fromParameters(swing, onLine ? [...start, drift * reach] : start, {
        tolerance: movingTolerance,
        believed: movingBelief,
        damping: 1e-9,
      }),
    );
    if (!(nearby instanceof Refusal) && inReach(nearby) && cyclesOf(nearby) >= fewestCycles) best = nearby;
  }
  const isConfirmed = best === null;
  if (best === null) {
    const coarse = binned(swing, 2048);
    const { candidates, total, leftOverAt } = searchSwing(swing, fewestCycles, mostCycles);
    let rough: { solution: Solution; isCoarse: boolean; leftOver: number } | null = null;
    for (const { angular, leftOver } of candidates) {
      // A candidate lies at most a sixteenth of a cycle beside its minimum, which costs a few per cent of the swing; one that
      // leaves more than that over belongs to another frequency's minimum and cannot win.
      if (rough !== null && leftOver > rough.leftOver + 0.15 * total) continue;
      const isCoarse = coarse.u.length < n && angular < mostBinnedCycles * PI;
      const solution = fromFrequency(isCoarse ? coarse : swing, angular);
      if (solution instanceof Refusal || !inReach(solution)) continue;
      const left = isCoarse ? leftOverAt(solution.parameters[3]) : solution.residualSumOfSquares;
      if (rough === null || left < rough.leftOver) rough = { solution, isCoarse, leftOver: left };
    }
    if (rough !== null) {
      const { parameters } = rough.solution;
      const fine = rough.isCoarse
        ? orRefusal(() => fromParameters(swing, parameters, { damping: 1e-9, believed: lastBelief }))
        : rough.solution;
      if (!(fine instanceof Refusal) && inReach(fine)) best = fine;
    }
  }
  if (best === null) throw new Refusal('No sine fits this region. Mark at least half a swing.');
  const found = best;
  const parameterCount = onLine ? 5 : 4;
  const sum = found.residualSumOfSquares;

  if (isConfirmed) {
    const without = leftByPolynomial(u, y, onLine ? 1 : 0);
    const chance = chanceOfBest(chanceOfGain(without, sum, 3, n - parameterCount), mostCycles);
    if (chance > believable) throw noSwing();
    const bend = leftByPolynomial(u, y, onLine ? 3 : 2);
    if (chanceOfGain(bend, sum, 1, n - parameterCount) > believable) {
      if (onLine) throw noSwingBeyondDrift(' Mark a longer region.');
      const underneath = orRefusal(() => solveSwing(points, { near: null }, true));
      throw noSwingBeyondDrift(
        underneath instanceof Refusal
          ? ' Mark a longer region.'
          : ' There is a swing upon the drift: take the relation “sine on a line”.',
      );
    }
    if (cyclesOf(found) < fewestCycles)
      throw new Refusal(
        'The region holds less than half a swing, so its period cannot be determined. Make the region longer.',
      );
  }

  const [a, b, , w] = found.parameters;
  const sign = Math.sign(w);
  const amplitude = Math.hypot(a, b);
  if (!(amplitude > 0)) throw new Refusal('There is no swing in this region.');
  const omega = Math.abs(w) / reach;
  const named = (own: readonly number[]): number[] => {
    const turn = Math.sign(own[3]);
    const rate = Math.abs(own[3]) / reach;
    const phase = wrapped(atan2(own[1], turn * own[0]) - rate * middle);
    const drift = onLine ? own[4] / reach : 0;
    return [
      Math.hypot(own[0], own[1]),
      (2 * PI) / rate,
      phase,
      own[2] - drift * middle,
      ...(onLine ? [drift] : []),
    ];
  };
  const padded = (row: number[], last = 0) => (onLine ? [...row, last] : row);
  return {
    solution: found,
    named,
    transformation: [
      padded([a / amplitude, b / amplitude, 0, 0]),
      padded([0, 0, 0, (-2 * PI * sign) / (omega * omega * reach)]),
      padded([(-sign * b) / square(amplitude), (sign * a) / square(amplitude), 0, (-sign * middle) / reach]),
      padded([0, 0, 1, 0], -middle / reach),
      ...(onLine ? [[0, 0, 0, 0, 1 / reach]] : []),
    ],
    value(own, x) {
      const at = (x - middle) / reach;
      return own[0] * sin(own[3] * at) + own[1] * cos(own[3] * at) + own[2] + (onLine ? own[4] * at : 0);
    },
    slope(own, x) {
      const angle = (own[3] * (x - middle)) / reach;
      return (own[3] * (own[0] * cos(angle) - own[1] * sin(angle)) + (onLine ? own[4] : 0)) / reach;
    },
    gradient(own, x) {
      const at = (x - middle) / reach;
      const [s, k] = [sin(own[3] * at), cos(own[3] * at)];
      return padded([s, k, 1, at * (own[0] * k - own[1] * s)], at);
    },
  };
}
