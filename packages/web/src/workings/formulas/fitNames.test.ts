import { type Entry, type ParameterSetting, parseUnit, usualSetting } from '@heuristor/core';
import { type Nameable, boundFormula, namesTaken, parametersFor } from './formulas';

const known: Nameable[] = [
  { name: 't', reference: 't', unit: parseUnit('s'), what: 'series' },
  { name: 'a', reference: 'entry:a', unit: parseUnit('m/s2'), what: 'series' },
  { name: 'm', unit: parseUnit('kg'), what: 'condition' },
];
const fitOf = (text: string, parameters: Record<string, ParameterSetting> = {}) =>
  ({
    kind: 'formulaFit',
    formula: boundFormula(text, { text: '', names: {} }, known),
    parameters,
    against: 't',
  }) as unknown as Extract<Entry, { kind: 'formulaFit' }>;

test('what stands for something on the bench can be taken as a parameter; the axis cannot', () => {
  const fit = fitOf('v_0 + a t + m');
  expect(namesTaken('v_0 + a t + m', fit, known).map(({ name, what }) => [name, what])).toEqual([
    ['a', 'series'],
    ['m', 'condition'],
  ]);
  const taken = fitOf('v_0 + a t', { a: usualSetting });
  expect(namesTaken('v_0 + a t', taken, known)).toEqual([]);
  expect(namesTaken('v_0 + (', taken, known)).toEqual([]);
});

test('what was taken stays a parameter while the formula is typed on', () => {
  const held = { ...usualSetting, start: 2 };
  const formula = boundFormula('v_0 + a t', { text: '', names: {} }, known);
  expect(parametersFor(formula, { a: held }, known)).toEqual({ a: held, v_0: usualSetting });
  const without = boundFormula('v_0 + 3 t', { text: '', names: {} }, known);
  expect(parametersFor(without, { a: held }, known)).toEqual({ v_0: usualSetting });
});
