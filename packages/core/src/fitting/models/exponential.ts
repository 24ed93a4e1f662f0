import { exp, log } from '../../elementary';
import { type FitPoints, type Hint, type RelationSolution } from '../relation';
import { Refusal } from '../../refusal';
import { type ShapedModel, geometric, solveShaped } from './shaped';
import { type Frame, endsOf, shapedSolution, toFrame } from './shapedSolution';

/** e^(−k u) and 1, with ln k held. */
const model: ShapedModel = {
  factors: 2,
  held: 1,
  fill([rate], u, values, byHeld) {
    const k = exp(rate);
    const fallen = exp(-k * u);
    values[0] = fallen;
    values[1] = 1;
    if (byHeld === null) return;
    byHeld[0] = -k * u * fallen;
    byHeld[1] = 0;
  },
};

/** Less of a time constant than this in the region cannot be told from a parabola. */
const fewest = 0.02;
const most = 3000;
const starts = geometric(0.05, 1000, 46).map((k) => [log(k)]);

/** An exponential in terms that people can choose from. */
export interface Exponential {
  /** Height above the final value at x = 0. */
  amplitude: number;
  timeConstant: number;
  offset: number;
}

/**
 * An exponential that levels off along x.
 * @param named the named parameters, in their order, and the way back from them
 */
export function solveExponential(
  points: FitPoints,
  { near }: Hint,
  named: (found: Exponential) => number[],
  read: (parameters: readonly number[]) => Exponential,
): RelationSolution {
  const { low, high } = endsOf(points.x);
  if (!(high > low)) throw new Refusal('An exponential needs readings at different places along the axis.');
  const frame: Frame = { origin: low, reach: high - low };
  const { origin, reach } = frame;
  let start: number[] | null = null;
  if (near !== null) {
    const { amplitude, timeConstant, offset } = read(near);
    start = [amplitude * exp(-origin / timeConstant), offset, log(reach / timeConstant)];
  }
  const solution = solveShaped(
    model,
    toFrame(points.x, frame),
    points.y,
    starts,
    start?.every(Number.isFinite) === true ? start : null,
    ([rate]) => rate > log(fewest) && rate < log(most),
    'No exponential fits this region: its readings do not level off to the right. Mark a longer region, or take a straight line or a parabola.',
  );
  return shapedSolution(model, solution, frame, ([height, offset, rate]) => {
    const k = exp(rate);
    return named({ amplitude: height * exp((k * origin) / reach), timeConstant: reach / k, offset });
  });
}
