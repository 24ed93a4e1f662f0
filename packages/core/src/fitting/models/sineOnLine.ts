import { divideUnits } from '../../units/unit';
import { type Relation } from '../relation';
import { sine } from './sine';
import { solveSwing } from './swing';

export const sineOnLine: Relation = {
  key: 'sineOnLine',
  title: 'sine on a line',
  formula: 'amplitude · sin(2π x / period + phase) + offset + drift · x',
  letters: { formula: 'A sin(2 pi x/T + phi) + c + d x', of: ['A', 'T', 'phi', 'c', 'd'] },
  parameterCount: 5,
  movable: true,
  parameterNames: (axes) => [
    ...sine.parameterNames(axes),
    { key: 'drift', name: 'drift', unit: divideUnits(axes.yUnit, axes.xUnit), main: false },
  ],
  value: (parameters, x) => sine.value(parameters, x) + parameters[4] * x,
  solve: (points, hint) => solveSwing(points, hint, true),
};
