import { exp } from '../../elementary';
import { type Relation } from '../relation';
import { solveExponential } from './exponential';

export const approach: Relation = {
  key: 'approach',
  title: 'exponential approach',
  formula: 'final value + (value at 0 − final value) · exp(−x / time constant)',
  letters: { formula: 'y_e + (y_0 - y_e) exp(-x/tau)', of: ['y_e', 'tau', 'y_0'], further: ['tau ln(2)'] },
  parameterCount: 3,
  movable: true,
  parameterNames: ({ xUnit, yUnit }) => [
    { key: 'finalValue', name: 'final value', unit: yUnit, main: false },
    { key: 'timeConstant', name: 'time constant', unit: xUnit, main: true },
    { key: 'valueAtZero', name: 'value at 0', unit: yUnit, main: false },
    { key: 'halfLife', name: 'half-life', unit: xUnit, main: false },
  ],
  value: ([finalValue, timeConstant, start], x) => finalValue + (start - finalValue) * exp(-x / timeConstant),
  solve: (points, hint) =>
    solveExponential(
      points,
      hint,
      ({ amplitude, timeConstant, offset }) => [
        offset,
        timeConstant,
        offset + amplitude,
        Math.LN2 * timeConstant,
      ],
      ([offset, timeConstant, start]) => ({ amplitude: start - offset, timeConstant, offset }),
    ),
};
