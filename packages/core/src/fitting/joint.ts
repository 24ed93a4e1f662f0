import { log, square } from '../elementary';
import fDistribution from '@stdlib/stats-base-dists-f-cdf';
import { Refusal } from '../refusal';
import { coverageFactor } from '../statistics/significance';
import { fitRelation } from './fit';
import { type Fit } from './fitted';
import { type FitPoints, type Relation } from './relation';

/** A parameter of a fit through several sets. */
export interface JointParameter {
  value: number;
  standardUncertainty: number;
  /** Half the width of the 68 % interval. */
  halfWidth: number;
}

/** One relation through several sets of points, some of its parameters the same for all of them. */
export interface JointFit {
  /** Each parameter of the relation: once where it is shared, else once for each set. */
  parameters: JointParameter[][];
  degreesOfFreedom: number;
  /**
   * Probability that the sets differ as much as they do in the shared parameters by chance alone (F test of nested models); 1
   * where nothing is shared.
   */
  chance: number;
}

/** What the fit of one set alone has found. */
export type SingleFit = Pick<
  Fit,
  'parameters' | 'covariance' | 'degreesOfFreedom' | 'residualStandardDeviation'
>;

/** The points of one set, with their own fit where it is known, noise followed through filters and all. */
export interface JointSet extends FitPoints {
  fit?: SingleFit;
}

/** Scatters that differ by less than chance makes them once in a hundred times are those of one sensor. */
const oneScatter = 0.01;
const { PI } = Math;

/**
 * Fits one relation through several sets at once: the fits of the single sets, each with the full covariance of its parameters, are
 * brought together by generalised least squares (for what is linear in its parameters that is the fit of all readings at once; C. R.
 * Rao, Linear Statistical Inference, 2nd ed. 1973, 4a). What followed noise through a filter there counts here too. Where the sets
 * scatter alike (Bartlett’s test) one scatter is taken for all, so that few readings in one of them do not decide its weight.
 * @param shared which of the relation's parameters, by their places, are the same for all sets
 * @throws Refusal where a set does not carry the relation, or the sets cannot tell the parameters apart
 */
export function jointFit(relation: Relation, sets: readonly JointSet[], shared: readonly number[]): JointFit {
  const own = relation.parameterCount;
  if (sets.length < 2)
    throw new Refusal('A fit through several runs needs two of them at least. Show another one.');
  const single = sets.map(({ fit, ...points }) => fit ?? fitRelation(relation, points));
  const scatters = single.map(({ residualStandardDeviation }) => residualStandardDeviation);
  if (scatters.some((scatter) => !(scatter > 0)))
    throw new Refusal('One of these runs fits the relation exactly, so that its weight is unknown.');
  const found = turnedAlike(relation, single);
  const { factors, degreesOfFreedom } = commonScatter(single);
  const isShared = (k: number) => shared.includes(k);
  /** Place of parameter k of set s in the common row. */
  const places: number[][] = sets.map(() => []);
  let count = 0;
  for (let k = 0; k < own; k++)
    sets.forEach((_, s) => {
      places[s][k] = isShared(k) && s > 0 ? places[0][k] : count++;
    });
  const normal = zeros(count);
  const right = new Array<number>(count).fill(0);
  const weights = single.map(({ covariance }, s) =>
    inverse(
      covariance.slice(0, own).map((row) => row.slice(0, own).map((value) => value * factors[s])),
      'These runs cannot tell the parameters apart. Share fewer of them.',
    ),
  );
  weights.forEach((weight, s) =>
    weight.forEach((row, a) =>
      row.forEach((value, b) => {
        normal[places[s][a]][places[s][b]] += value;
        right[places[s][a]] += value * found[s][b];
      }),
    ),
  );
  const covariance = inverse(normal, 'These runs cannot tell the parameters apart. Share fewer of them.');
  const solved = covariance.map((row) => row.reduce((sum, value, k) => sum + value * right[k], 0));
  let apart = 0;
  weights.forEach((weight, s) => {
    const off = found[s].map((value, k) => value - solved[places[s][k]]);
    weight.forEach((row, a) => row.forEach((value, b) => (apart += off[a] * value * off[b])));
  });
  const added = sets.length * own - count;
  const parameterAt = (place: number): JointParameter => {
    const standardUncertainty = Math.sqrt(covariance[place][place]);
    return {
      value: solved[place],
      standardUncertainty,
      halfWidth: coverageFactor(degreesOfFreedom) * standardUncertainty,
    };
  };
  return {
    parameters: Array.from({ length: own }, (_, k) =>
      isShared(k) ? [parameterAt(places[0][k])] : sets.map((__, s) => parameterAt(places[s][k])),
    ),
    degreesOfFreedom,
    chance: added === 0 ? 1 : Math.max(1 - fDistribution(apart / added, added, degreesOfFreedom), 0),
  };
}

/** The parameters of each set; angles as near to those of the first as whole turns bring them. */
function turnedAlike(relation: Relation, single: readonly SingleFit[]): number[][] {
  const own = relation.parameterCount;
  const names = relation.parameterNames({
    xUnit: [],
    yUnit: [],
    xQuantity: '',
    yQuantity: '',
    xSymbol: '',
    ySymbol: '',
  });
  const isAngle = (k: number) => names[k].unit.length === 1 && names[k].unit[0].atom === 'rad';
  const [first] = single;
  return single.map(({ parameters }) =>
    parameters
      .slice(0, own)
      .map((value, k) =>
        isAngle(k) ? value + 2 * PI * Math.round((first.parameters[k] - value) / (2 * PI)) : value,
      ),
  );
}

/** By how much the covariance of each set is to be multiplied, and by how many degrees of freedom the scatter is known. */
function commonScatter(single: readonly SingleFit[]): { factors: number[]; degreesOfFreedom: number } {
  const free = single.map(({ degreesOfFreedom }) => degreesOfFreedom);
  const variances = single.map(({ residualStandardDeviation }) => square(residualStandardDeviation));
  const all = free.reduce((sum, value) => sum + value, 0);
  if (!Number.isFinite(all)) return { factors: single.map(() => 1), degreesOfFreedom: Infinity };
  const pooled = variances.reduce((sum, variance, s) => sum + free[s] * variance, 0) / all;
  const k = single.length - 1;
  // M. S. Bartlett, Proc. R. Soc. A 160 (1937) 268; χ² as F with many degrees of freedom below.
  const spread = all * log(pooled) - variances.reduce((sum, variance, s) => sum + free[s] * log(variance), 0);
  const correction = 1 + (free.reduce((sum, value) => sum + 1 / value, 0) - 1 / all) / (3 * k);
  const chance = 1 - fDistribution(spread / correction / k, k, 1e6);
  return chance > oneScatter
    ? { factors: variances.map((variance) => pooled / variance), degreesOfFreedom: all }
    : { factors: single.map(() => 1), degreesOfFreedom: Math.min(...free) * single.length };
}

const zeros = (n: number): number[][] => Array.from({ length: n }, () => new Array<number>(n).fill(0));

/** The inverse of a symmetric positive definite matrix, scaled to a diagonal of ones first. @throws Refusal where it has none */
function inverse(matrix: readonly (readonly number[])[], because: string): number[][] {
  const n = matrix.length;
  const scale = matrix.map((row, i) => Math.sqrt(row[i]));
  if (!scale.every((value) => value > 0)) throw new Refusal(because);
  const rows = matrix.map((row, i) => [
    ...row.map((value, j) => value / (scale[i] * scale[j])),
    ...row.map((_, j) => Number(i === j)),
  ]);
  for (let k = 0; k < n; k++) {
    const pivot = rows[k][k];
    if (!(pivot > 1e-13)) throw new Refusal(because);
    for (let j = 0; j < 2 * n; j++) rows[k][j] /= pivot;
    for (let i = 0; i < n; i++) {
      const factor = rows[i][k];
      if (i === k || factor === 0) continue;
      for (let j = 0; j < 2 * n; j++) rows[i][j] -= factor * rows[k][j];
    }
  }
  return rows.map((row, i) => row.slice(n).map((value, j) => value / (scale[i] * scale[j])));
}
