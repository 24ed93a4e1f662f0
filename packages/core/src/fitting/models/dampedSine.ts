import { atan2, cos, exp, sin, square } from '../../elementary';
import { intervalUnit } from '../../units/temperature';
import { Refusal } from '../../refusal';
import { chanceOfGain } from '../../statistics/significance';
import { divideUnits } from '../../units/unit';
import { type Relation } from '../relation';
import { type ShapedModel, evenly, pairs, solveShaped } from './shaped';
import { type Frame, endsOf, shapedSolution, toFrame } from './shapedSolution';
import { searchSwing } from './swingGuess';
import { wrapped } from './wrapped';

const { PI } = Math;

/** e^(−λ(u + 1)) sin ωu, the same with cos, and 1, with ω and λ held. */
const model: ShapedModel = {
  factors: 3,
  held: 2,
  fill([omega, rate], u, values, byHeld) {
    const fallen = exp(-rate * (u + 1));
    const s = fallen * sin(omega * u);
    const c = fallen * cos(omega * u);
    values[0] = s;
    values[1] = c;
    values[2] = 1;
    if (byHeld === null) return;
    byHeld[0] = u * c;
    byHeld[1] = -u * s;
    byHeld[2] = 0;
    byHeld[3] = -(u + 1) * s;
    byHeld[4] = -(u + 1) * c;
    byHeld[5] = 0;
  },
};

/** Less of a swing than this in the region has no period. */
const fewestCycles = 0.4;
/** A swing that noise alone would show once in a thousand tries is not believed. */
const believable = 1e-3;
/** So many points a cycle tell how fast a swing falls. */
const pointsPerCycle = 12;
const rates = [0, 0.3, 0.8, 1.6, 3, 6, 12, 25];

export const dampedSine: Relation = {
  key: 'dampedSine',
  title: 'damped sine',
  formula: 'amplitude · exp(−damping · x) · sin(2π x / period + phase) + offset',
  letters: {
    formula: 'A exp(-gamma x) sin(2 pi x/T + phi) + c',
    of: ['A', 'T', 'gamma', 'phi', 'c'],
    further: ['pi/(gamma T)'],
  },
  parameterCount: 5,
  movable: true,
  parameterNames: ({ xUnit, yUnit }) => [
    { key: 'amplitude', name: 'amplitude at 0', unit: intervalUnit(yUnit), main: false },
    { key: 'period', name: 'period', unit: xUnit, main: true },
    { key: 'damping', name: 'damping', unit: divideUnits([], xUnit), main: false },
    { key: 'phase', name: 'phase', unit: [{ atom: 'rad', power: 1 }], main: false },
    { key: 'offset', name: 'offset', unit: yUnit, main: false },
    { key: 'quality', name: 'Q', unit: [], main: false },
  ],
  value: ([amplitude, period, damping, phase, offset], x) =>
    amplitude * exp(-damping * x) * sin((2 * PI * x) / period + phase) + offset,
  solve({ x, y }, { near }) {
    const { low, high } = endsOf(x);
    if (!(high > low)) throw new Refusal('A damped sine needs readings at different places along the axis.');
    const frame: Frame = { origin: (low + high) / 2, reach: (high - low) / 2 };
    const { origin, reach } = frame;
    const u = toFrame(x, frame);
    const n = x.length;
    const mostCycles = (n - 1) / 2;
    let start: number[] | null = null;
    if (near !== null) {
      const [amplitude, period, damping, phase, offset] = near;
      const omega = (2 * PI * reach) / period;
      const turned = phase + (2 * PI * origin) / period;
      const height = amplitude * exp(-damping * low);
      start = [height * cos(turned), height * sin(turned), offset, omega, damping * reach];
    }
    const starts = start === null ? startsFor(u, y, mostCycles) : [];
    const fastest = Math.max(...starts.map(([omega]) => omega / PI), 1);
    const solution = solveShaped(
      model,
      u,
      y,
      starts,
      start,
      ([omega, rate]) =>
        Math.abs(omega) > fewestCycles * PI &&
        Math.abs(omega) < 0.995 * mostCycles * PI &&
        rate > -5 &&
        rate < 400,
      'No damped sine fits this region. Mark at least one whole swing.',
      Math.min(Math.max(pointsPerCycle * fastest, 160), 4096),
    );
    if (start === null) {
      const left = solution.residualSumOfSquares;
      if (chanceOfGain(scatterOf(y), left, 4, n - 5) > believable)
        throw new Refusal(
          'No swing stands out of the noise in this region (F test against none, at 1 in 1000). Mark a part where it swings.',
        );
    }
    return shapedSolution(model, solution, frame, ([a, b, offset, omega, rate]) => {
      const sign = Math.sign(omega);
      const [w, damping] = [Math.abs(omega) / reach, rate / reach];
      return [
        Math.hypot(a, b) * exp(damping * low),
        (2 * PI) / w,
        damping,
        wrapped(atan2(b, sign * a) - w * origin),
        offset,
        w / (2 * damping),
      ];
    });
  },
};

function startsFor(u: Float64Array, y: Float64Array, mostCycles: number): number[][] {
  const slow = evenly(0.5, Math.min(6, mostCycles), 45);
  const { candidates } = searchSwing({ u, y, step: null, onLine: false }, fewestCycles, mostCycles);
  const fast = candidates.map(({ angular }) => angular / PI).filter((cycles) => cycles > 5);
  const beside = fast.flatMap((cycles) => [cycles - 0.4, cycles, cycles + 0.4]);
  return pairs(
    [...slow, ...beside].filter((cycles) => cycles < mostCycles).map((cycles) => PI * cycles),
    rates,
  );
}

function scatterOf(y: Float64Array): number {
  let mean = 0;
  for (let i = 0; i < y.length; i++) mean += y[i] / y.length;
  let sum = 0;
  for (let i = 0; i < y.length; i++) sum += square(y[i] - mean);
  return sum;
}
