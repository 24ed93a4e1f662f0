import { emptyWorkings } from '@heuristor/contracts';
import { type Entry, type FormulaText, parseUnit } from '@heuristor/core';
import { type ShownOutcome } from '../../workers/protocol';
import {
  boundFormula,
  namedFormula,
  nameables,
  openNames,
  parametersFor,
  withFormulasRenamed,
} from './formulas';
import { listed, usersOf, withDuplicate } from '../entries/users';

const constant = (id: string, name: string): Entry => ({
  kind: 'constant',
  id,
  name,
  value: 1,
  uncertainty: 0,
  unit: 'kg',
  source: '',
  ends: '',
  shift: 0,
});
const series = (id: string, name: string, formula: FormulaText): Entry => ({
  kind: 'formulaSeries',
  id,
  name,
  formula,
  unit: '',
  windowPoints: 9,
});
const result = (unit: string): ShownOutcome => ({
  kind: 'results',
  results: [
    {
      key: 'value',
      name: 'value',
      value: 1,
      halfWidth: null,
      standardUncertainty: null,
      degreesOfFreedom: null,
      unit: parseUnit(unit),
      roundTo: null,
      main: true,
    },
  ],
  notes: [],
  correlations: null,
  count: null,
});
const known = (entries: Entry[], outcomes: Record<string, ShownOutcome>) =>
  nameables({
    workings: { entries },
    runs: [],
    outcomes,
    resultNames: {},
    conditions: [{ name: 'hanging mass', unit: 'g' }],
    abscissa: 't',
  });
const unbound = (text: string): FormulaText => ({ text, names: {} });

test('a formula is bound to what its names mean when it is typed', () => {
  const names = known([constant('m1', 'm'), series('v1', 'v', unbound('x'))], {
    m1: result('kg'),
    v1: { kind: 'series', symbol: 'v', quantity: '', unit: [], interval: null, notes: [] },
  });
  expect(boundFormula('1/2 m v^2 + {hanging mass} t', unbound(''), names).names).toEqual({
    m: 'result:m1/value',
    v: 'entry:v1',
    t: 't',
  });
  // A name that meant something goes on to mean it, though another is called so now.
  const before: FormulaText = { text: 'm v', names: { m: 'result:old/value' } };
  const both = known([constant('m1', 'm'), constant('old', 'mass')], { m1: result('kg'), old: result('kg') });
  expect(boundFormula('2 m', before, both).names).toEqual({ m: 'result:old/value' });
  // What cannot be read keeps what it meant.
  expect(boundFormula('2 m +', before, both)).toEqual({ text: '2 m +', names: before.names });
});

test('an entry that is refused is known, and says why it has no value', () => {
  const names = known([constant('m1', 'm')], { m1: { kind: 'refused', sentence: 'Negative.' } });
  expect(names[0]).toMatchObject({ name: 'm', what: 'result', refused: 'Negative.' });
  expect(openNames(unbound('m q'), names)).toEqual(['q']);
});

test('formulas follow a renaming, of what they are bound to and of nothing else', () => {
  const entries = [
    constant('m1', 'm'),
    constant('m2', 'm'),
    series('a', 'a', { text: '2 m  + x', names: { m: 'result:m1/value' } }),
    series('b', 'b', { text: '2 m', names: { m: 'result:m2/value' } }),
    series('c', 'c', unbound('{mean of m} m')),
    series('d', 'd', unbound('2 m +')),
  ];
  const renamed = withFormulasRenamed({ ...emptyWorkings, entries }, 'm1', 'm', 'cart mass');
  expect(
    renamed.entries.slice(2).map((entry) => (entry.kind === 'formulaSeries' ? entry.formula : null)),
  ).toEqual([
    { text: '2 {cart mass}  + x', names: { 'cart mass': 'result:m1/value' } },
    { text: '2 m', names: { m: 'result:m2/value' } },
    { text: '{mean of cart mass} {cart mass}', names: {} },
    { text: '2 {cart mass} +', names: {} },
  ]);
});

test('“E = …” names what it makes', () => {
  expect(namedFormula('E = 1/2 m v^2')).toEqual({ name: 'E', text: '1/2 m v^2' });
  expect(namedFormula(' x_0=2 ')).toEqual({ name: 'x_0', text: '2' });
  expect(namedFormula('m v')).toEqual({ name: null, text: 'm v' });
  expect(namedFormula('2 = m')).toEqual({ name: null, text: '2 = m' });
});

test('who speaks of an entry is known: by a field, bound in a formula, or by its name', () => {
  const entries: Entry[] = [
    constant('m1', 'm'),
    series('K', 'K', { text: 'mass v', names: { mass: 'result:m1/value' } }),
    series('p', 'p', unbound('m v')),
    series('q', 'q', { text: 'm', names: { m: 'result:other/value' } }),
    { kind: 'derivative', id: 'F', name: 'F', of: 'entry:p', windowPoints: 9 },
    { kind: 'comparison', id: 'c', name: '', first: 'result:m1/value', second: 'result:x/value' },
  ];
  expect(usersOf({ entries }, 'm1').map(({ id }) => id)).toEqual(['K', 'p', 'c']);
  expect(usersOf({ entries }, 'p').map(({ id }) => id)).toEqual(['F']);
  expect(listed(['K', 'p', 'c'])).toBe('K, p and c');
});

test('a copy stands right after its original, under a free name', () => {
  const copied = withDuplicate({ ...emptyWorkings, entries: [constant('a', 'm'), constant('b', 'g')] }, 'a');
  expect(copied?.workings.entries.map(({ name }) => name)).toEqual(['m', 'm2', 'g']);
  expect(copied?.workings.entries[1].id).toBe(copied?.id);
  expect(withDuplicate(emptyWorkings, 'a')).toBeNull();
});

test('what a typed relation leaves open is written down, so that a later name does not take it', () => {
  const names = known([constant('m1', 'm')], { m1: result('kg') });
  const held = { start: 2, held: true, low: null, high: null };
  expect(parametersFor(unbound('m a exp(-t/tau)'), { tau: held, gone: held }, names)).toEqual({
    a: { start: null, held: false, low: null, high: null },
    tau: held,
  });
});
