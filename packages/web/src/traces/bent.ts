import { type Line } from '../workers/protocol';

/** Points of a line that is drawn on a logarithmic axis, where it is bent. */
const points = 160;

const known = new WeakMap<Float64Array, Line>();

/** A line of few points with more of them between, since what is straight is bent on a logarithmic axis. */
export function bent(line: Line): Line {
  const { x, y } = line;
  if (x.length < 2 || x.length >= points) return line;
  const before = known.get(y);
  if (before !== undefined) return before;
  const each = Math.ceil(points / (x.length - 1));
  const total = each * (x.length - 1) + 1;
  const part = (values: Float64Array) =>
    Float64Array.from({ length: total }, (_, i) => {
      const from = Math.min(Math.floor(i / each), x.length - 2);
      const [a, b] = [values[from], values[from + 1]];
      return a + ((b - a) * (i - each * from)) / each;
    });
  const found = { x: part(x), y: part(y) };
  known.set(y, found);
  return found;
}
