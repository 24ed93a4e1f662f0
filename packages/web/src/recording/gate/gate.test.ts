import { emptyWorkings, workingsSchema } from '@heuristor/contracts';
import { gateSetting, notTyped, withPassage, withSpokes } from './gate';
import { withEntry } from '../../workings/edits';
import { passages } from './passages';

const passage = (key: string) => {
  const found = passages.find((candidate) => candidate.key === key);
  if (found === undefined) throw new Error(key);
  return found;
};
const here = { page: null, runs: [] };
const withIt = (key: string, workings = emptyWorkings) =>
  withPassage(workings, here, passage(key), ['A', 'B']);

test.each(passages.map(({ key }) => key))('%p puts entries on the sheet that can be stored', (key) => {
  const sheet = withIt(key);
  expect(workingsSchema.parse(sheet)).toEqual(sheet);
  const setting = gateSetting(sheet);
  expect(setting?.passage.key).toBe(key);
  expect(setting?.entries.map(({ name }) => name)).toEqual(passage(key).entries.map(({ name }) => name));
  expect(sheet.pages[0].panels.length).toBeGreaterThan(0);
});

test('what speaks of the speed stays when something else passes whose speed has the same name', () => {
  const flag = withIt('flag');
  const id = gateSetting(flag)?.entries[0].id ?? '';
  const slope = withEntry(flag, here, { kind: 'statistics', of: `entry:${id}`, region: null });
  const fence = withIt('fence', slope.workings);
  expect(fence.entries.find((entry) => entry.kind === 'fence' && entry.gives === 'velocity')?.id).toBe(id);
  expect(fence.entries.find((entry) => entry.id === slope.id)).toMatchObject({ of: `entry:${id}` });
});

test('the same length goes on, another kind of length is typed anew and the old one goes', () => {
  const flag = withIt('flag');
  const typed = {
    ...flag,
    entries: flag.entries.map((entry) => (entry.kind === 'constant' ? { ...entry, value: 31.5 } : entry)),
  };
  expect(gateSetting(withIt('beamPair', typed))?.length?.value).toBe(31.5);
  const fence = withIt('fence', typed);
  expect(gateSetting(fence)?.length).toMatchObject({ name: 's', value: notTyped });
  expect(fence.entries.filter(({ kind }) => kind === 'constant')).toHaveLength(1);
});

test('a length that something else speaks of stays', () => {
  const flag = withIt('flag');
  const length = gateSetting(flag)?.length?.id ?? '';
  const uses = withEntry(flag, here, {
    kind: 'combination',
    of: 't',
    region: null,
    results: [`result:${length}/value`],
  });
  expect(withIt('bob', uses.workings).entries.some(({ id }) => id === length)).toBe(true);
});

test('all quantities of a wheel know its spokes', () => {
  const sheet = withSpokes(withIt('wheel'), 24);
  const own = sheet.entries.filter((entry) => entry.kind === 'spokes');
  expect(own.map(({ number }) => number)).toEqual([24, 24]);
});
