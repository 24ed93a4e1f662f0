import { numberCell, parseUnit, typedQuantityOf } from '@heuristor/core';
import { textInField, typedCell, typedCondition } from './typedCells';

const mass = { key: 'm', name: 'm', kind: 'number' as const, unit: 'kg' };
const grams = parseUnit('g');

test('a condition is typed and seen in the unit of its column, and kept in its own', () => {
  expect(typedCondition('500 ± 1', grams, mass)).toEqual({ value: 0.5, u: 0.001 });
  expect(typedCondition('0.7 kg', grams, mass)).toEqual({ value: 0.7, u: null });
  expect(typedCondition('', grams, mass)).toBeNull();
  expect(() => typedCondition('500', parseUnit('s'), mass)).toThrow('m is in kg.');
  const shown = numberCell(typedQuantityOf(500, 1, grams, { root: 'm', label: 'm' }));
  expect(textInField(shown, { value: 0.5, u: 0.001 })).toBe('500 ± 1');
});

test('a typed cell keeps the unit in which it was typed, and says it where the column cannot show it', () => {
  expect(typedCell('0.5 ± 0.01', parseUnit('m/s'), 'number')).toEqual({ value: 0.5, u: 0.01, unit: 'm.s-1' });
  const gone = { kind: 'nothing' as const, why: null };
  expect(textInField(gone, { value: 0.5, u: 0.01, unit: 'm.s-1' })).toBe('0.5 ± 0.01 m s⁻¹');
  expect(textInField(gone, { word: 'soft' })).toBe('soft');
  expect(textInField(gone, undefined)).toBe('');
});
