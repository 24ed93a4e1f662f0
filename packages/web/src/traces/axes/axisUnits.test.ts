import { parseUnit } from '@heuristor/core';
import { frameOf } from '../compose';
import { type DrawnTrace } from '../drawn';
import { setInUnitsOf } from './axisUnits';

// 1 ft = 0.3048 m exactly; 0 °C = 273.15 K.
const axesIn = (along: string, upright: string) => ({
  frame: frameOf(
    [
      {
        symbol: 'x',
        quantity: 'position',
        unit: parseUnit(along),
        low: 0,
        high: 1,
        leastPositive: null,
        notPositive: 0,
        step: null,
      },
    ],
    false,
  ),
  traces: [{ key: 'one', unit: parseUnit(upright), right: null } as unknown as DrawnTrace],
});

test('what a hand has set of an axis is the same interval in the unit of a new run', () => {
  const set = { sight: { from: 0.3048, to: 0.6096 }, scales: { 'one/left': { from: 0, to: 100 } } };
  const patch = setInUnitsOf(axesIn('[ft_i]', 'K'), axesIn('m', 'Cel'), set, true);
  expect(patch?.sight?.from).toBeCloseTo(1, 9);
  expect(patch?.sight?.to).toBeCloseTo(2, 9);
  expect(patch?.scales?.['one/left'].from).toBeCloseTo(273.15, 9);
  expect(patch?.scales?.['one/left'].to).toBeCloseTo(373.15, 9);
  // Another page, or another quantity along it: that is no change of unit.
  expect(setInUnitsOf(axesIn('[ft_i]', 'Cel'), axesIn('m', 'Cel'), set, false)).toBeNull();
  expect(setInUnitsOf(axesIn('m', 'Cel'), axesIn('m', 'Cel'), set, true)).toBeNull();
  // What measures something else follows its data again.
  expect(setInUnitsOf(axesIn('m', 'N'), axesIn('m', 'Cel'), set, true)).toEqual({ scales: {} });
});
