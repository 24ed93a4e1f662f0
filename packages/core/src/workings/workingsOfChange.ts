import { type Series } from '../series/series';
import { type Working } from './outcome';
import { symbolOf, workingBy } from './working';

/** How a change from one moment to another comes about, and its rate; by the keys of their results. */
export function workingsOfChange(
  { symbol, unit, timeUnit }: Series,
  [t1, x1]: readonly [at: number, value: number],
  [t2, x2]: readonly [at: number, value: number],
): Record<string, () => Working> {
  const letters = { a: symbolOf(symbol, '1'), b: symbolOf(symbol, '2') };
  const [a, b] = [x1, x2].map((value) => ({ value, unit }));
  const [from, to] = [t1, t2].map((value) => ({ value, unit: timeUnit }));
  const rate = () =>
    workingBy(
      `\\frac{\\Delta ${symbolOf(symbol)}}{\\Delta t}`,
      '(b - a)/(t_2 - t_1)',
      { a, b, t_1: from, t_2: to },
      letters,
    );
  return {
    change: () => workingBy(`\\Delta ${symbolOf(symbol)}`, 'b - a', { a, b }, letters),
    slope: rate,
    rate,
    duration: () => workingBy('\\Delta t', 't_2 - t_1', { t_1: from, t_2: to }),
  };
}
