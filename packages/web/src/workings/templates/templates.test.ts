import {
  type Template,
  emptyPage,
  emptyGuide,
  emptyTrials,
  emptyWorkings,
  panelOf,
} from '@heuristor/contracts';
import { type Entry } from '@heuristor/core';
import { runOf } from '../../testing/runs';
import {
  lackingFor,
  lackingWords,
  templateOf,
  unzeroedWords,
  withConditions,
  withTemplate,
} from './templates';

const v: Entry = { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 9 };
const template: Template = {
  id: '0b0f7f6e-0000-4000-8000-000000000000',
  name: 'Swing',
  about: '',
  channels: [{ key: 'x', quantity: 'x', unit: 'm' }],
  conditions: [{ key: 'm', name: 'mass', kind: 'number', unit: 'kg' }],
  trials: emptyTrials,
  guide: emptyGuide,
  workings: {
    ...emptyWorkings,
    entries: [v],
    pages: [{ ...emptyPage, panels: [panelOf('channel:x'), panelOf('entry:v')] }],
  },
};
const runs = [runOf('a', ['x', 'F'])];
const [{ channels }] = runs;
const own: Template = {
  ...template,
  channels: [{ key: 'x', quantity: channels[0].quantity, unit: channels[0].unit }],
};

test('on an empty sheet a template brings its traces; on another one, a page of its own', () => {
  const first = withTemplate(emptyWorkings, runs, own);
  expect(first?.workings.pages).toHaveLength(1);
  const [entry] = first?.workings.entries ?? [];
  expect(first?.workings.pages[0].panels.map(({ series }) => series)).toEqual([
    ['channel:x'],
    [`entry:${entry.id}`],
  ]);
  const second = withTemplate(first?.workings ?? emptyWorkings, runs, own);
  // What stands there already is used.
  expect(second?.workings.entries).toHaveLength(1);
  expect(second?.workings.pages.map(({ name }) => name)).toEqual(['', 'Swing']);
  expect(second?.page).toBe(second?.workings.pages[1].id);
});

test('what no run measures is said, and is no trace', () => {
  const wanted: Template = { ...own, channels: [{ key: 'x', quantity: 'pressure', unit: 'hPa' }] };
  expect(lackingFor(wanted, runs)).toHaveLength(1);
  const made = withTemplate(emptyWorkings, runs, wanted);
  expect(made?.workings.pages[0].panels).toHaveLength(1);
  expect(lackingWords(made?.lacking ?? [])).toBe(
    ' Nothing here measures pressure (x); what uses it waits for a run that does.',
  );
  // Before there is a run, nobody knows what will be measured.
  expect(lackingFor(wanted, [])).toEqual([]);
  expect(withTemplate(emptyWorkings, [], wanted)?.workings.pages[0].panels).toHaveLength(2);
});

test('what is said of each run is asked for, once', () => {
  expect(withConditions([], template)).toEqual(template.conditions);
  expect(withConditions([{ key: 'k', name: 'mass', kind: 'number', unit: 'g' }], template)).toBeNull();
  expect(withConditions([{ key: 'm', name: 'spring', kind: 'word', unit: '' }], template)?.[1]).toMatchObject(
    {
      key: 'm2',
      name: 'mass',
    },
  );
});

test('a sheet that would grow beyond what it holds is left as it is', () => {
  const full = {
    ...emptyWorkings,
    entries: Array.from({ length: 200 }, (_, i): Entry => ({ ...v, id: `v${i}`, name: `w${i}` })),
  };
  expect(withTemplate(full, runs, own)).toBeNull();
});

test('a sheet becomes a template without what belongs to single runs', () => {
  const workings = { ...template.workings, shifts: [{ run: 'a', by: 1 }] };
  const plan = { conditions: template.conditions } as unknown as Parameters<typeof templateOf>[0]['plan'];
  const made = templateOf({ workings, runs, plan }, emptyTrials, 'Swing', 'of a bell');
  expect(made).toMatchObject({ name: 'Swing', about: 'of a bell', workings: { shifts: [] } });
  expect(made.channels.map(({ key }) => key)).toEqual(['x', 'F']);
});

test('what does the same on the sheet already is used, though it was set otherwise', () => {
  const g = (value: number): Entry => ({
    kind: 'constant',
    id: 'g',
    name: 'g',
    value,
    uncertainty: 0,
    unit: 'm/s^2',
    source: '',
    ends: '',
    shift: 0,
  });
  const wide: Entry = { ...v, id: 'mine', windowPoints: 15 };
  const a: Entry = { kind: 'derivative', id: 'a', name: 'a', of: 'entry:v', windowPoints: 9 };
  const sheet = { ...emptyWorkings, entries: [wide, { ...g(9.8), id: 'mine too' }] };
  const made = withTemplate(sheet, runs, {
    ...own,
    workings: { ...own.workings, entries: [v, a, g(9.80665)] },
  });
  const came = made?.workings.entries.slice(2) ?? [];
  expect(made?.workings.entries.slice(0, 2)).toEqual(sheet.entries);
  expect(came).toMatchObject([{ name: 'a', of: 'entry:mine' }]);
  // What is called the same and is something else stands beside it.
  const other = withTemplate({ ...sheet, entries: [{ ...wide, of: 'channel:F' }] }, runs, own);
  expect(other?.workings.entries.map(({ name }) => name)).toEqual(['v', 'v2']);
});

test('a template of runs that begin at zero says so where the newest run does not', () => {
  const zeroed = { ...own, channels: own.channels.map((channel) => ({ ...channel, zeroed: true })) };
  const made = withTemplate(emptyWorkings, runs, zeroed);
  expect(made?.unzeroed).toEqual(['x']);
  expect(unzeroedWords(made?.unzeroed ?? [])).toContain('x of the newest run was not zeroed');
  expect(withTemplate(emptyWorkings, runs, own)?.unzeroed).toEqual([]);
  expect(unzeroedWords([])).toBe('');
});
