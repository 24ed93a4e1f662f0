import { pow } from '../../elementary';
import { multiplyUnits, powerOfUnit } from '../../units/unit';
import { type Relation } from '../relation';
import { needPlaces, solveBasis } from './basis';

/** y = factor / xⁿ for a whole n. */
export const inversePower = (key: string, title: string, formula: string, power: number): Relation => ({
  key,
  title,
  formula,
  letters: { formula: power === 1 ? 'k/x' : `k/x^${power}`, of: ['k'] },
  parameterCount: 1,
  multiplies: ['x', 'y'],
  parameterNames: ({ xUnit, yUnit }) => [
    { key: 'factor', name: 'factor', unit: multiplyUnits(yUnit, powerOfUnit(xUnit, power)), main: true },
  ],
  value: ([factor], x) => factor / pow(x, power),
  solve(points) {
    needPlaces(points, `relation “${title}”`, 'other than 0', (x) => x !== 0);
    return solveBasis(
      points,
      [{ value: (x) => pow(x, -power), slope: (x) => -power * pow(x, -power - 1) }],
      [[1]],
    );
  },
});
