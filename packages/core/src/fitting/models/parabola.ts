import { divideUnits, powerOfUnit } from '../../units/unit';
import { type Relation } from '../relation';
import { solvePolynomial } from './polynomial';

export const parabola: Relation = {
  key: 'parabola',
  title: 'parabola',
  formula: '½ · curvature · x² + slope at 0 · x + value at 0',
  parameterCount: 3,
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
  solve(points) {
    const { solution, parameters, transformation } = solvePolynomial(points, 2);
    return {
      solution,
      parameters: [2 * parameters[2], parameters[1], parameters[0]],
      transformation: [transformation[2].map((value) => 2 * value), transformation[1], transformation[0]],
    };
  },
};
