import { type Run } from '@heuristor/contracts';
import { FakeDevice } from './fakeDevice';
import { type TestServer } from './testServer';

export const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Waits until something is so; fails with what it last saw. */
export async function until<T>(look: () => Promise<T>, isSo: (seen: T) => boolean, seconds = 10): Promise<T> {
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
  await server.api('patch', `/investigations/${body.id}`, { plan: { lengthSeconds } }).expect(204);
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

/** A device that sends, a little more every second where nothing else is said. */
export async function connected(
  server: TestServer,
  code: string,
  hello?: unknown,
  position: (seconds: number) => number = (t) => 1 + t / 1000,
): Promise<FakeDevice> {
  const device = await FakeDevice.connect(server.port, code, position, hello);
  await server.api('patch', `/devices/${code}`, { connected: true }).expect(204);
  await device.heard(({ type }) => type === 'start');
  await pause(200);
  return device;
}
