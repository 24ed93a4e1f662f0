import { type Entry, parseUnit } from '@heuristor/core';
import { type ShownOutcome } from '../../workers/protocol';
import { pairedResults } from './pairing';

const region = (letter: string): Entry => ({
  kind: 'region',
  id: letter,
  name: '',
  letter,
  along: 't',
  start: 0,
  end: 1,
});
const mean = (id: string, on: string): Entry => ({
  kind: 'statistics',
  id,
  name: '',
  region: on,
  of: 'channel:F',
});
const constant = (name: string) => ({ kind: 'constant', id: name, name }) as Entry;
const formula = (text: string, names: Record<string, string>) =>
  ({ kind: 'calculation', id: 'd', name: 'd', formula: { text, names } }) as unknown as Entry;
const told = (key: string, unit = 'N'): ShownOutcome => ({
  kind: 'results',
  results: [
    {
      key,
      name: key,
      main: true,
      value: 1,
      halfWidth: null,
      standardUncertainty: null,
      degreesOfFreedom: null,
      roundTo: null,
      unit: parseUnit(unit),
    },
  ],
  notes: [],
  correlations: null,
  count: null,
});
const entries = [region('A'), region('B'), mean('m', 'A'), mean('n', 'B')];
const means = { m: told('mean'), n: told('mean') };
const slope = { kind: 'slope', id: 's', name: '', of: 'channel:F', against: 't', region: 'B' } as Entry;

test('what is held against each other belongs together: of one kind and unit, on two stretches', () => {
  const outcomes = { ...means, s: told('slope', 'N/s') };
  expect(pairedResults({ entries: [...entries, slope] }, outcomes)).toEqual([
    'result:m/mean',
    'result:n/mean',
  ]);
});

test('a single result is held against the constant that can be compared with it', () => {
  const sheet = { entries: [constant('c'), ...entries.slice(0, 3), slope] };
  expect(pairedResults(sheet, { c: told('value'), m: told('mean'), s: told('slope', 'N/s') })).toEqual([
    'result:m/mean',
    'result:c/value',
  ]);
});

test.each([
  ['is bound to them', { a: 'result:a/value', b: 'result:b/value' }],
  ['speaks of them by name', {}],
])('a result whose formula %s is not held against what it is worked out from', (_, names) => {
  const sheet = { entries: [constant('b'), constant('a'), formula('a - b', names)] };
  expect(pairedResults(sheet, { a: told('value'), b: told('value'), d: told('value') })).toEqual([
    'result:b/value',
    'result:a/value',
  ]);
});
