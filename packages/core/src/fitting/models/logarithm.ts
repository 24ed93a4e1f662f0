import { log } from '../../elementary';
import { intervalUnit } from '../../units/temperature';
import { printedUnit } from '../../units/unit';
import { type Relation } from '../relation';
import { isPositive, needPlaces, solveBasis } from './basis';

export const logarithm: Relation = {
  key: 'logarithm',
  title: 'natural logarithm',
  formula: 'gain per factor e · ln(x) + value at 1',
  letters: { formula: 'g ln(x) + A', of: ['g', 'A'] },
  parameterCount: 2,
  multiplies: ['x'],
  parameterNames: ({ xUnit, yUnit }) => [
    { key: 'gain', name: 'gain per factor e', unit: intervalUnit(yUnit), main: true },
    {
      key: 'valueAtOne',
      name: `value at 1 ${printedUnit(xUnit)}`.trim(),
      unit: yUnit,
      main: false,
    },
  ],
  value: ([gain, valueAtOne], x) => gain * log(x) + valueAtOne,
  solve(points) {
    needPlaces(points, 'logarithm', 'greater than 0', isPositive);
    let middle = 0;
    for (let i = 0; i < points.x.length; i++) middle += log(points.x[i]) / points.x.length;
    // About the middle of the points, so that gain and value do not hang on each other.
    return solveBasis(
      points,
      [
        { value: (x) => log(x) - middle, slope: (x) => 1 / x },
        { value: () => 1, slope: () => 0 },
      ],
      [
        [1, 0],
        [-middle, 1],
      ],
    );
  },
};
