import { divideUnits, powerOfUnit } from '../../units/unit';
import { type Relation } from '../relation';
import { needPlaces, solveBasis } from './basis';

export const squareRoot: Relation = {
  key: 'squareRoot',
  title: 'square root',
  formula: 'factor · √x',
  letters: { formula: 'k sqrt(x)', of: ['k'] },
  parameterCount: 1,
  multiplies: ['x', 'y'],
  parameterNames: ({ xUnit, yUnit }) => [
    { key: 'factor', name: 'factor', unit: divideUnits(yUnit, powerOfUnit(xUnit, 0.5)), main: true },
  ],
  value: ([factor], x) => factor * Math.sqrt(x),
  solve(points) {
    needPlaces(points, 'square root', 'from 0 upwards', (x) => x >= 0);
    return solveBasis(points, [{ value: Math.sqrt, slope: (x) => 0.5 / Math.sqrt(x) }], [[1]]);
  },
};
