import { divideUnits } from '../../units/unit';
import { type Relation } from '../relation';
import { solveBasis } from './basis';

export const proportional: Relation = {
  key: 'proportional',
  title: 'proportional',
  formula: 'factor · x',
  letters: { formula: 'k x', of: ['k'] },
  parameterCount: 1,
  multiplies: ['x', 'y'],
  parameterNames: ({ xUnit, yUnit }) => [
    { key: 'factor', name: 'factor', unit: divideUnits(yUnit, xUnit), main: true },
  ],
  value: ([factor], x) => factor * x,
  solve: (points) => solveBasis(points, [{ value: (x) => x, slope: () => 1 }], [[1]]),
};
