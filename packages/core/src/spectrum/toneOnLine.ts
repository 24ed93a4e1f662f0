import { cos, sin } from '../elementary';
import { independentCovariance } from '../fitting/covariance';
import { isRankDeficient } from '../fitting/householder';
import { leastSquares } from '../fitting/levenbergMarquardt';
import { orRefusal } from '../refusal';
import { type Tone } from './tone';

/** A sine that stands on a straight line. */
export interface ToneOnLine extends Tone {
  /** Of the line, per unit of time. */
  slope: number;
  slopeBy: Float64Array;
  /** The line at a time. */
  lineAt(time: number): number;
}

const { hypot, PI, sqrt } = Math;

/**
 * The weighed least-squares sine with a straight line under it, all five numbers at once, so that a drift does not shift the sine.
 * @param times in any unit, from any beginning
 * @param weights of the window; a weight of nothing leaves a reading out
 * @param start frequency near that of the sine
 * @returns null where the search does not settle or the readings cannot tell the two apart
 */
export function toneOnLine(
  times: Float64Array,
  values: Float64Array,
  weights: Float64Array,
  start: number,
): ToneOnLine | null {
  const n = values.length;
  const middle = (times[0] + times[n - 1]) / 2;
  const reach = (times[n - 1] - times[0]) / 2;
  const roots = weights.map(sqrt);
  const weighted = values.map((value, i) => roots[i] * value);
  const columnsAt = (omega: number, i: number): [c: number, s: number, u: number] => {
    const t = times[i] - middle;
    return [cos(omega * t), sin(omega * t), t / reach];
  };
  const solved = orRefusal(() =>
    leastSquares(
      ([a, b, omega, offset, slope], first, out, jacobian) => {
        for (let k = 0; k < out.length; k++) {
          const i = first + k;
          const [c, s, u] = columnsAt(omega, i);
          const w = roots[i];
          out[k] = w * (a * c + b * s + offset + slope * u);
          if (jacobian === null) continue;
          jacobian[0][k] = w * c;
          jacobian[1][k] = w * s;
          jacobian[2][k] = w * (times[i] - middle) * (b * c - a * s);
          jacobian[3][k] = w;
          jacobian[4][k] = w * u;
        }
      },
      weighted,
      startOf(values, weights, 2 * PI * start, columnsAt),
    ),
  );
  if (solved instanceof Error || isRankDeficient(solved.triangle, 5)) return null;
  const [a, b, omega, offset, slope] = solved.parameters;
  const amplitude = hypot(a, b);
  if (!(amplitude > 0) || !(omega > 0)) return null;
  const normal = independentCovariance(solved.triangle, 1);
  const columns = solved.jacobian();
  /** How each reading moves a sum of the five numbers. */
  const by = (factors: readonly number[]) => {
    const weighing = normal.map((_, k) => factors.reduce((sum, factor, j) => sum + factor * normal[j][k], 0));
    return Float64Array.from(
      { length: n },
      (_, i) => roots[i] * weighing.reduce((sum, weight, k) => sum + weight * columns[k][i], 0),
    );
  };
  return {
    frequency: omega / (2 * PI),
    amplitude,
    slope: slope / reach,
    frequencyBy: by([0, 0, 1 / (2 * PI), 0, 0]),
    amplitudeBy: by([a / amplitude, b / amplitude, 0, 0, 0]),
    slopeBy: by([0, 0, 0, 0, 1 / reach]),
    lineAt: (time) => offset + (slope * (time - middle)) / reach,
  };
}

/** Amplitudes and line at the first frequency, by the projections that are nearly independent of one another. */
function startOf(
  values: Float64Array,
  weights: Float64Array,
  omega: number,
  columnsAt: (omega: number, i: number) => [number, number, number],
): number[] {
  let [sum, mean, up, spread] = [0, 0, 0, 0];
  values.forEach((value, i) => {
    sum += weights[i];
    mean += weights[i] * value;
  });
  mean /= sum;
  values.forEach((value, i) => {
    const [, , u] = columnsAt(omega, i);
    up += weights[i] * u * (value - mean);
    spread += weights[i] * u * u;
  });
  const slope = up / spread;
  let [a, b] = [0, 0];
  values.forEach((value, i) => {
    const [c, s, u] = columnsAt(omega, i);
    const rest = weights[i] * (value - mean - slope * u);
    a += (2 * rest * c) / sum;
    b += (2 * rest * s) / sum;
  });
  return [a, b, omega, mean, slope];
}
