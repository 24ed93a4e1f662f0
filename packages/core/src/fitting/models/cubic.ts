import { divideUnits, powerOfUnit } from '../../units/unit';
import { type Relation } from '../relation';
import { renamed, solvePolynomial } from './polynomial';

export const cubic: Relation = {
  key: 'cubic',
  title: 'cubic',
  formula: 'third · x³ + second · x² + slope at 0 · x + value at 0',
  letters: { formula: 'a x^3 + b x^2 + c x + d', of: ['a', 'b', 'c', 'd'] },
  parameterCount: 4,
  movable: true,
  parameterNames: ({ xUnit, yUnit }) => [
    { key: 'third', name: 'third', unit: divideUnits(yUnit, powerOfUnit(xUnit, 3)), main: true },
    { key: 'second', name: 'second', unit: divideUnits(yUnit, powerOfUnit(xUnit, 2)), main: false },
    { key: 'slopeAtZero', name: 'slope at 0', unit: divideUnits(yUnit, xUnit), main: false },
    { key: 'valueAtZero', name: 'value at 0', unit: yUnit, main: false },
  ],
  value: ([third, second, slope, start], x) => ((third * x + second) * x + slope) * x + start,
  solve: (points) =>
    renamed(solvePolynomial(points, 3), [
      [3, 1],
      [2, 1],
      [1, 1],
      [0, 1],
    ]),
};
