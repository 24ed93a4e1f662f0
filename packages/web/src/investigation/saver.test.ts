import { type Sent, Saver } from './saver';

/** A server that answers when a test says so. */
class SlowServer {
  readonly asked: { version: number; document: string; answer: (sent: Sent<string>) => void }[] = [];
  readonly send = (version: number, document: string): Promise<Sent<string>> =>
    new Promise((answer) => this.asked.push({ version, document, answer }));
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

const settled = () => jest.advanceTimersByTimeAsync(0);

test('many changes in one go are sent once, the last of them', async () => {
  const server = new SlowServer();
  const saver = new Saver('a', 1, server.send, () => undefined);
  for (const document of ['b', 'c', 'd']) saver.tell({ kind: 'edited', document });
  expect(saver.unsaved()).toEqual({ version: 1, document: 'd' });
  await jest.advanceTimersByTimeAsync(400);
  expect(server.asked.map(({ document }) => document)).toEqual(['d']);
  server.asked[0].answer({ kind: 'stored', version: 2 });
  await settled();
  expect(saver.state.getState().phase).toBe('clean');
  expect(saver.unsaved()).toBeNull();
});

test('leaving the bench while a save is on its way stores what came after it, too', async () => {
  const server = new SlowServer();
  const saver = new Saver('a', 1, server.send, () => undefined);
  saver.tell({ kind: 'edited', document: 'b' });
  await jest.advanceTimersByTimeAsync(400);
  saver.tell({ kind: 'edited', document: 'c' });
  saver.leave();
  server.asked[0].answer({ kind: 'stored', version: 2 });
  await jest.advanceTimersByTimeAsync(5);
  expect(server.asked[1]).toMatchObject({ version: 2, document: 'c' });
  server.asked[1].answer({ kind: 'stored', version: 3 });
  await settled();
  expect(saver.state.getState()).toMatchObject({ phase: 'clean', version: 3 });
});

test('leaving before the pause is over sends at once, and goes on until the server takes it', async () => {
  const server = new SlowServer();
  const saver = new Saver('a', 1, server.send, () => undefined);
  saver.tell({ kind: 'edited', document: 'b' });
  saver.leave();
  expect(server.asked).toHaveLength(1);
  server.asked[0].answer({ kind: 'failed', sentence: 'away' });
  await jest.advanceTimersByTimeAsync(2100);
  expect(server.asked).toHaveLength(2);
  server.asked[1].answer({ kind: 'stored', version: 2 });
  await settled();
  expect(saver.state.getState().phase).toBe('clean');
});

test('what is refused is not sent again by itself, but with the next change', async () => {
  const server = new SlowServer();
  const saver = new Saver('a', 1, server.send, () => undefined);
  saver.tell({ kind: 'edited', document: 'b' });
  await jest.advanceTimersByTimeAsync(400);
  server.asked[0].answer({ kind: 'refused', sentence: 'too many' });
  await jest.advanceTimersByTimeAsync(600_000);
  expect(server.asked).toHaveLength(1);
  expect(saver.unsaved()).toEqual({ version: 1, document: 'b' });
  saver.tell({ kind: 'edited', document: 'c' });
  await jest.advanceTimersByTimeAsync(400);
  expect(server.asked.map(({ document }) => document)).toEqual(['b', 'c']);
});

test('another session saves for itself: opening another bench cannot stop the first from being stored', async () => {
  const [first, second] = [new SlowServer(), new SlowServer()];
  const a = new Saver('a', 1, first.send, () => undefined);
  a.tell({ kind: 'edited', document: 'a2' });
  await jest.advanceTimersByTimeAsync(400);
  a.leave();
  const b = new Saver('b', 7, second.send, () => undefined);
  b.tell({ kind: 'edited', document: 'b2' });
  first.asked[0].answer({ kind: 'failed', sentence: 'busy' });
  await jest.advanceTimersByTimeAsync(2500);
  expect(first.asked.at(-1)?.document).toBe('a2');
  expect(second.asked.map(({ document }) => document)).toEqual(['b2']);
});

test('a document of another screen is laid out here, unless nobody looks any more', async () => {
  const laid: string[] = [];
  const server = new SlowServer();
  const saver = new Saver('a', 1, server.send, (document) => laid.push(document));
  saver.tell({ kind: 'newer', theirs: 'z', theirVersion: 2 });
  saver.leave();
  saver.tell({ kind: 'newer', theirs: 'y', theirVersion: 3 });
  await settled();
  expect(laid).toEqual(['z']);
});

test('what is needed at once is stored at once, and waited for no longer than was said', async () => {
  const server = new SlowServer();
  const saver = new Saver('a', 1, server.send, () => undefined);
  let isOver = false;
  await saver.storeWithin(500);
  saver.tell({ kind: 'edited', document: 'b' });
  void saver.storeWithin(500).then(() => (isOver = true));
  expect(server.asked.map(({ document }) => document)).toEqual(['b']);
  await jest.advanceTimersByTimeAsync(100);
  expect(isOver).toBe(false);
  server.asked[0].answer({ kind: 'stored', version: 2 });
  await jest.advanceTimersByTimeAsync(0);
  expect(isOver).toBe(true);
  isOver = false;
  saver.tell({ kind: 'edited', document: 'c' });
  void saver.storeWithin(500).then(() => (isOver = true));
  await jest.advanceTimersByTimeAsync(499);
  expect(isOver).toBe(false);
  await jest.advanceTimersByTimeAsync(1);
  expect(isOver).toBe(true);
});
