import { type ToScreen } from '@heuristor/contracts';
import * as Y from 'yjs';
import { fromBase64, toBase64 } from './base64';
import { NotebookSync, fromServer } from './sync';

/** A server that keeps updates; `during` happens while an answer to a question is on its way. */
function server() {
  const stored: Uint8Array[] = [];
  const state = { isAway: false, during: () => undefined as void, refusal: '' };
  const changed = (text: string) => {
    const doc = new Y.Doc();
    stored.forEach((update) => Y.applyUpdate(doc, update));
    const before = Y.encodeStateVector(doc);
    doc.getText('t').insert(doc.getText('t').length, text);
    stored.push(Y.encodeStateAsUpdate(doc, before));
  };
  const answer = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status });
  globalThis.fetch = (async (path: string, { method = 'GET', body }: RequestInit = {}) => {
    if (state.isAway) throw new Error('no way there');
    if (state.refusal !== '')
      return answer({ error: { code: state.refusal, message: 'That is too much.' } }, 413);
    if (method === 'POST') {
      stored.push(fromBase64((JSON.parse(String(body)) as { update: string }).update));
      return answer({ at: stored.length }, 201);
    }
    const after = Number(new URL(path, 'http://here').searchParams.get('after'));
    const rest = stored.slice(after);
    const update = rest.length === 0 ? null : toBase64(Y.mergeUpdates(rest));
    const given = answer({ owner: 'me', at: stored.length, update, mayWrite: true });
    state.during();
    return given;
  }) as typeof fetch;
  return { stored, state, changed };
}

function page(kept: string | null = null) {
  const doc = new Y.Doc();
  const memory = {
    kept,
    load: () => memory.kept,
    save: (update: string | null) => void (memory.kept = update),
  };
  const sync = new NotebookSync(doc, '/investigations/i/notebook', { at: 0, owner: 'me' }, memory);
  return { doc, sync, memory, text: doc.getText('t') };
}
const said = (at: number, update: string | null = null, owner = 'me'): ToScreen => ({
  type: 'notebook',
  investigation: 'i',
  owner,
  at,
  update,
});

beforeEach(() => void jest.useFakeTimers());
afterEach(() => jest.useRealTimers());
const aWhile = (milliseconds = 500) => jest.advanceTimersByTimeAsync(milliseconds);

test('what is typed is stored by itself, also while somebody types on without a pause', async () => {
  const { stored } = server();
  const { text, sync } = page();
  for (let i = 0; i < 20; i++) {
    text.insert(text.length, 'a');
    await aWhile(100);
  }
  expect(stored.length).toBeGreaterThan(2);
  await aWhile();
  expect(sync.saver.state.getState().phase).toBe('clean');
  const there = new Y.Doc();
  stored.forEach((update) => Y.applyUpdate(there, update));
  expect(there.getText('t').toString()).toBe('a'.repeat(20));
});

test('what comes in its turn is applied as it is heard; where a number is missing, what is missing is fetched', async () => {
  const { stored, changed } = server();
  const { text, sync } = page();
  changed('one ');
  sync.hear(said(1, toBase64(stored[0])));
  expect(text.toString()).toBe('one ');
  changed('two ');
  changed('three');
  sync.hear(said(3, toBase64(stored[2])));
  await aWhile();
  expect(text.toString()).toBe('one two three');
  changed(' theirs');
  sync.hear(said(9, null, 'somebody else'));
  await aWhile();
  expect(text.toString()).toBe('one two three');
});

test('what is said while an answer is on its way is fetched too, though nothing is said after it', async () => {
  const { state, changed } = server();
  const { text, sync } = page();
  changed('one ');
  let isFirst = true;
  state.during = () => {
    if (!isFirst) return;
    isFirst = false;
    changed('two');
    sync.hear(said(2));
  };
  sync.hear(said(1));
  await aWhile();
  expect(text.toString()).toBe('one two');
});

test('a server that is away is asked again until it is back, and what was typed meanwhile is stored then', async () => {
  const { state, stored, changed } = server();
  const { text, sync } = page();
  state.isAway = true;
  text.insert(0, 'mine');
  changed('theirs');
  sync.hear(said(1));
  await aWhile(5000);
  expect(sync.saver.state.getState().phase).toBe('offline');
  state.isAway = false;
  await aWhile(10_000);
  expect(sync.saver.state.getState().phase).toBe('clean');
  expect([...text.toString().matchAll(/mine|theirs/g)].map(([word]) => word).sort()).toEqual([
    'mine',
    'theirs',
  ]);
  expect(stored).toHaveLength(2);
});

test('what the server refuses stays here, and is said', async () => {
  const { state, stored } = server();
  const { text, sync } = page();
  state.refusal = 'too-large';
  text.insert(0, 'long');
  await aWhile();
  expect(sync.saver.state.getState()).toMatchObject({ phase: 'refused', sentence: 'That is too much.' });
  state.refusal = '';
  sync.saver.tell({ kind: 'try-again' });
  await aWhile();
  expect(stored).toHaveLength(1);
});

test('what was not stored when the page went away is there when it is loaded anew, and is stored', async () => {
  const { state, stored } = server();
  const before = page();
  state.isAway = true;
  before.text.insert(0, 'the last word');
  before.sync.keep();
  await aWhile(10);
  // The page is gone, with all that it would have tried again.
  jest.clearAllTimers();
  state.isAway = false;
  const after = page(before.memory.kept);
  expect(after.text.toString()).toBe('the last word');
  await aWhile();
  expect(stored).toHaveLength(1);
  expect(after.memory.kept).toBeNull();
  // What came from the server is not sent back to it.
  after.doc.transact(() => after.text.insert(0, 'theirs '), fromServer);
  await aWhile();
  expect(stored).toHaveLength(1);
});
