import { exp, log, square } from '../../elementary';
import { intervalUnit } from '../../units/temperature';
import { Refusal } from '../../refusal';
import { type Relation } from '../relation';
import { type ShapedModel, evenly, geometric, pairs, solveShaped } from './shaped';
import { type Frame, endsOf, shapedSolution, toFrame } from './shapedSolution';

/** exp(−(u − c)²/2w²) and 1, with c and ln w held. */
const model: ShapedModel = {
  factors: 2,
  held: 2,
  fill([centre, width], u, values, byHeld) {
    const w = exp(width);
    const off = (u - centre) / w;
    const bell = exp(-0.5 * off * off);
    values[0] = bell;
    values[1] = 1;
    if (byHeld === null) return;
    byHeld[0] = (bell * off) / w;
    byHeld[1] = 0;
    byHeld[2] = bell * off * off;
    byHeld[3] = 0;
  },
};

const widths = geometric(0.03, 2.5, 12).map(log);
const grid = pairs(evenly(-1.2, 1.2, 49), widths);
const narrow = geometric(0.004, 0.06, 6).map(log);
/** Full width at half height of a bell of width one. */
const fullWidth = 2 * Math.sqrt(2 * Math.LN2);

export const gaussian: Relation = {
  key: 'gaussian',
  title: 'Gaussian',
  formula: 'height · exp(−(x − centre)² / (2 width²)) + offset',
  letters: {
    formula: 'h exp(-(x - m)^2/(2 w^2)) + c',
    of: ['m', 'h', 'w', 'c'],
    further: ['2 sqrt(2 ln(2)) w'],
  },
  parameterCount: 4,
  parameterNames: ({ xUnit, yUnit }) => [
    { key: 'centre', name: 'centre', unit: xUnit, main: true },
    { key: 'height', name: 'height', unit: intervalUnit(yUnit), main: false },
    { key: 'width', name: 'width (sd)', unit: xUnit, main: false },
    { key: 'offset', name: 'offset', unit: yUnit, main: false },
    { key: 'fullWidth', name: 'full width at half height', unit: xUnit, main: false },
  ],
  value: ([centre, height, width, offset], x) => height * exp(-0.5 * square((x - centre) / width)) + offset,
  solve({ x, y }, { near }) {
    const { low, high } = endsOf(x);
    if (!(high > low)) throw new Refusal('A Gaussian needs readings at different places along the axis.');
    const frame: Frame = { origin: (low + high) / 2, reach: (high - low) / 2 };
    const u = toFrame(x, frame);
    const solution = solveShaped(
      model,
      u,
      y,
      [...grid, ...pairs(extremesOf(u, y), narrow)],
      near === null
        ? null
        : [near[1], near[3], (near[0] - frame.origin) / frame.reach, log(near[2] / frame.reach)],
      ([centre, width]) => Math.abs(centre) < 3 && width > log(1e-3) && width < log(6),
      'No Gaussian fits this region. Mark one peak with some of its base on both sides.',
    );
    return shapedSolution(model, solution, frame, ([height, offset, centre, width]) => {
      const w = frame.reach * exp(width);
      return [frame.origin + frame.reach * centre, height, w, offset, fullWidth * w];
    });
  },
};

/** Where the greatest and the least readings are. */
function extremesOf(u: Float64Array, y: Float64Array): number[] {
  let [top, bottom] = [0, 0];
  for (let i = 0; i < y.length; i++) {
    if (y[i] > y[top]) top = i;
    if (y[i] < y[bottom]) bottom = i;
  }
  return [u[top], u[bottom]];
}
