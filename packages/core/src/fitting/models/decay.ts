import { exp } from '../../elementary';
import { intervalUnit } from '../../units/temperature';
import { type Relation } from '../relation';
import { solveExponential } from './exponential';

export const decay: Relation = {
  key: 'decay',
  title: 'exponential decay',
  formula: 'amplitude · exp(−x / time constant) + offset',
  letters: { formula: 'A exp(-x/tau) + c', of: ['A', 'tau', 'c'], further: ['tau ln(2)'] },
  parameterCount: 3,
  movable: true,
  parameterNames: ({ xUnit, yUnit }) => [
    { key: 'amplitude', name: 'amplitude', unit: intervalUnit(yUnit), main: false },
    { key: 'timeConstant', name: 'time constant', unit: xUnit, main: true },
    { key: 'offset', name: 'offset', unit: yUnit, main: false },
    { key: 'halfLife', name: 'half-life', unit: xUnit, main: false },
  ],
  value: ([amplitude, timeConstant, offset], x) => amplitude * exp(-x / timeConstant) + offset,
  solve: (points, hint) =>
    solveExponential(
      points,
      hint,
      ({ amplitude, timeConstant, offset }) => [amplitude, timeConstant, offset, Math.LN2 * timeConstant],
      ([amplitude, timeConstant, offset]) => ({ amplitude, timeConstant, offset }),
    ),
};
