import { type Solution } from '../levenbergMarquardt';
import { type RelationSolution } from '../relation';
import { type ShapedModel } from './shaped';

/** How the axis of the solver lies on that of the points: u = (x − origin) / reach. */
export interface Frame {
  origin: number;
  reach: number;
}

export const toFrame = (x: Float64Array, { origin, reach }: Frame): Float64Array =>
  x.map((place) => (place - origin) / reach);

/** From the least to the greatest place. */
export function endsOf(x: Float64Array): { low: number; high: number } {
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < x.length; i++) {
    if (x[i] < low) low = x[i];
    if (x[i] > high) high = x[i];
  }
  return { low, high };
}

const step = 1e-6;

/** A shape with its factors as a solved relation; derivatives of the named parameters are taken by differences. */
export function shapedSolution(
  model: ShapedModel,
  solution: Solution,
  { origin, reach }: Frame,
  named: (own: readonly number[]) => number[],
): RelationSolution {
  const { factors, held } = model;
  const values = new Float64Array(factors);
  const byHeld = new Float64Array(factors * held);
  const at = (own: readonly number[], u: number) => {
    model.fill(own.slice(factors), u, values, null);
    return values.reduce((sum, value, k) => sum + own[k] * value, 0);
  };
  const own = solution.parameters;
  const largest = Math.max(...own.slice(0, factors).map(Math.abs), Number.MIN_VALUE);
  const steps = own.map((value, k) => step * (k < factors ? largest : Math.max(Math.abs(value), 0.1)));
  const moved = steps.map((size, k) => {
    const by = (sign: number) => named(own.map((value, j) => (j === k ? value + sign * size : value)));
    const [right, left] = [by(1), by(-1)];
    return right.map((value, i) => (value - left[i]) / (2 * size));
  });
  return {
    solution,
    named,
    transformation: named(own).map((_, i) => moved.map((column) => column[i])),
    value: (parameters, x) => at(parameters, (x - origin) / reach),
    slope(parameters, x) {
      const u = (x - origin) / reach;
      return (at(parameters, u + step) - at(parameters, u - step)) / (2 * step * reach);
    },
    gradient(parameters, x) {
      model.fill(parameters.slice(factors), (x - origin) / reach, values, byHeld);
      return [
        ...values,
        ...Array.from({ length: held }, (_, j) =>
          values.reduce((sum, _value, k) => sum + parameters[k] * byHeld[j * factors + k], 0),
        ),
      ];
    },
  };
}
