import { sin, square } from '../../elementary';
import { intervalUnit } from '../../units/temperature';
import { type Relation } from '../relation';
import { chanceOfGain } from '../../statistics/significance';
import { writeResult } from '../../results/rounding';
import { solveSwing } from './swing';

export const sine: Relation = {
  key: 'sine',
  title: 'sine',
  formula: 'amplitude · sin(2π x / period + phase) + offset',
  letters: { formula: 'A sin(2 pi x/T + phi) + c', of: ['A', 'T', 'phi', 'c'] },
  parameterCount: 4,
  movable: true,
  parameterNames: ({ xUnit, yUnit }) => [
    { key: 'amplitude', name: 'amplitude', unit: intervalUnit(yUnit), main: false },
    { key: 'period', name: 'period', unit: xUnit, main: true },
    { key: 'phase', name: 'phase', unit: [{ atom: 'rad', power: 1 }], main: false },
    { key: 'offset', name: 'offset', unit: yUnit, main: false },
  ],
  value: ([amplitude, period, phase, offset], x) =>
    amplitude * sin((2 * Math.PI * x) / period + phase) + offset,
  solve: (points, hint) => solveSwing(points, hint, false),
  remarks({ x }, { solution, named }) {
    const residuals = solution.residuals();
    const n = x.length;
    let middle = 0;
    for (let i = 0; i < n; i++) middle += x[i] / n;
    let xx = 0;
    let xr = 0;
    for (let i = 0; i < n; i++) {
      xx += square(x[i] - middle);
      xr += (x[i] - middle) * residuals[i];
    }
    const drift = xr / xx;
    const left = solution.residualSumOfSquares;
    const overall = Math.abs(drift) * (x[n - 1] - x[0]);
    const [amplitude] = named(solution.parameters);
    if (chanceOfGain(left, left - drift * xr, 1, n - 5) > 1e-3 || overall < 0.05 * amplitude) return [];
    const share = writeResult((100 * overall) / amplitude, null, 2).value;
    return [
      `A drift of about ${share} % of the amplitude lies under the swing; the relation “sine on a line” takes it along.`,
    ];
  },
};
