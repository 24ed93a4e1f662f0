import { type Run } from '@heuristor/contracts';
import { FakeDevice } from './fakeDevice';
import { type TestServer } from './testServer';

export const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/**
 * Waits until something is so; fails with what it last saw.
 * @param seconds by the test's clock, on which five pass in one on the wall (`jest.steady.cjs`)
 */
export async function until<T>(look: () => Promise<T>, isSo: (seen: T) => boolean, seconds = 50): Promise<T> {
  let seen = await look();
  for (const end = Date.now() + seconds * 1000; !isSo(seen); seen = await look()) {
    if (Date.now() > end) throw new Error(`still ${JSON.stringify(seen).slice(0, 400)}`);
    await pause(30);
  }
  return seen;
}

/** An investigation whose runs last so long. */
export async function newBench(server: TestServer, lengthSeconds: number | null): Promise<string> {
  const { body } = await server.api('post', '/investigations', { name: 'Faults' });
  const id = body.id as string;
  const end = lengthSeconds === null ? { kind: 'stopped' } : { kind: 'after', seconds: lengthSeconds };
  await server.api('patch', `/investigations/${id}`, { plan: { end } }).expect(204);
  for (const code of waiting.get(server) ?? []) await use(server, id, code);
  waiting.delete(server);
  return id;
}

/** Devices that the next bench takes. */
const waiting = new WeakMap<TestServer, string[]>();

/** An investigation takes a device. */
export async function use(server: TestServer, id: string, code: string): Promise<void> {
  await server.api('put', `/investigations/${id}/sensors/${code}`).expect(204);
}

/** An investigation that uses a device, for tests that need no bench. */
export async function useSomewhere(server: TestServer, code: string): Promise<string> {
  const { body } = await server.api('post', '/investigations', { name: 'Somewhere' });
  await use(server, body.id as string, code);
  return body.id as string;
}

export const runOf = async (server: TestServer, id: string): Promise<Run> =>
  (await server.api('get', `/runs/${id}`)).body as Run;

export const endedRun = (server: TestServer, id: string, seconds = 12): Promise<Run> =>
  until(
    () => runOf(server, id),
    ({ state }) => state === 'ended',
    seconds,
  );

/** The readings of a channel as they are stored, or their times. */
export const valuesOf = async (
  server: TestServer,
  channelId: number,
  what: 'values' | 'times' = 'values',
): Promise<number[]> => {
  const { body } = await server.api('get', `/channels/${channelId}/${what}`).responseType('blob');
  return [...new Float64Array(Uint8Array.from(body as Buffer).buffer)];
};

/** A device on the link, which the next bench takes; it sends a little more every second where nothing else is said. */
export async function connected(
  server: TestServer,
  code: string,
  hello?: unknown,
  position: (seconds: number) => number = (t) => 1 + t / 1000,
): Promise<FakeDevice> {
  const device = await FakeDevice.connect(server.port, code, position, hello);
  waiting.set(server, [...(waiting.get(server) ?? []), code]);
  return device;
}
