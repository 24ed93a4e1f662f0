import { Refusal } from '../refusal';
import { chanceOfGain } from '../statistics/significance';
import { fitRelation } from './fit';
import { independentCovariance } from './covariance';
import { isRankDeficient } from './householder';
import { type ModelFunction, leastSquares } from './levenbergMarquardt';
import { type FitPoints, type Relation } from './relation';

/** One relation through several sets of points, some of its parameters the same for all of them. */
export interface JointFit {
  /** Each parameter of the relation: once where it is shared, else once for each set. */
  parameters: { value: number; standardUncertainty: number }[][];
  degreesOfFreedom: number;
  /**
   * Probability that the sets differ as much as they do in the shared parameters by chance alone (F test of nested models); 1
   * where nothing is shared.
   */
  chance: number;
}

/**
 * Fits one relation through several sets at once by weighted least squares: each set counts by the scatter that its own fit
 * leaves, so that a noisy run does not drown the others. Readings count as independent.
 * @param shared which of the relation's parameters, by their places, are the same for all sets
 * @throws Refusal where a set does not carry the relation, or the search does not settle
 */
export function jointFit(
  relation: Relation,
  sets: readonly FitPoints[],
  shared: readonly number[],
): JointFit {
  const own = relation.parameterCount;
  if (sets.length < 2)
    throw new Refusal('A fit through several runs needs two of them at least. Show another one.');
  const single = sets.map((points) => fitRelation(relation, points));
  const scatters = single.map(({ residualStandardDeviation }) => residualStandardDeviation);
  if (scatters.some((scatter) => !(scatter > 0)))
    throw new Refusal(
      'One of these runs keeps to the relation exactly, so that nothing tells how it is to count.',
    );
  const isShared = (k: number) => shared.includes(k);
  /** Place of parameter k of set s in the solver's row. */
  const places = sets.map(() => new Array<number>(own).fill(-1));
  const start: number[] = [];
  const steps: number[] = [];
  for (let k = 0; k < own; k++)
    sets.forEach((_, s) => {
      if (isShared(k) && s > 0) {
        places[s][k] = places[0][k];
        return;
      }
      places[s][k] = start.length;
      const values = single.map(({ parameters }) => parameters[k]);
      const doubts = single.map(({ standardUncertainties }) => standardUncertainties[k]);
      start.push(isShared(k) ? weightedMean(values, doubts) : values[s]);
      steps.push(1e-3 * Math.min(...doubts.filter((doubt) => doubt > 0)));
    });
  const offsets: number[] = [];
  const count = sets.reduce((sum, { x }) => (offsets.push(sum), sum + x.length), 0);
  const y = new Float64Array(count);
  sets.forEach((set, s) => set.y.forEach((value, i) => (y[offsets[s] + i] = value / scatters[s])));
  const setOf = (place: number) => {
    let s = sets.length - 1;
    while (offsets[s] > place) s--;
    return s;
  };
  const model: ModelFunction = (parameters, first, out, jacobian) => {
    jacobian?.forEach((column) => column.fill(0));
    for (let i = 0; i < out.length; i++) {
      const s = setOf(first + i);
      const x = sets[s].x[first + i - offsets[s]];
      const named = places[s].map((place) => parameters[place]);
      out[i] = relation.value(named, x) / scatters[s];
      if (jacobian === null) continue;
      for (let k = 0; k < own; k++) {
        const step = steps[places[s][k]];
        const at = (by: number) =>
          relation.value(
            named.map((value, j) => (j === k ? value + by : value)),
            x,
          );
        jacobian[places[s][k]][i] = (at(step) - at(-step)) / (2 * step * scatters[s]);
      }
    }
  };
  const solution = leastSquares(model, y, start);
  if (isRankDeficient(solution.triangle, start.length))
    throw new Refusal('These runs cannot tell the parameters apart. Share fewer of them.');
  const degreesOfFreedom = count - start.length;
  const variance = solution.residualSumOfSquares / degreesOfFreedom;
  const covariance = independentCovariance(solution.triangle, variance);
  const told = (place: number) => ({
    value: solution.parameters[place],
    standardUncertainty: Math.sqrt(covariance[place][place]),
  });
  const apart = single.reduce(
    (sum, { residualSumOfSquares }, s) => sum + residualSumOfSquares / scatters[s] ** 2,
    0,
  );
  const added = sets.length * own - start.length;
  return {
    parameters: Array.from({ length: own }, (_, k) =>
      isShared(k) ? [told(places[0][k])] : sets.map((__, s) => told(places[s][k])),
    ),
    degreesOfFreedom,
    chance:
      added === 0 ? 1 : chanceOfGain(solution.residualSumOfSquares, apart, added, count - sets.length * own),
  };
}

function weightedMean(values: readonly number[], doubts: readonly number[]): number {
  let [sum, weights] = [0, 0];
  values.forEach((value, i) => {
    const weight = doubts[i] > 0 ? doubts[i] ** -2 : 1;
    sum += weight * value;
    weights += weight;
  });
  return sum / weights;
}
