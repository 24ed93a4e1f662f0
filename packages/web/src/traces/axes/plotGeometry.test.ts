import { type ShownLabel } from '../labels/labelReader';
import { labelPlace } from '../labels/labelPlaces';
import { readAt } from '../ownGraphs/ownGraphDrawing';
import { pinchedAxis } from '../pinch';

describe('two fingers', () => {
  const before = { from: 2, to: 10 };
  test('what is under them stays under them', () => {
    const after = pinchedAxis(before, 800, [200, 600], [100, 700]);
    if (after === null) throw new Error('too close');
    const valueAt = (pixel: number) => after.from + (pixel / 800) * (after.to - after.from);
    // 200 and 600 pixels stood at 4 and 8.
    expect(valueAt(100)).toBeCloseTo(4, 12);
    expect(valueAt(700)).toBeCloseTo(8, 12);
  });
  test('moved side by side they move the axis; along an axis on which they are close they leave it', () => {
    expect(pinchedAxis(before, 800, [200, 600], [300, 700])).toEqual({ from: 1, to: 9 });
    expect(pinchedAxis(before, 800, [200, 210], [100, 700])).toBeNull();
  });
  test('fingers that meet or cross do not turn the axis around', () => {
    for (const now of [
      [400, 400],
      [600, 200],
    ] as const) {
      const after = pinchedAxis(before, 800, [200, 600], now);
      expect((after?.to ?? 0) - (after?.from ?? 0)).toBeGreaterThan(0);
    }
  });
});

describe('where a label stands', () => {
  const plot = { left: 10, top: 20, width: 400, height: 100 };
  const axis = { low: 0, high: 2 };
  const sight = { from: 0, to: 4 };
  const place = (at: ShownLabel['label']['at'], anchor: ShownLabel['anchor'], offset = { x: 30, y: -20 }) =>
    labelPlace({ label: { id: 'l', panel: 'p', text: '', at, offset }, anchor }, axis, plot, sight);
  const point = { kind: 'point' as const, run: 'a', series: 'channel:x' as const, x: 1 };

  test('a point is pointed at, the words stand beside it and never leave the plot', () => {
    expect(place(point, { x: 1, y: 1 })).toEqual({ target: { x: 110, y: 70 }, middle: { x: 140, y: 50 } });
    expect(place(point, { x: 3.9, y: 1.9 }, { x: 300, y: -300 })?.middle).toEqual({ x: 410, y: 20 });
  });
  test('what lies out of sight is not shown', () => {
    expect(place(point, { x: 5, y: 1 })).toBeNull();
    expect(place(point, { x: 1, y: 2.5 })).toBeNull();
    expect(place({ kind: 'region', region: 'A' }, { x: -1, y: null })).toBeNull();
  });
  test('free words stand at their share of the plot, whatever is looked at', () => {
    expect(place({ kind: 'free', x: 0.25, y: 0.5 }, null, { x: 0, y: 0 })).toEqual({
      target: null,
      middle: { x: 110, y: 70 },
    });
  });
});

describe('reading a graph of its own', () => {
  test('of a line the nearest point, of bars the one that stands there with its ends', () => {
    const line = { x: Float64Array.of(0, 1, 2), y: Float64Array.of(5, 7, 9), isBand: false };
    expect(readAt({ shape: 'line' }, line, 1.4)).toEqual({ from: 1, to: null, value: 7 });
    // The outline of bars of 3 and 8 from 0 to 1 and from 1 to 2.
    const bars = {
      x: Float64Array.of(0, 0, 1, 1, 2, 2),
      y: Float64Array.of(0, 3, 3, 8, 8, 0),
      isBand: false,
    };
    expect(readAt({ shape: 'bars' }, bars, 0.5)).toEqual({ from: 0, to: 1, value: 3 });
    expect(readAt({ shape: 'bars' }, bars, 1.2)).toEqual({ from: 1, to: 2, value: 8 });
    expect(readAt({ shape: 'bars' }, bars, 2.5)).toBeNull();
  });
});
