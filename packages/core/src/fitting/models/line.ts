import { divideUnits } from '../../units/unit';
import { type Relation } from '../relation';
import { renamed, solvePolynomial } from './polynomial';

export const line: Relation = {
  key: 'line',
  title: 'line',
  formula: 'slope · x + intercept',
  letters: { formula: 'b x + a', of: ['b', 'a'] },
  parameterCount: 2,
  movable: true,
  parameterNames: ({ xUnit, yUnit }) => [
    { key: 'slope', name: 'slope', unit: divideUnits(yUnit, xUnit), main: true },
    { key: 'intercept', name: 'intercept', unit: yUnit, main: false },
  ],
  value: ([slope, intercept], x) => slope * x + intercept,
  solve: (points) =>
    renamed(solvePolynomial(points, 1), [
      [1, 1],
      [0, 1],
    ]),
};
