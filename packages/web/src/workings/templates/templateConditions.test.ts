import {
  type ConditionColumn,
  type Template,
  emptyGuide,
  emptyTrials,
  emptyWorkings,
} from '@heuristor/contracts';
import { type Entry } from '@heuristor/core';
import { withConditions } from './templates';
import { alikesOf, looksLike, withAlikes } from './templateConditions';

const constant = (id: string, name: string, unit: string): Entry => ({
  kind: 'constant',
  id,
  name,
  value: 0.42,
  uncertainty: 0.002,
  unit,
  source: '',
  ends: '',
  shift: 0,
});
const template = (entries: Entry[], conditions: ConditionColumn[] = []): Template => ({
  id: '0b0f7f6e-0000-4000-8000-000000000000',
  name: 'Energy',
  about: '',
  channels: [],
  conditions,
  workings: { ...emptyWorkings, entries },
  trials: emptyTrials,
  guide: emptyGuide,
});
const kinetic: Entry = {
  kind: 'formulaSeries',
  id: 'K',
  name: 'K',
  formula: { text: '1/2 m v^2', names: { m: 'result:mass/value', v: 'entry:v' } },
  unit: 'J',
  windowPoints: 9,
};
const mass: ConditionColumn = { key: 'k', name: 'mass of the boat', kind: 'number', unit: 'g' };

test('a constant of a template may be a condition of the same kind; formulas then speak of that one', () => {
  const energy = template([constant('mass', 'm', 'kg'), kinetic]);
  const [alike] = alikesOf(energy, [{ key: 'l', name: 'length', kind: 'number', unit: 'm' }, mass]);
  expect(alike).toEqual({ symbol: 'm', constantId: 'mass', condition: mass });
  expect(looksLike(alike)).toBe(true);
  const { entries } = withAlikes(energy, [alike]).workings;
  expect(entries).toMatchObject([
    { id: 'K', formula: { text: '1/2 {mass of the boat} v^2', names: { v: 'entry:v' } } },
  ]);
});

test('so may a condition that a template asks for; nothing is asked where it has that name already', () => {
  const m: ConditionColumn = { key: 'm', name: 'm', kind: 'number', unit: 'kg' };
  const impulse = template([{ ...kinetic, formula: { text: 'm v', names: { v: 'entry:v' } } }], [m]);
  const alikes = alikesOf(impulse, [mass]);
  expect(alikes).toHaveLength(1);
  const made = withAlikes(impulse, alikes);
  expect(made.conditions).toEqual([{ ...mass, key: 'm' }]);
  expect(withConditions([mass], made)).toBeNull();
  expect(made.workings.entries).toMatchObject([{ formula: { text: '{mass of the boat} v' } }]);
  expect(alikesOf(impulse, [m])).toEqual([]);
});

test('nothing is asked of plain numbers, of words, of another kind of unit, or of what no formula can speak of', () => {
  const word: ConditionColumn = { key: 'w', name: 'm', kind: 'word', unit: '' };
  const count: ConditionColumn = { key: 'n', name: 'n', kind: 'number', unit: '' };
  expect(alikesOf(template([constant('mass', 'm', 'kg'), kinetic]), [word, count])).toEqual([]);
  expect(alikesOf(template([constant('n', 'n', '1')]), [count])).toEqual([]);
  const compared: Entry = {
    kind: 'comparison',
    id: 'c',
    name: '',
    first: 'result:mass/value',
    second: 'result:other/value',
  };
  expect(alikesOf(template([constant('mass', 'm', 'kg'), compared]), [mass])).toEqual([]);
});
