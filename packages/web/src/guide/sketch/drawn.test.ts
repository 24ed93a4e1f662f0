import { pointsText, typedPoints, withStroke } from './drawn';

const axes = {
  across: { title: 't', unit: 's', from: 0, to: 12 },
  upright: { title: 'x', unit: 'm', from: -1, to: 1 },
};

test('a stroke is a value at each place that it passes, and takes the place of what was there', () => {
  const line = withStroke([], [0, 0], [12, 1.2], axes);
  expect(line).toHaveLength(121);
  expect(line[60]).toEqual([6, expect.closeTo(0.6)]);
  // Above the axes there is nothing.
  expect(line[120]).toEqual([12, 1]);
  const back = withStroke(line, [6.1, -0.5], [5.9, -0.5], axes);
  expect(back).toHaveLength(121);
  expect(back.slice(58, 63).map(([, y]) => y)).toEqual([
    expect.closeTo(0.58),
    -0.5,
    -0.5,
    -0.5,
    expect.closeTo(0.62),
  ]);
});

test('points that are typed are those of the sketch, in their order', () => {
  expect(typedPoints('3 0.5; 0 0;\n1, -1', axes)).toEqual([
    [0, 0],
    [1, -1],
    [3, 0.5],
  ]);
  expect(pointsText(typedPoints('0 0; 1 0.5', axes))).toBe('0 0; 1 0.5');
  expect(() => typedPoints('0 0; one', axes)).toThrow('“one” is no point.');
  expect(() => typedPoints('13 0', axes)).toThrow('“13 0” lies outside the axes.');
});
