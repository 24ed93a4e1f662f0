import { type WorkingsDocument, emptyPage, emptyWorkings } from '@heuristor/contracts';
import { type Entry } from '@heuristor/core';
import { History } from './history';
import { documentStep } from './kept/documentStep';
import { workings as workingsHere } from './kept/workings';
import { steppedBack } from './stepBack';

const words = (id: string, text = id): Entry => ({ kind: 'words', id, name: '', text, look: 'text' });
const sheet = (...entries: Entry[]): WorkingsDocument => ({ ...emptyWorkings, entries });
const texts = ({ document: workings }: { document: WorkingsDocument }) =>
  workings.entries.map((entry) => (entry.kind === 'words' ? entry.text : ''));

test('where nobody else has done anything, the sheet is what it was', () => {
  const [before, after] = [sheet(words('a')), sheet(words('a'), words('b'))];
  expect(steppedBack(after, after, before)).toEqual({ document: before, isWhole: true });
});

test('what another person has added stays when an own step is taken back, and taken again', () => {
  const [before, after] = [sheet(words('a')), sheet(words('a'), words('mine'))];
  const present = sheet(words('a'), words('mine'), words('theirs'));
  const back = steppedBack(present, after, before);
  expect([texts(back), back.isWhole]).toEqual([['a', 'theirs'], true]);
  expect(texts(steppedBack(back.document, before, after))).toEqual(['a', 'mine', 'theirs']);
});

test('what another person has changed since is left as it is, and that is said', () => {
  const [before, after] = [
    sheet(words('a', 'old'), words('b')),
    sheet(words('a', 'mine'), words('b', 'too')),
  ];
  const present = sheet(words('a', 'theirs'), words('b', 'too'));
  const back = steppedBack(present, after, before);
  expect([texts(back), back.isWhole]).toEqual([['theirs', 'b'], false]);
});

test('an entry that was removed comes back in its place, an order that was changed too', () => {
  const before = sheet(words('a'), words('b'), words('c'));
  const removed = steppedBack(
    sheet(words('a'), words('c'), words('theirs')),
    sheet(words('a'), words('c')),
    before,
  );
  expect(texts(removed)).toEqual(['a', 'b', 'c', 'theirs']);
  const moved = sheet(words('c'), words('a'), words('b'));
  const changed = sheet(words('c'), words('a'), words('b', 'theirs'));
  expect(texts(steppedBack(changed, moved, before))).toEqual(['a', 'theirs', 'c']);
});

test('pages, readings set aside and shifts go by their own names', () => {
  const mine = { run: 'r', channel: 'x', ranges: [[1, 2]] as [number, number][] };
  const theirs = { run: 's', channel: 'x', ranges: [[3, 4]] as [number, number][] };
  const before = { ...emptyWorkings, shifts: [] };
  const after = { ...emptyWorkings, aside: [mine], shifts: [{ run: 'r', by: 1 }] };
  const present = { ...after, aside: [mine, theirs], pages: [emptyPage, { ...emptyPage, id: 'p2' }] };
  expect(steppedBack(present, after, before).document).toEqual({
    ...emptyWorkings,
    aside: [theirs],
    pages: present.pages,
  });
});

test('a drag of many changes is one step, taken back and again as a whole', () => {
  const history = new History();
  let present = sheet(words('a', 'at 0'), words('b'));
  const change = (after: WorkingsDocument) => {
    const before = present;
    present = after;
    history.push(
      documentStep(
        workingsHere,
        () => present,
        (workings) => (present = workings),
        { before, after },
      ),
    );
  };
  history.hold();
  for (let i = 1; i < 30; i++) change(sheet(words('a', `at ${i}`), words('b')));
  history.release();
  history.undo();
  expect(texts({ document: present })).toEqual(['at 0', 'b']);
  history.redo();
  expect(texts({ document: present })).toEqual(['at 29', 'b']);
  // Another person’s change beside it stays.
  present = sheet(words('a', 'at 29'), words('b', 'theirs'));
  history.undo();
  expect(texts({ document: present })).toEqual(['at 0', 'theirs']);
});
