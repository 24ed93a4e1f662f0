import { type MeasuredCell } from '@heuristor/contracts';
import { haveSettled, withRest } from './settling';

const cell = (value: number, u: number | null): Record<string, MeasuredCell> => ({
  A: { value, u, spread: 0, count: 50, pinned: false },
});

test('readings have settled where they agree within their uncertainties', () => {
  expect(haveSettled(cell(10, 0.3), cell(10.4, 0.4))).toBe(true);
  expect(haveSettled(cell(10, 0.3), cell(10.6, 0.4))).toBe(false);
  // Without a word on its noise a thousandth is no change.
  expect(haveSettled(cell(10, null), cell(10.005, null))).toBe(true);
  expect(haveSettled(cell(10, null), cell(10.05, null))).toBe(false);
});

test('what still changes has that in its uncertainty', () => {
  const { value, u } = withRest(cell(10, 0.3), cell(10.4, 0.3)).A;
  expect(value).toBe(10.4);
  expect(u).toBeCloseTo(0.5, 12);
});

// A driven swing comes up as A (1 − e^(−t/τ)): read every 5 s with τ = 8 s, it is 47 % of the way at first.
test('a swing that comes up slowly is read within its uncertainty of where it ends', () => {
  const [end, time, every, u] = [4, 8, 5, 0.01];
  const at = (k: number) => cell(end * (1 - Math.exp((-k * every) / time)), u);
  let k = 1;
  while (!haveSettled(at(k), at(k + 1))) k++;
  expect(Math.abs(at(k + 1).A.value - end)).toBeLessThan(2 * u);
});
