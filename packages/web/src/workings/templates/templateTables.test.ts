import {
  type Template,
  type TrialColumn,
  emptyTable,
  emptyTrials,
  emptyWorkings,
  emptyGuide,
  trialsWithoutRuns,
} from '@heuristor/contracts';
import { type Entry } from '@heuristor/core';
import { runOf } from '../../testing/runs';
import { tableView } from '../../trials/tableView';
import { withAlikes } from './templateConditions';
import { withConditions, withTemplate } from './templates';

const slope: Entry = { kind: 'slope', id: 's', name: 'v', of: 'channel:x', against: 't', region: null };
const base = { name: '', unit: '', hidden: false };
const columns: TrialColumn[] = [
  { ...base, kind: 'condition', key: 'load', condition: 'c1' },
  { ...base, kind: 'result', key: 'v', entry: 's', field: 'slope' },
  { ...base, kind: 'formula', key: 'p', formula: 'm v' },
  { ...base, kind: 'value', key: 'each', of: 'channel:x' },
];
const template: Template = {
  id: '0b0f7f6e-0000-4000-8000-000000000000',
  name: 'Impulse',
  about: '',
  channels: [{ key: 'x', quantity: 'position', unit: 'm' }],
  conditions: [{ key: 'c1', name: 'm', kind: 'number', unit: 'kg' }],
  workings: { ...emptyWorkings, entries: [slope] },
  guide: emptyGuide,
  trials: {
    ...emptyTrials,
    tables: [
      {
        ...emptyTable,
        id: 'one',
        name: 'p against m',
        columns,
        planned: [{ id: 'p1', conditions: { c1: { value: 0.5, u: null } } }],
      },
    ],
  },
};
const runs = [
  {
    ...runOf('a', ['s']),
    channels: runOf('a', ['s']).channels.map((channel) => ({ ...channel, quantity: 'position', unit: 'm' })),
  },
];

test('a template brings its tables over the entries, channels and conditions that stand for its own', () => {
  // The key of its condition is taken by another one here.
  const present = [{ key: 'c1', name: 'spring', kind: 'word' as const, unit: '' }];
  const conditions = withConditions(present, template) ?? [];
  const made = withTemplate(emptyWorkings, runs, template, conditions);
  const [table] = made?.tables ?? [];
  const [, key] = conditions.map((one) => one.key);
  expect(key).not.toBe('c1');
  expect(table.id).not.toBe('one');
  expect(table.columns).toEqual([
    { ...columns[0], condition: key },
    { ...columns[1], entry: made?.workings.entries[0].id },
    columns[2],
    { ...columns[3], of: 'channel:s' },
  ]);
  expect(table.planned.map((row) => row.conditions)).toEqual([{ [key]: { value: 0.5, u: null } }]);
  expect(table.planned[0].id).not.toBe('p1');
});

test('a condition that has another name here is found by its column, and by formulas over it', () => {
  const mass = { key: 'c7', name: 'mass of the boat', kind: 'number' as const, unit: 'g' };
  const answered = withAlikes(template, [{ symbol: 'm', constantId: null, condition: mass }]);
  const made = withTemplate(emptyWorkings, runs, answered, [mass]);
  const [table] = made?.tables ?? [];
  expect(table.columns[0]).toMatchObject({ condition: 'c7' });
  expect(table.columns[2]).toMatchObject({ formula: '{mass of the boat} v' });
  const view = tableView({
    table,
    runs: [{ ...runs[0], conditions: { c7: { value: 500, u: null } } }],
    conditions: [mass],
    workings: made?.workings ?? emptyWorkings,
    outcomes: new Map(),
  });
  expect(view.columns.map(({ fault }) => fault).slice(0, 3)).toEqual([null, null, null]);
});

test('what belongs to one class is not kept with a template; what is planned is', () => {
  const [table] = trialsWithoutRuns({
    ...emptyTrials,
    tables: [
      {
        ...template.trials.tables[0],
        typed: [{ id: 't1', name: 'Gulls', cells: {} }],
        leftOut: [{ row: 't1', why: '' }],
        only: { column: 'load', words: ['x'] },
      },
    ],
  }).tables;
  expect(table).toMatchObject({ typed: [], leftOut: [], only: null, planned: [{ id: 'p1' }], columns });
});
