import { zoomed } from './axisMoves';
import { pixelAt, shareOf, usable, valueAtShare } from './axisScale';
import { scaled } from './scaling';

const logarithmic = { from: 1, to: 1000, isLogarithmic: true } as const;

test('equal ratios are equally long on a logarithmic axis, and what is not above zero lies before it', () => {
  expect([1, 10, 100, 1000].map((value) => shareOf(value, logarithmic))).toEqual(
    [0, 1 / 3, 2 / 3, 1].map((share) => expect.closeTo(share, 12)),
  );
  expect(shareOf(0, logarithmic)).toBe(-Infinity);
  expect(shareOf(-5, logarithmic)).toBe(-Infinity);
  expect(valueAtShare(0.5, logarithmic)).toBeCloseTo(Math.sqrt(1000), 9);
  // A pixel is a share of the value there: a hundredth of three powers of ten.
  expect(pixelAt(100, logarithmic, 300) / 100).toBeCloseTo(Math.log(10) / 100, 12);
  const out = zoomed(logarithmic, 10, 4);
  expect(shareOf(10, { ...out, isLogarithmic: true })).toBeCloseTo(1 / 3, 12);
  expect(out.from).toBeGreaterThan(0);
});

test('ends that a hand set on a linear axis, and that begin at zero or below, are let go on a logarithmic one', () => {
  const below = { from: -1, to: 3 };
  expect([usable(below, true), usable(below, undefined)]).toEqual([null, below]);
  expect(usable({ from: 0.1, to: 3 }, true)).toEqual({ from: 0.1, to: 3 });
  const trace = {
    key: 'x',
    reference: 'channel:x' as const,
    symbol: 'x',
    unit: [],
    quantities: [],
    right: null,
    lacking: [],
    weight: 1,
    wholes: [],
    curves: [],
    others: [],
    low: 0,
    high: 1,
    lines: [
      {
        runId: 'r',
        side: 'left' as const,
        place: 0,
        isBand: false,
        x: Float64Array.of(1, 2, 3),
        y: Float64Array.of(-2, 1, 100),
      },
    ],
  };
  const frame = {
    sight: { from: 0, to: 4 },
    withZero: true,
    scales: { 'x/left': below },
    reach: 'shown',
    isGrowing: false,
  } as const;
  expect(scaled(trace, frame, undefined)).toMatchObject({ low: -1, high: 3 });
  const { low, high } = scaled({ ...trace, isLogarithmic: true }, frame, undefined);
  // To the values above zero, with air that is equal on both sides.
  expect(low).toBeGreaterThan(0);
  expect(Math.log(1 / low)).toBeCloseTo(Math.log(high / 100), 9);
});
