import { Refusal, orRefusal } from '../../refusal';
import { type ModelFunction, type Solution, leastSquares } from '../levenbergMarquardt';
import { linearLeastSquares } from '../linear';
import { type Relation } from '../relation';
import { sineCandidates } from './sineGuess';

const { sin, cos } = Math;

/** Less of a swing than this, and offset, amplitude and period cannot be told apart. */
const fewestCycles = 0.4;

export const sine: Relation = {
  key: 'sine',
  title: 'sine',
  formula: 'amplitude · sin(2π x / period + phase) + offset',
  parameterCount: 4,
  parameterNames: ({ xUnit, yUnit }) => [
    { key: 'amplitude', name: 'amplitude', unit: yUnit, main: false },
    { key: 'period', name: 'period', unit: xUnit, main: true },
    { key: 'phase', name: 'phase', unit: [{ atom: 'rad', power: 1 }], main: false },
    { key: 'offset', name: 'offset', unit: yUnit, main: false },
  ],
  value: ([amplitude, period, phase, offset], x) =>
    amplitude * sin((2 * Math.PI * x) / period + phase) + offset,

  /**
   * The global least-squares sine: candidates over all frequencies from 0.4 cycles in the region to one cycle in two
   * readings, the best of them sharpened by the solver. Solved as a·sin ωu + b·cos ωu + c on u ∈ [−1, 1], where the
   * parameters hardly depend on each other, and carried to amplitude, period, phase and offset.
   */
  solve({ x, y }) {
    const n = x.length;
    let low = Infinity;
    let high = -Infinity;
    for (const value of x) {
      if (value < low) low = value;
      if (value > high) high = value;
    }
    const middle = (low + high) / 2;
    const reach = (high - low) / 2;
    if (!(reach > 0)) throw new Refusal('A sine needs readings at different places along the axis.');
    const u = x.map((value) => (value - middle) / reach);

    const model: ModelFunction = ([a, b, c, w], out, jacobian) => {
      for (let i = 0; i < n; i++) {
        const s = sin(w * u[i]);
        const k = cos(w * u[i]);
        out[i] = a * s + b * k + c;
        if (jacobian === null) continue;
        jacobian[0][i] = s;
        jacobian[1][i] = k;
        jacobian[2][i] = 1;
        jacobian[3][i] = u[i] * (a * k - b * s);
      }
    };

    let mean = 0;
    for (let i = 0; i < n; i++) mean += (y[i] - mean) / (i + 1);
    let total = 0;
    for (let i = 0; i < n; i++) total += (y[i] - mean) ** 2;
    let best: Solution | null = null;
    for (const { angular, leftOver } of sineCandidates({ x: u, y }, fewestCycles)) {
      // A candidate lies at most a sixteenth of a cycle beside its minimum, which costs a few per cent of the swing; one that
      // leaves more than that over belongs to another frequency's minimum and cannot win.
      if (best !== null && leftOver > best.residualSumOfSquares + 0.15 * total) continue;
      const columns = [
        u.map((value) => sin(angular * value)),
        u.map((value) => cos(angular * value)),
        new Float64Array(n).fill(1),
      ];
      const solution = orRefusal(() =>
        leastSquares(model, y, [...linearLeastSquares(columns, y, 'dependent').parameters, angular]),
      );
      if (solution instanceof Refusal) continue;
      if (best === null || solution.residualSumOfSquares < best.residualSumOfSquares) best = solution;
    }
    if (best === null) throw new Refusal('No sine settles on this region. Mark at least half a swing.');
    const [a, b, c, w] = best.parameters;
    const cycles = Math.abs(w) / Math.PI;
    if (cycles < fewestCycles)
      throw new Refusal(
        'The region holds less than half a swing, so its period cannot be told. Make the region longer.',
      );
    if (cycles > n / 2)
      throw new Refusal('The readings are too far apart for this swing. Record with a higher sample rate.');

    const sign = Math.sign(w);
    const amplitude = Math.hypot(a, b);
    if (!(amplitude > 0)) throw new Refusal('There is no swing in this region to put a sine through.');
    const omega = Math.abs(w) / reach;
    const phaseAtMiddle = Math.atan2(b, sign * a);
    const phase = wrapped(phaseAtMiddle - omega * middle);
    return {
      solution: best,
      parameters: [amplitude, (2 * Math.PI) / omega, phase, c],
      transformation: [
        [a / amplitude, b / amplitude, 0, 0],
        [0, 0, 0, (-2 * Math.PI * sign) / (omega * omega * reach)],
        [(-sign * b) / amplitude ** 2, (sign * a) / amplitude ** 2, 0, (-sign * middle) / reach],
        [0, 0, 1, 0],
      ],
    };
  },
};

/** An angle brought into (−π, π]. */
function wrapped(angle: number): number {
  const turned = angle - 2 * Math.PI * Math.floor((angle + Math.PI) / (2 * Math.PI));
  return turned <= -Math.PI ? turned + 2 * Math.PI : turned;
}
