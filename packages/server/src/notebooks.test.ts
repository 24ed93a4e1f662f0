import { randomUUID } from 'node:crypto';
import { type MadeParticipant, type Notebook, type PinContent, mostUpdateBytes } from '@heuristor/contracts';
import * as Y from 'yjs';
import { NotebookModel } from './models/notebook';
import { NotebookUpdateModel } from './models/notebookUpdate';
import { until } from './testing/bench';
import { importedRun } from './testing/importedRun';
import { TestScreen } from './testing/testScreen';
import { type Signed, type TestServer, startTestServer } from './testing/testServer';

let server: TestServer;
let id: string;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  id = ((await server.api('post', '/investigations', { name: 'Springs' })).body as { id: string }).id;
});

const base64 = (bytes: Uint8Array) => Buffer.from(bytes).toString('base64');
const write = (who: Signed, update: Uint8Array, investigation = id) =>
  who.api('post', `/investigations/${investigation}/notebook/updates`, { update: base64(update) });
const read = async (who: Signed, after = 0, investigation = id) =>
  (await who.api('get', `/investigations/${investigation}/notebook?after=${after}`).expect(200))
    .body as Notebook;
const opened = ({ update }: Notebook, document = new Y.Doc()) => {
  if (update !== null) Y.applyUpdate(document, Buffer.from(update, 'base64'));
  return document;
};
/** What one change of a document adds to it. */
function changeOf(document: Y.Doc, change: () => void): Uint8Array {
  const before = Y.encodeStateVector(document);
  document.transact(change);
  return Y.encodeStateAsUpdate(document, before);
}
const letIn = async (kind: 'participant' | 'screen') => {
  const { body } = await server.api('post', `/investigations/${id}/participants`, { name: 'Heron', kind });
  return server.signIn((body as MadeParticipant).token);
};
let pins = 0;
const newPin = () => String(++pins).padStart(12, '0');
const pin = (run: string): PinContent => ({
  of: 'bench',
  made: '2026-05-09T10:42:00.000Z',
  page: 'Page 1',
  picture: '<svg xmlns="http://www.w3.org/2000/svg"/>',
  width: 100,
  height: 50,
  says: 'x against t',
  runs: [{ id: run, number: 1, name: 'soft', group: '', conditions: ['mass 50 g'] }],
  regions: [],
  results: [{ run, entry: 'e1', key: 'period', name: 'period', text: '1.188 s' }],
  look: {
    page: 'p1',
    sight: null,
    scales: {},
    reach: 'shown',
    withZero: null,
    enlarged: null,
    front: run,
    cursors: [],
  },
});

test('a notebook is empty at first; what is written in it can be had whole, and from any state on', async () => {
  expect(await read(server)).toMatchObject({ at: 0, update: null, mayWrite: true });
  const mine = new Y.Doc();
  const text = mine.getText('t');
  await write(
    server,
    changeOf(mine, () => text.insert(0, 'The soft spring')),
  ).expect(201, { at: 1 });
  const first = await read(server);
  await write(
    server,
    changeOf(mine, () => text.insert(15, ' took 1.19 s')),
  ).expect(201, { at: 2 });
  expect(
    opened(await read(server))
      .getText('t')
      .toString(),
  ).toBe('The soft spring took 1.19 s');
  const later = opened(first);
  opened(await read(server, first.at), later);
  expect(later.getText('t').toString()).toBe('The soft spring took 1.19 s');
  expect(await read(server, 2)).toMatchObject({ at: 2, update: null });
});

test('of twenty who write at the same moment nothing is lost, and each has a number of his own', async () => {
  const written = await Promise.all(
    Array.from({ length: 20 }, (_, i) => {
      const one = new Y.Doc();
      return write(
        server,
        changeOf(one, () => one.getMap('m').set(`k${i}`, i)),
      ).expect(201);
    }),
  );
  const numbers = written.map(({ body }) => (body as { at: number }).at);
  expect([...numbers].sort((a, b) => a - b)).toEqual(Array.from({ length: 20 }, (_, i) => i + 1));
  expect(opened(await read(server)).getMap('m').size).toBe(20);
});

test('many rows become one, which says the same, and what is deleted takes no room in it', async () => {
  const mine = new Y.Doc();
  const text = mine.getText('t');
  for (let i = 0; i < 63; i++)
    await write(
      server,
      changeOf(mine, () => text.insert(0, 'x'.repeat(500))),
    );
  await write(
    server,
    changeOf(mine, () => text.delete(10, text.length - 10)),
  ).expect(201, { at: 64 });
  const { id: notebookId } = await NotebookModel.query()
    .where({ investigationId: id })
    .first()
    .throwIfNotFound();
  await until(
    () => NotebookUpdateModel.query().where({ notebookId }).resultSize(),
    (rows) => rows === 1,
  );
  const whole = await read(server);
  expect(whole.at).toBe(64);
  expect(opened(whole).getText('t').toString()).toBe('x'.repeat(10));
  expect(String(whole.update).length).toBeLessThan(2000);
  // Who had a part of it gets the rest.
  expect(
    opened(await read(server, 20))
      .getText('t')
      .toString(),
  ).toBe('x'.repeat(10));
});

test.each([
  ['no update', '/////////w=='],
  ['no base 64', 'not at all'],
  ['nothing', ''],
  ['too much', 'A'.repeat(Math.ceil((mostUpdateBytes + 300) / 3) * 4)],
])('%s is refused, and the notebook stays as it was', async (_, update) => {
  const { body } = await server.api('post', `/investigations/${id}/notebook/updates`, { update }).expect(400);
  expect((body as { error: { message: string } }).error.message).toMatch(/^update: /);
  expect(await read(server)).toMatchObject({ at: 0, update: null });
});

test('each who takes part writes in a notebook of his own; a screen shows the owner’s and writes nothing', async () => {
  const [participant, screen] = [await letIn('participant'), await letIn('screen')];
  const [mine, theirs] = [new Y.Doc(), new Y.Doc()];
  await write(
    server,
    changeOf(mine, () => mine.getText('t').insert(0, 'teacher')),
  ).expect(201);
  expect(await read(participant)).toMatchObject({ at: 0, update: null, mayWrite: true });
  await write(
    participant,
    changeOf(theirs, () => theirs.getText('t').insert(0, 'group')),
  ).expect(201);
  expect(
    opened(await read(server))
      .getText('t')
      .toString(),
  ).toBe('teacher');
  expect(
    opened(await read(participant))
      .getText('t')
      .toString(),
  ).toBe('group');
  const seen = await read(screen);
  expect(seen.mayWrite).toBe(false);
  expect(opened(seen).getText('t').toString()).toBe('teacher');
  await write(
    screen,
    changeOf(mine, () => mine.getText('t').insert(0, '!')),
  ).expect(403);
  const run = randomUUID();
  await screen
    .api('post', `/investigations/${id}/notebook/pins`, { id: newPin(), content: pin(run) })
    .expect(403);
});

test('what somebody writes comes to his own screens at once; others only hear that there is something', async () => {
  const participant = await letIn('participant');
  const open = async (who: Signed) => {
    const screen = await TestScreen.open(server.port, { cookie: who.cookie });
    await new Promise<void>((resolve) =>
      screen.say({ type: 'watch', investigations: [id], stage: null }, resolve),
    );
    return screen;
  };
  const [own, other] = [await open(server), await open(participant)];
  const mine = new Y.Doc();
  await write(
    server,
    changeOf(mine, () => mine.getText('t').insert(0, 'secret')),
  ).expect(201);
  for (const screen of [own, other])
    await screen.until((one) => one.heard('notebook').length > 0, 'that something was written');
  const [told] = own.heard('notebook');
  expect(
    opened({ ...told, mayWrite: true })
      .getText('t')
      .toString(),
  ).toBe('secret');
  expect(other.heard('notebook')).toMatchObject([{ at: 1, update: null }]);
  // What is long is fetched.
  await write(
    server,
    changeOf(mine, () => mine.getText('t').insert(0, 'long '.repeat(10_000))),
  ).expect(201);
  await own.until((one) => one.heard('notebook').length > 1, 'the second');
  expect(own.heard('notebook')[1]).toMatchObject({ at: 2, update: null });
  own.close();
  other.close();
});

test('what is pinned stays as it was, also where the same is sent again with something else in it', async () => {
  const [run, pinned] = [randomUUID(), newPin()];
  const send = (content: PinContent) =>
    server.api('post', `/investigations/${id}/notebook/pins`, { id: pinned, content }).expect(201);
  await send(pin(run));
  await send({ ...pin(run), page: 'another' });
  const { body } = await server.api('get', `/investigations/${id}/notebook/pins/${pinned}`).expect(200);
  expect(body).toEqual(pin(run));
  const participant = await letIn('participant');
  await participant.api('get', `/investigations/${id}/notebook/pins/${pinned}`).expect(404);
  await server.api('get', `/investigations/${id}/notebook/pins/${newPin()}`).expect(404);
});

test('a copy of an investigation has a copy of the notebook, which speaks of the copies of the runs', async () => {
  const { id: run } = await importedRun(id);
  const pinned = newPin();
  await server
    .api('post', `/investigations/${id}/notebook/pins`, { id: pinned, content: pin(run) })
    .expect(201);
  const mine = new Y.Doc();
  await write(
    server,
    changeOf(mine, () => {
      const block = new Y.Map<unknown>();
      const text = new Y.XmlFragment();
      const quote = new Y.XmlElement('quote');
      mine.getMap('blocks').set('b', block);
      block.set('runs', [run, 'other']);
      block.set('text', text);
      text.insert(0, [quote, new Y.XmlText(`run ${run}`)]);
      quote.setAttribute('run', run);
    }),
  ).expect(201);
  const copy = (await server.api('post', `/investigations/${id}/copy`).expect(201)).body as { id: string };
  const copied = ((await server.api('get', `/investigations/${copy.id}`)).body as { runs: { id: string }[] })
    .runs[0].id;
  expect(copied).not.toBe(run);
  const block = opened(await read(server, 0, copy.id))
    .getMap('blocks')
    .get('b') as Y.Map<unknown>;
  expect(block.get('runs')).toEqual([copied, 'other']);
  expect((block.get('text') as Y.XmlFragment).toString()).toBe(`<quote run="${copied}"></quote>run ${run}`);
  const { body } = await server.api('get', `/investigations/${copy.id}/notebook/pins/${pinned}`).expect(200);
  expect(body).toEqual(pin(copied));
});
