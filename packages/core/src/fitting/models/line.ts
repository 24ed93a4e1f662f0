import { divideUnits } from '../../units/unit';
import { type Relation } from '../relation';
import { solvePolynomial } from './polynomial';

export const line: Relation = {
  key: 'line',
  title: 'line',
  formula: 'slope · x + intercept',
  parameterCount: 2,
  parameterNames: ({ xUnit, yUnit }) => [
    { key: 'slope', name: 'slope', unit: divideUnits(yUnit, xUnit), main: true },
    { key: 'intercept', name: 'intercept', unit: yUnit, main: false },
  ],
  value: ([slope, intercept], x) => slope * x + intercept,
  solve(points) {
    const solved = solvePolynomial(points, 1);
    return {
      solution: solved.solution,
      parameters: [solved.parameters[1], solved.parameters[0]],
      transformation: [solved.transformation[1], solved.transformation[0]],
    };
  },
};
