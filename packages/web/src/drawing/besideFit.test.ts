import { type Fitted } from '@heuristor/core';
import { besideFit } from './besideFit';

// y = 2 x, fitted from 1 to 3, with a band of half a unit to either side.
const fitted = {
  curve: { x: Float64Array.of(1, 2, 3), y: Float64Array.of(2, 4, 6) },
  valueAt: (x: number) => 2 * x,
  bandAt: () => 0.5,
} as unknown as Fitted;
const sight = { from: 0, to: 5 };
const ends = ({ x, y }: { x: Float64Array; y: Float64Array }) => [
  x[0],
  y[0],
  x[x.length - 1],
  y[y.length - 1],
];

test('beyond its region a fit is drawn fainter, to the ends of what is looked at', () => {
  expect(besideFit(fitted, {}, sight)).toEqual([]);
  const beyond = besideFit(fitted, { showBeyond: true }, sight);
  expect(beyond.map(ends)).toEqual([
    [0, 0, 1, 2],
    [3, 6, 5, 10],
  ]);
  expect(beyond.map(({ look }) => look)).toEqual(['faint', 'faint']);
  expect(besideFit(fitted, { showBeyond: true }, { from: 1.5, to: 2.5 })).toEqual([]);
});

test('the band lies so far above and below, as far as the fit is drawn', () => {
  const band = besideFit(fitted, { showBand: true }, sight);
  expect(band.map(ends)).toEqual([
    [1, 2.5, 3, 6.5],
    [1, 1.5, 3, 5.5],
  ]);
  const wide = besideFit(fitted, { showBand: true, showBeyond: true }, sight).slice(2);
  expect(wide.map(ends)).toEqual([
    [0, 0.5, 5, 10.5],
    [0, -0.5, 5, 9.5],
  ]);
});

test('where a relation has no value nothing is drawn', () => {
  const root = { ...fitted, valueAt: (x: number) => Math.sqrt(x - 1) } as Fitted;
  expect(besideFit(root, { showBeyond: true }, sight)[0].x).toHaveLength(1);
});
