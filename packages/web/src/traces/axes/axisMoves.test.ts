import { draggedAxis, panned, pulled, zoomed } from './axisMoves';

const axis = { from: -2, to: 8 };
const placeOf = ({ from, to }: typeof axis, value: number) => (value - from) / (to - from);

test('zooming keeps what is under the pointer, and comes back', () => {
  const nearer = zoomed(axis, 3, 0.5);
  expect(placeOf(nearer, 3)).toBeCloseTo(placeOf(axis, 3), 12);
  expect(nearer.to - nearer.from).toBeCloseTo(5, 12);
  const back = zoomed(nearer, 3, 2);
  expect(back.from).toBeCloseTo(-2, 12);
  expect(back.to).toBeCloseTo(8, 12);
});

test('an axis is never made so narrow that nothing can be told apart on it', () => {
  let sight = { from: 1.7e9, to: 1.7e9 + 1 };
  for (let i = 0; i < 200; i++) sight = zoomed(sight, 1.7e9 + 0.5, 0.5);
  expect(sight.to).toBeGreaterThan(sight.from);
});

test('what is grabbed follows the hand: in the middle all of it moves, at an end the other end stays', () => {
  expect(draggedAxis(axis, 0.5, 0.6)).toEqual(panned(axis, -0.1));
  const upper = draggedAxis(axis, 0.9, 0.45);
  expect(upper.from).toBe(-2);
  // 7 stood at 0.9 of the axis, and stands at 0.45 of it now.
  expect(placeOf(upper, 7)).toBeCloseTo(0.45, 12);
  const lower = draggedAxis(axis, 0.1, 0.4);
  expect(lower.to).toBe(8);
  expect(placeOf(lower, -1)).toBeCloseTo(0.4, 12);
});

test('a hand that pulls an end beyond the other one turns nothing around', () => {
  for (const place of [-3, 0, 1, 4]) {
    const { from, to } = pulled(axis, 'to', 0.9, place);
    expect(to).toBeGreaterThan(from);
    const other = pulled(axis, 'from', 0.1, place);
    expect(other.to).toBeGreaterThan(other.from);
  }
});
