import { numberCell, parseUnit, typedQuantityOf } from '@heuristor/core';
import { heldSentence } from './heldSentence';
import { heldSpans, markedSpans } from './holds';
import { type TrialRow } from './tableView';

const quantity = (value: number, u: number | null) =>
  typedQuantityOf(value, u, [], { root: 'typed', label: 'typed' });
const row = (x: number, y: number, u = 0.2): TrialRow => ({
  id: `${x}/${y}`,
  kind: 'typed',
  run: null,
  place: null,
  name: '',
  cells: { x: numberCell(quantity(x, null)), y: numberCell(quantity(y, u)) },
  leftOut: null,
});
const atMost = (level: number, unit = '') => ({ column: 'y', is: 'atMost', level, unit }) as const;
const words = { condition: 'y ≤ 0 W', along: 'c', unit: 'kg' };
const said = (rows: readonly TrialRow[], level = 0) => {
  const xs = rows.map(({ cells }) => (cells.x.kind === 'number' ? cells.x.quantity.value : NaN));
  return heldSentence(words, heldSpans(rows, 'x', atMost(level)), {
    low: Math.min(...xs),
    high: Math.max(...xs),
  });
};

test('a condition holds from where the line between two rows crosses its level, uncertain by the value over the slope', () => {
  // y = 4 − 2 x: at most 0 from 2 on, by 0.2 / 2.
  const rows = [3, 1, 2.5, 0].map((x) => row(x, 4 - 2 * x));
  expect(heldSpans(rows, 'x', atMost(0))).toEqual([
    { from: { at: expect.closeTo(2, 12), u: expect.closeTo(0.1, 12) }, to: null },
  ]);
  expect(markedSpans(rows, 'x', atMost(0))).toEqual([{ from: expect.closeTo(2, 12), to: 3 }]);
  expect(said(rows)).toBe('y ≤ 0 W holds for c from 2.00 ± 0.10 kg on.');
  expect(heldSpans(rows, 'x', { column: 'y', is: 'atLeast', level: 0, unit: '' })).toEqual([
    { from: null, to: { at: expect.closeTo(2, 12), u: expect.closeTo(0.1, 12) } },
  ]);
});

test('it holds between two places, in two parts, everywhere or nowhere', () => {
  const parabola = [0, 1, 2, 3, 4].map((x) => row(x, (x - 0.5) * (x - 3.5), 0));
  const [span, ...others] = heldSpans(parabola, 'x', atMost(0));
  expect(others).toEqual([]);
  // Between neighbours the straight line decides: 1.75 to −1.25, and back.
  expect(span).toEqual({
    from: { at: expect.closeTo(1.75 / 3, 12), u: null },
    to: { at: expect.closeTo(4 - 1.75 / 3, 12), u: null },
  });
  expect(said(parabola)).toBe('y ≤ 0 W holds for c from 0.5833 kg to 3.417 kg.');
  const hill = [0, 1, 2, 3, 4].map((x) => row(x, -(x - 0.5) * (x - 3.5), 0));
  expect(said(hill)).toBe('y ≤ 0 W holds for c up to 0.5833 kg, and from 3.417 kg on.');
  expect(said(parabola, 5)).toBe('y ≤ 0 W holds for every c from 0 to 4 kg.');
  expect(said(parabola, -5)).toBe('y ≤ 0 W holds for no c from 0 to 4 kg.');
});

test('of several rows at one place all must hold it; what has no number says nothing', () => {
  const rows = [
    ...[0, 1, 2, 3].map((x) => row(x, 1.5 - x)),
    ...[0, 1, 2, 3].map((x) => row(x, 2.5 - x)),
    {
      ...row(9, 0),
      cells: { x: numberCell(quantity(9, null)), y: { kind: 'nothing', why: null } },
    } as TrialRow,
  ];
  expect(markedSpans(rows, 'x', atMost(0))).toEqual([{ from: 2.5, to: 3 }]);
  expect(heldSpans([], 'x', atMost(0))).toEqual([]);
});

test('a level means what it meant when it was typed, in whatever unit the column is shown', () => {
  const inCentimetres = [0, 1, 2, 3].map((x): TrialRow => {
    const y = typedQuantityOf(100 * x, 1, parseUnit('cm'), { root: 'typed', label: 'typed' });
    return { ...row(x, 0), cells: { x: numberCell(quantity(x, null)), y: numberCell(y) } };
  });
  expect(markedSpans(inCentimetres, 'x', atMost(1.5, 'm'))).toEqual([
    { from: 0, to: expect.closeTo(1.5, 12) },
  ]);
  expect(heldSpans(inCentimetres, 'x', atMost(1.5, 'm'))[0].to?.u).toBeCloseTo(0.01, 9);
  expect(markedSpans(inCentimetres, 'x', atMost(1.5, 's'))).toEqual([]);
});
