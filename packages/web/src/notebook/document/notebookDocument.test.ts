import * as Y from 'yjs';
import { NotebookDocument } from './notebookDocument';
import { typeInto } from './sharedText';

const by = 'test';
const shown = (one: NotebookDocument) =>
  one.order.filter(({ isRemoved }) => !isRemoved).map(({ id }) => one.lineOf(id, 'title')?.toString() ?? '');
const added = (one: NotebookDocument, title: string, after: string | null) =>
  one.add({ kind: 'pin', lines: { title } }, after, by);
const exchange = (one: NotebookDocument, other: NotebookDocument) => {
  const [mine, theirs] = [Y.encodeStateAsUpdate(one.doc), Y.encodeStateAsUpdate(other.doc)];
  Y.applyUpdate(other.doc, mine);
  Y.applyUpdate(one.doc, theirs);
};

test('blocks stand where they were put: at the beginning, behind others, at the end', () => {
  const one = new NotebookDocument();
  const c = added(one, 'c', null);
  const a = added(one, 'a', null);
  added(one, 'b', a);
  added(one, 'd', c);
  expect(shown(one)).toEqual(['a', 'b', 'c', 'd']);
  one.move(c, null);
  expect(shown(one)).toEqual(['c', 'a', 'b', 'd']);
  one.move(c, a);
  expect(shown(one)).toEqual(['a', 'c', 'b', 'd']);
});

test('what was removed keeps its place, and what comes behind it stands behind it', () => {
  const one = new NotebookDocument();
  const a = added(one, 'a', null);
  const b = added(one, 'b', a);
  added(one, 'c', b);
  one.mark(b, true, by);
  expect(shown(one)).toEqual(['a', 'c']);
  added(one, 'new', b);
  one.mark(b, false, by);
  expect(shown(one)).toEqual(['a', 'b', 'new', 'c']);
});

test('two who add at the same place, and move the same block, end with the same order and lose nothing', () => {
  const [one, other] = [new NotebookDocument(), new NotebookDocument()];
  const a = added(one, 'a', null);
  const b = added(one, 'b', a);
  const c = added(one, 'c', b);
  exchange(one, other);
  added(one, 'mine', a);
  added(other, 'theirs', a);
  one.move(c, null);
  other.move(c, a);
  exchange(one, other);
  expect(shown(one)).toEqual(shown(other));
  expect([...shown(one)].sort()).toEqual(['a', 'b', 'c', 'mine', 'theirs']);
  // Between two that stand at the very same place there is room for more.
  const between = one.order.filter(({ id }) => ['mine', 'theirs'].includes(String(one.lineOf(id, 'title'))));
  added(one, 'between', between[0].id);
  expect(shown(one)).toHaveLength(6);
});

test.each([
  ['the spring', 'the soft spring'],
  ['aaa', 'aa'],
  ['abc', ''],
  ['', 'abc'],
  ['a😀b', 'a😁b'],
  ['😀', '😀😀'],
])('typing changes only what is different: “%s” to “%s”', (from, to) => {
  const doc = new Y.Doc();
  const text = doc.getText('t');
  text.insert(0, from);
  typeInto(text, to, by);
  expect(text.toString()).toBe(to);
});

test('two who type in one line lose nothing of each other', () => {
  const [one, other] = [new NotebookDocument(), new NotebookDocument()];
  typeInto(one.heading('title'), 'Springs', by);
  exchange(one, other);
  typeInto(one.heading('title'), 'Two Springs', by);
  typeInto(other.heading('title'), 'Springs compared', by);
  exchange(one, other);
  expect(one.heading('title').toString()).toBe('Two Springs compared');
  expect(other.heading('title').toString()).toBe('Two Springs compared');
});

test('what a stranger has put there is no block, and what a newer version has made is one without a kind', () => {
  const one = new NotebookDocument();
  (one.doc.getMap('blocks') as Y.Map<unknown>).set('x', 'no block');
  const newer = new Y.Map<unknown>();
  (one.doc.getMap('blocks') as Y.Map<unknown>).set('y', newer);
  newer.set('kind', 'film of the future');
  expect(one.order).toEqual([{ id: 'y', kind: null, isRemoved: false }]);
});
