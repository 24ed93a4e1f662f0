import { heightIn, valueIn } from './panelPlot';

const plot = { top: 11, height: 160 };
const axis = { low: -2, high: 6 };

test('the upper end of an axis is at the top of its plot, the lower one at its foot, and heights lead back to values', () => {
  expect(heightIn(plot, 6, axis)).toBe(11);
  expect(heightIn(plot, -2, axis)).toBe(171);
  for (const value of [-2, 0, 1.25, 6])
    expect(valueIn(plot, heightIn(plot, value, axis), axis)).toBeCloseTo(value, 12);
});

test('beyond the plot a height means its end', () => {
  expect(valueIn(plot, 0, axis)).toBe(6);
  expect(valueIn(plot, 400, axis)).toBe(-2);
});
