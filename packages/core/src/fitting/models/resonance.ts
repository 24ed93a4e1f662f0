import { exp, log, square } from '../../elementary';
import { intervalUnit } from '../../units/temperature';
import { type Relation } from '../relation';
import { isPositive, needPlaces } from './basis';
import { type ShapedModel, geometric, pairs, solveShaped } from './shaped';
import { type Frame, endsOf, shapedSolution, toFrame } from './shapedSolution';

/** f₀γ / √((f₀² − u²)² + γ²u²), one at u = f₀, with ln f₀ and ln γ held. */
const model: ShapedModel = {
  factors: 1,
  held: 2,
  fill([frequency, width], u, values, byHeld) {
    const f = exp(frequency);
    const g = exp(width);
    const off = f * f - u * u;
    const squares = off * off + g * g * u * u;
    const value = (f * g) / Math.sqrt(squares);
    values[0] = value;
    if (byHeld === null) return;
    byHeld[0] = value * (1 - (2 * off * f * f) / squares);
    byHeld[1] = value * (1 - (g * g * u * u) / squares);
  },
};

/** The steady amplitude of a driven oscillator with damping proportional to its speed, against the driving frequency. */
export const resonance: Relation = {
  key: 'resonance',
  title: 'resonance',
  formula: 'amplitude at resonance · f₀ width / √((f₀² − x²)² + (width · x)²)',
  letters: { formula: 'A f_0 w/sqrt((f_0^2 - x^2)^2 + (w x)^2)', of: ['f_0', 'A', 'w'], further: ['f_0/w'] },
  parameterCount: 3,
  multiplies: ['x', 'y'],
  parameterNames: ({ xUnit, yUnit }) => [
    { key: 'frequency', name: 'resonance f₀', unit: xUnit, main: true },
    { key: 'amplitude', name: 'amplitude at f₀', unit: intervalUnit(yUnit), main: false },
    { key: 'width', name: 'width', unit: xUnit, main: false },
    { key: 'quality', name: 'Q', unit: [], main: false },
  ],
  value: ([f, amplitude, g], x) => (amplitude * f * g) / Math.sqrt(square(f * f - x * x) + square(g * x)),
  solve(points, { near }) {
    needPlaces(points, 'resonance', 'greater than 0', isPositive);
    const { low, high } = endsOf(points.x);
    const frame: Frame = { origin: 0, reach: high };
    const widths = geometric(0.002, 4, 15).map(log);
    let top = 0;
    for (let i = 0; i < points.y.length; i++) if (Math.abs(points.y[i]) > Math.abs(points.y[top])) top = i;
    const places = [...geometric((0.6 * low) / high, 1.6, 56), points.x[top] / high].map(log);
    const solution = solveShaped(
      model,
      toFrame(points.x, frame),
      points.y,
      pairs(places, widths),
      near === null ? null : [near[1], log(near[0] / high), log(near[2] / high)],
      ([frequency, width]) =>
        frequency > log((0.2 * low) / high) && frequency < log(5) && width > log(1e-5) && width < log(100),
      'No resonance fits this region. Mark frequencies on both sides of the peak.',
    );
    return shapedSolution(model, solution, frame, ([amplitude, frequency, width]) => {
      const [f, g] = [exp(frequency), exp(width)];
      return [high * f, amplitude, high * g, f / g];
    });
  },
};
