import { divideUnits, powerOfUnit } from '../../units/unit';
import { type Relation } from '../relation';
import { renamed, solvePolynomial } from './polynomial';

export const parabola: Relation = {
  key: 'parabola',
  title: 'parabola',
  formula: '½ · curvature · x² + slope at 0 · x + value at 0',
  letters: { formula: '1/2 a x^2 + b x + c', of: ['a', 'b', 'c'] },
  parameterCount: 3,
  movable: true,
  parameterNames: ({ xUnit, yUnit, xQuantity, yQuantity }) => {
    const motion = xQuantity === 'time' && yQuantity === 'position';
    return [
      {
        key: 'curvature',
        name: motion ? 'acceleration' : 'curvature',
        unit: divideUnits(yUnit, powerOfUnit(xUnit, 2)),
        main: true,
      },
      {
        key: 'slopeAtZero',
        name: motion ? 'velocity at 0' : 'slope at 0',
        unit: divideUnits(yUnit, xUnit),
        main: false,
      },
      { key: 'valueAtZero', name: motion ? 'position at 0' : 'value at 0', unit: yUnit, main: false },
    ];
  },
  value: ([curvature, slope, start], x) => (curvature / 2) * x * x + slope * x + start,
  solve: (points) =>
    renamed(solvePolynomial(points, 2), [
      [2, 2],
      [1, 1],
      [0, 1],
    ]),
};
