import { exp, log, pow } from '../../elementary';
import { printedUnit } from '../../units/unit';
import { type Relation, type RelationSolution } from '../relation';
import { isPositive, needPlaces } from './basis';
import { type ShapedModel, evenly, solveShaped } from './shaped';
import { shapedSolution } from './shapedSolution';

/** e^(n u), u the logarithm of x about its middle. */
const model: ShapedModel = {
  factors: 1,
  held: 1,
  fill([exponent], u, values, byHeld) {
    values[0] = exp(exponent * u);
    if (byHeld !== null) byHeld[0] = u * values[0];
  },
};

const mostExponent = 40;
const starts = [...evenly(-8, 8, 65), ...evenly(-30, -9, 15), ...evenly(9, 30, 15)].map((n) => [n]);

export const power: Relation = {
  key: 'power',
  title: 'power',
  formula: 'value at 1 · x^exponent',
  letters: { formula: 'A x^p', of: ['p', 'A'] },
  parameterCount: 2,
  multiplies: ['x', 'y'],
  parameterNames: ({ xUnit, yUnit }) => [
    { key: 'exponent', name: 'exponent', unit: [], main: true },
    { key: 'valueAtOne', name: `value at 1 ${printedUnit(xUnit)}`.trim(), unit: yUnit, main: false },
  ],
  value: ([exponent, valueAtOne], x) => valueAtOne * pow(x, exponent),
  solve(points, { near }) {
    needPlaces(points, 'power', 'greater than 0', isPositive);
    const logarithms = points.x.map(log);
    let middle = 0;
    for (let i = 0; i < logarithms.length; i++) middle += logarithms[i] / logarithms.length;
    const u = logarithms.map((value) => value - middle);
    const solution = solveShaped(
      model,
      u,
      points.y,
      starts,
      near === null ? null : [near[1] * exp(near[0] * middle), near[0]],
      ([exponent]) => Math.abs(exponent) < mostExponent,
      `No power up to ${mostExponent} fits this region. Take another relation.`,
    );
    const solved = shapedSolution(model, solution, { origin: 0, reach: 1 }, ([middleValue, exponent]) => [
      exponent,
      middleValue * exp(-exponent * middle),
    ]);
    return overLogarithm(solved, middle);
  },
};

/** The same relation over x rather than over its logarithm about the middle. */
const overLogarithm = (solved: RelationSolution, middle: number): RelationSolution => ({
  ...solved,
  value: (own, x) => solved.value(own, log(x) - middle),
  slope: (own, x) => (own[1] * solved.value(own, log(x) - middle)) / x,
  gradient: (own, x) => solved.gradient(own, log(x) - middle),
});
