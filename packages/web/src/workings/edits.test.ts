import { type WorkingsDocument, emptyPage, emptyWorkings, workingsSchema } from '@heuristor/contracts';
import { type Entry, type ResultRef, entryKindKeys, freeLetter, kindOf } from '@heuristor/core';
import { runOf } from '../testing/runs';
import { type ShownOutcome } from '../workers/protocol';
import {
  entryNames,
  groupsOf,
  mainResults,
  namesOf,
  resultNames,
  withEntry,
  withMoved,
  withRegion,
  withoutEntry,
} from './edits';
import { withHorizontal, withPage } from '../traces/pages/pages';

const runs = [runOf('a', ['x', 'F'])];
const here = { page: null, runs };
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
      const { workings } = withEntry(emptyWorkings, here, {
        kind,
        preset,
        of: 'channel:x',
        nameOfSource: 'x',
        region: null,
        results: ['result:a/mean'],
      });
      expect(workingsSchema.safeParse(workings).error).toBeUndefined();
    }
});

describe('results that other entries can use', () => {
  const named = (name: string): Entry => ({ ...mean('m', null), name });
  const combination = (id: string, first: ResultRef, second: ResultRef): Entry => ({
    kind: 'combination',
    id,
    name: '',
    first,
    operation: 'quotient',
    second,
  });
  const outcome = (...results: [key: string, name: string, main: boolean][]): ShownOutcome => ({
    kind: 'results',
    results: results.map(([key, name, main]) => ({
      key,
      name,
      main,
      value: 1,
      halfWidth: null,
      standardUncertainty: null,
      degreesOfFreedom: null,
      roundTo: null,
      unit: [],
    })),
    notes: [],
    correlations: null,
    count: null,
  });

  test('are called by their entry, its name or its sentence', () => {
    const outcomes = { m: outcome(['mean', 'mean', true], ['sd', 'sd', false]) };
    expect(resultNames(sheet([named('draught')]), outcomes, 't')).toEqual({
      'result:m/mean': 'mean of draught',
      'result:m/sd': 'sd of draught',
    });
    expect(resultNames(sheet([named('')]), outcomes, 't')).toEqual({
      'result:m/mean': 'mean of x',
      'result:m/sd': 'sd of mean of x',
    });
    expect(mainResults(sheet([named('')]), outcomes)).toEqual(['result:m/mean']);
  });

  test('carry their region, and are counted where they are called alike, so that each can be spoken of', () => {
    const regions = [{ ...region('A', 'A'), name: 'held' }, region('B', 'B')];
    const entries = [...regions, mean('m', 'A'), mean('n', 'B'), mean('o', 'B')];
    const told = outcome(['mean', 'mean', true]);
    const names = resultNames(sheet(entries), { m: told, n: told, o: told }, 't');
    expect(Object.values(names)).toEqual(['mean of x, held', 'mean of x, B', 'mean of x, B (2)']);
  });

  test('may speak of each other, in any order, and even in a circle', () => {
    const value = outcome(['value', 'quotient', true]);
    const entries = [
      combination('q', 'result:p/value', 'result:m/mean'),
      combination('p', 'result:m/mean', 'result:m/mean'),
      named('draught'),
    ];
    const outcomes = { q: value, p: value, m: outcome(['mean', 'mean', true]) };
    const names = resultNames(sheet(entries), outcomes, 't');
    expect(names['result:p/value']).toBe('mean of draught ÷ mean of draught');
    expect(names['result:q/value']).toBe('(mean of draught ÷ mean of draught) ÷ mean of draught');
    const circle = [
      combination('q', 'result:p/value', 'result:p/value'),
      combination('p', 'result:q/value', 'result:q/value'),
    ];
    expect(Object.keys(resultNames(sheet(circle), { q: value, p: value }, 't'))).toHaveLength(2);
  });

  test('that were refused or removed are not offered, and said to be removed', () => {
    const entries = [combination('q', 'result:gone/mean', 'result:gone/mean'), named('draught')];
    const refused: ShownOutcome = { kind: 'refused', sentence: 'too few' };
    const names = resultNames(sheet(entries), { q: refused, m: refused }, 't');
    expect(names).toEqual({});
    expect(namesOf({}, 't', names)('result:gone/mean')).toBe('a removed result');
  });

  test('are filled into a new entry in their order, the last one again where there are too few', () => {
    const add = (results: ResultRef[]) =>
      withEntry(emptyWorkings, here, { kind: 'combination', of: 't', region: null, results }).workings
        .entries[0];
    expect(add(['result:a/mean', 'result:b/slope', 'result:c/area'])).toMatchObject({
      first: 'result:a/mean',
      second: 'result:b/slope',
    });
    expect(add(['result:a/mean'])).toMatchObject({ first: 'result:a/mean', second: 'result:a/mean' });
  });
});

test('derivatives are called by custom, and a second one otherwise', () => {
  const about = { kind: 'derivative', of: 'channel:x', nameOfSource: 'x', region: null } as const;
  const once = withEntry(emptyWorkings, here, about).workings;
  const twice = withEntry(once, here, about).workings;
  expect(twice.entries.map(({ name }) => name)).toEqual(['v', 'v2']);
  // A derived series gets a trace beside those that stood there.
  const [{ panels }] = twice.pages;
  expect(panels.slice(0, 2).map(({ series }) => series)).toEqual([['channel:x'], ['channel:F']]);
  expect(panels).toHaveLength(4);
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
  const { workings, id } = withEntry(emptyWorkings, here, {
    kind: 'derivative',
    of: 'channel:x',
    nameOfSource: 'x',
    region: null,
  });
  const against = withPage(workings, null, (page) => withHorizontal(page, `entry:${id}`));
  const [{ horizontal, panels }] = withoutEntry(against, id).pages;
  expect(horizontal).toBe('t');
  expect(panels.map(({ series }) => series)).toEqual([['channel:x'], ['channel:F']]);
});

test('an entry is put where another stands; nowhere changes nothing', () => {
  const workings = sheet([mean('1', null), mean('2', null), mean('3', null)]);
  expect(withMoved(workings, '3', '1').entries.map(({ id }) => id)).toEqual(['3', '1', '2']);
  expect(withMoved(workings, '3', 'gone')).toBe(workings);
  expect(withMoved(workings, '3', '3')).toBe(workings);
});

test('a region lies on the axis that is shown, and references are called by their names', () => {
  const { workings } = withRegion(
    { ...emptyWorkings, pages: [{ ...emptyPage, horizontal: 'channel:x' }] },
    null,
    0.1,
    0.2,
  );
  expect(workings.entries[0]).toMatchObject({ along: 'channel:x', letter: 'A' });
  const nameOf = namesOf(entryNames(sheet([{ kind: 'integral', id: 's', name: 's', of: 'channel:x' }])), 't');
  expect(['t', 'channel:F', 'entry:s', 'entry:gone'].map(nameOf)).toEqual([
    't',
    'F',
    's',
    'a removed series',
  ]);
});
