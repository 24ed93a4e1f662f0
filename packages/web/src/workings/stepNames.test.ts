import { type WorkingsDocument, emptyPage, emptyWorkings } from '@heuristor/contracts';
import { withConstant, withEntry, withMoved, withRegion, withoutEntry } from './edits';
import { sheetStepName } from './stepNames';

const onPage = { page: emptyPage.id, runs: [] };
const marked = withRegion(emptyWorkings, null, 1, 2, 't').workings;
const withMean = (workings: WorkingsDocument) =>
  withEntry(workings, onPage, { kind: 'statistics', of: 'channel:x', region: marked.entries[0].id }).workings;
const patched = (workings: WorkingsDocument, place: number, patch: object): WorkingsDocument => ({
  ...workings,
  entries: workings.entries.map((entry, i) => (i === place ? { ...entry, ...patch } : entry)),
});
const described = withMean(withConstant(marked, 'm', { value: 0.35, unit: 'kg' }));

const looked = (...hidden: string[]): WorkingsDocument => ({
  ...marked,
  runs: hidden.map((run) => ({ run, hidden: true })),
});

test.each<[string, WorkingsDocument, WorkingsDocument]>([
  ['add region A', emptyWorkings, marked],
  ['move region A', marked, patched(marked, 0, { start: 1.5 })],
  ['rename region A', marked, patched(marked, 0, { name: 'held' })],
  ['add “m”', marked, withConstant(marked, 'm', { value: 0.35, unit: 'kg' })],
  ['change “m”', described, patched(described, 0, { value: 0.4 })],
  ['rename “m”', described, patched(described, 0, { name: 'M' })],
  ['add mean of x', withConstant(marked, 'm', {}), withMean(withConstant(marked, 'm', {}))],
  ['remove “m”', described, withoutEntry(described, described.entries[0].id)],
  ['move an entry', described, withMoved(described, described.entries[2].id, described.entries[0].id)],
  ['move runs in time', marked, { ...marked, shifts: [{ run: 'r', by: 0.2 }] }],
  ['set readings aside', marked, { ...marked, aside: [{ run: 'r', channel: 'x', ranges: [[3, 5]] }] }],
  ['count readings again', { ...marked, aside: [{ run: 'r', channel: 'x', ranges: [[3, 5]] }] }, marked],
  ['hide one run', marked, looked('r')],
  ['show 2 runs', looked('r', 's'), marked],
  ['show other runs', looked('r'), looked('s')],
  ['change the look of a run', marked, { ...marked, runs: [{ run: 'r', style: 4 }] }],
  ['count limits and wrong echoes too', marked, { ...marked, runs: [{ run: 'r', keepPinned: true }] }],
  ['leave out limits and wrong echoes', { ...marked, runs: [{ run: 'r', keepPinned: true }] }, marked],
  ['add a page', marked, { ...marked, pages: [...marked.pages, { ...emptyPage, id: 'page-2' }] }],
  ['rename a page', marked, { ...marked, pages: [{ ...emptyPage, name: 'Energy' }] }],
  ['change the horizontal axis', marked, { ...marked, pages: [{ ...emptyPage, horizontal: 'channel:x' }] }],
])('%s', (name, before, after) => expect(sheetStepName(before, after)).toBe(name));

test('an entry whose formula follows a new name is no second change', () => {
  const sum = patched(described, 2, { remark: 'm' });
  const both = patched(patched(sum, 0, { name: 'M' }), 2, { remark: 'M' });
  expect(sheetStepName(sum, both)).toBe('rename “m”');
});
