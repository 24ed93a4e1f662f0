import { type ConditionColumn } from '@heuristor/contracts';
import { plannedName } from './plannedName';
import { combinations, faultOfValues, valuesTyped } from './plannedValues';

const load: ConditionColumn = { key: 'l', name: 'load', kind: 'number', unit: 'kg' };
const tether: ConditionColumn = { key: 't', name: 'tether', kind: 'word', unit: '' };

test('values are separated by semicolons, each with its unit and uncertainty, with a decimal comma too', () => {
  expect(valuesTyped('0.5; 1 ± 0.001;; 250 g; 0,35 kg', load)).toEqual([
    { value: 0.5, u: null },
    { value: 1, u: 0.001 },
    { value: 0.25, u: null },
    { value: 0.35, u: null },
  ]);
  expect(valuesTyped(' string ; elastic', tether)).toEqual([{ word: 'string' }, { word: 'elastic' }]);
  expect(faultOfValues('0.5; heavy', load)).toMatch(/heavy/);
  expect(faultOfValues('0.5; 3 s', load)).toMatch(/kg/);
  expect(faultOfValues('0.5; 1', load)).toBeNull();
});

test('two values of each of two conditions make four rows, so often as wanted', () => {
  const rows = combinations(
    [
      { key: 'l', values: valuesTyped('0.5; 1', load) },
      { key: 'x', values: [] },
      { key: 't', values: valuesTyped('string; elastic', tether) },
    ],
    2,
  );
  expect(rows.map((conditions) => plannedName({ id: '', conditions }, [load, tether]))).toEqual([
    'load 0.5 kg, string',
    'load 0.5 kg, string',
    'load 0.5 kg, elastic',
    'load 0.5 kg, elastic',
    'load 1 kg, string',
    'load 1 kg, string',
    'load 1 kg, elastic',
    'load 1 kg, elastic',
  ]);
  expect(combinations([{ key: 'l', values: [] }], 3)).toEqual([]);
});
