import { type WorkingsDocument, emptyWorkings, workingsSchema } from '@heuristor/contracts';
import { type Entry, entryKindKeys, kindOf } from '@heuristor/core';
import { runOf } from '../testing/runs';
import {
  explicitTraces,
  freeLetter,
  groupsOf,
  entryNames,
  namesOf,
  withEntry,
  withHorizontal,
  withMoved,
  withRegion,
  withTraceToggled,
  withoutEntry,
} from './edits';

const runs = [runOf('a', ['x', 'F'])];
const region = (id: string, letter: string): Entry => ({
  kind: 'region',
  id,
  name: '',
  letter,
  along: 't',
  start: 0,
  end: 1,
});
const mean = (id: string, on: string | null): Entry => ({
  kind: 'statistics',
  id,
  name: '',
  region: on,
  of: 'channel:x',
});
const sheet = (entries: Entry[]): WorkingsDocument => ({ ...emptyWorkings, entries });

test('a new entry of every kind that is offered is one that can be stored', () => {
  for (const kind of entryKindKeys)
    for (const { preset } of kindOf(kind).offers) {
      const { workings } = withEntry(emptyWorkings, runs, {
        kind,
        preset,
        of: 'channel:x',
        nameOfSource: 'x',
        region: null,
      });
      expect(workingsSchema.safeParse(workings).error).toBeUndefined();
    }
});

test('derivatives are called by custom, and a second one otherwise', () => {
  const about = { kind: 'derivative', of: 'channel:x', nameOfSource: 'x', region: null } as const;
  const once = withEntry(emptyWorkings, runs, about).workings;
  const twice = withEntry(once, runs, about).workings;
  expect(twice.entries.map(({ name }) => name)).toEqual(['v', 'v2']);
  // A derived series gets a trace beside those that stood there.
  expect(twice.traces.slice(0, 2)).toEqual(['channel:x', 'channel:F']);
  expect(twice.traces).toHaveLength(4);
});

test('a hundred regions have a hundred letters', () => {
  let entries: Entry[] = [];
  for (let i = 0; i < 100; i++) entries = [...entries, region(`${i}`, freeLetter(entries))];
  const letters = entries.map((entry) => (entry.kind === 'region' ? entry.letter : ''));
  expect(new Set(letters).size).toBe(100);
  expect([letters[0], letters[25], letters[26], letters[52]]).toEqual(['A', 'Z', 'AA', 'BA']);
});

test('the sheet is read by regions: what has none first, each region with its own', () => {
  const groups = groupsOf(
    sheet([
      region('A', 'A'),
      mean('1', 'A'),
      mean('2', null),
      region('B', 'B'),
      mean('3', 'B'),
      mean('4', 'gone'),
    ]),
  );
  expect(groups.map(({ region: head, entries }) => [head?.id ?? null, entries.map(({ id }) => id)])).toEqual([
    [null, ['2', '4']],
    ['A', ['1']],
    ['B', ['3']],
  ]);
});

test('removing a series takes its trace and its place on the axis with it', () => {
  const { workings, id } = withEntry(emptyWorkings, runs, {
    kind: 'derivative',
    of: 'channel:x',
    nameOfSource: 'x',
    region: null,
  });
  const against = withHorizontal(workings, `entry:${id}`);
  const without = withoutEntry(against, id);
  expect(without.horizontal).toBe('t');
  expect(without.traces).toEqual(['channel:x', 'channel:F']);
});

test('an entry is put where another stands; nowhere changes nothing', () => {
  const workings = sheet([mean('1', null), mean('2', null), mean('3', null)]);
  expect(withMoved(workings, '3', '1').entries.map(({ id }) => id)).toEqual(['3', '1', '2']);
  expect(withMoved(workings, '3', 'gone')).toBe(workings);
  expect(withMoved(workings, '3', '3')).toBe(workings);
});

test('traces are shown and hidden, and the last one stays', () => {
  const one = withTraceToggled(emptyWorkings, runs, 'channel:F');
  expect(explicitTraces(one, runs)).toEqual(['channel:x']);
  expect(withTraceToggled(one, runs, 'channel:x')).toBe(one);
  expect(explicitTraces(withTraceToggled(one, runs, 'channel:F'), runs)).toEqual(['channel:x', 'channel:F']);
});

test('a region lies on the axis that is shown, and references are called by their names', () => {
  const { workings } = withRegion({ ...emptyWorkings, horizontal: 'channel:x' }, 0.1, 0.2);
  expect(workings.entries[0]).toMatchObject({ along: 'channel:x', letter: 'A' });
  const nameOf = namesOf(entryNames(sheet([{ kind: 'integral', id: 's', name: 's', of: 'channel:x' }])), 't');
  expect(['t', 'channel:F', 'entry:s', 'entry:gone'].map(nameOf)).toEqual([
    't',
    'F',
    's',
    'a removed series',
  ]);
});
