import { type Sight } from '../workers/protocol';
import { asLengths } from './axes/axisScale';

/** Two fingers on a plot, in pixels from its left and lower edge. */
export interface Fingers {
  x: [number, number];
  y: [number, number];
}

/** Fingers that are closer than this along an axis do not turn it. */
const leastApart = 40;

/** An axis on which what was under both fingers stays under them; null where they are too close along it. */
export function pinchedAxis(
  before: Sight,
  length: number,
  began: readonly [number, number],
  now: readonly [number, number],
): Sight | null {
  if (Math.abs(began[1] - began[0]) < leastApart) return null;
  return asLengths(before, (ends) => {
    const span = ends.to - ends.from;
    const [a, b] = began.map((place) => ends.from + (place / length) * span);
    // Fingers that cross would turn the axis around.
    const apart = Math.sign(began[1] - began[0]) * Math.max(Math.abs(now[1] - now[0]), leastApart / 4);
    const perPixel = (b - a) / apart;
    const middle = (now[0] + now[1]) / 2;
    const from = (a + b) / 2 - middle * perPixel;
    return { from, to: from + length * perPixel };
  });
}
