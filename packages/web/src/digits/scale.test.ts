import { scaleHolding, shareOn } from './scale';

test('a scale has round ends, holds every value that came, and stays while it does', () => {
  const first = scaleHolding(null, 3.2, 0.1);
  expect(first).toEqual({ low: 0, high: 5 });
  expect(scaleHolding(first, 4.9, 0.1)).toBe(first);
  const wider = scaleHolding(first, 7, 0.1);
  expect(wider).toEqual({ low: 0, high: 10 });
  expect(scaleHolding(wider, -0.5, 0.1)).toEqual({ low: -10, high: 10 });
  expect(scaleHolding(null, -30, 0.1)).toEqual({ low: -50, high: 0 });
});

test('noise about zero does not fill a scale, and what is no number changes none', () => {
  expect(scaleHolding(null, 0.001, 0.5)).toEqual({ low: 0, high: 0.5 });
  expect(scaleHolding(null, NaN, 2)).toEqual({ low: 0, high: 2 });
  const standing = { low: -1, high: 1 };
  expect(scaleHolding(standing, Infinity, 2)).toBe(standing);
});

test('the pointer stands where the value is', () => {
  expect(shareOn({ low: -10, high: 10 }, 5)).toBeCloseTo(0.75, 12);
  expect(shareOn({ low: 0, high: 5 }, 9)).toBe(1);
});
