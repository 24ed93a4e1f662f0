import { type ChildProcess } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDatabase } from '@heuristor/server';
import { WebSocket } from 'ws';
import { startCluster } from './cluster';
import { startServer, startStandIns } from './system';
import { signedInAt } from './testing/signedIn';

// An error that nobody expected, thrown in the server's own process from outside, as a mistake in it would.

const folder = mkdtempSync(join(tmpdir(), 'heuristor-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Lets a process of Node throw an error outside of everything that would catch it, by its debugger. */
async function throwIn(child: ChildProcess): Promise<void> {
  const address = new Promise<string>((resolve) =>
    child.stderr?.on('data', (chunk: Buffer) => {
      const found = /ws:\/\/\S+/.exec(chunk.toString());
      if (found !== null) resolve(found[0]);
    }),
  );
  child.kill('SIGUSR1');
  const debugging = new WebSocket(await address);
  await new Promise((resolve) => debugging.once('open', resolve));
  const expression = "setImmediate(() => { throw new Error('something that nobody expected') })";
  debugging.send(JSON.stringify({ id: 1, method: 'Runtime.evaluate', params: { expression } }));
  await new Promise((resolve) => debugging.once('message', resolve));
  debugging.terminate();
}

test('after an error that nobody expected the server has stored what it recorded, and ends', async () => {
  mkdirSync(folder, { recursive: true });
  const cluster = await startCluster(folder, { durable: false });
  const database = await openDatabase(cluster.address);
  const settings = { NODE_OPTIONS: '--inspect-port=127.0.0.1:0' };
  const server = await startServer(cluster.address, 0, folder, settings);
  let standIns = startStandIns(server.port, folder);
  const { api, sensor } = await signedInAt(server.port);
  const { id } = await api<{ id: string }>('POST', '/investigations', { name: 'Unexpected' });
  await sensor('V2-L');
  await api('PUT', `/investigations/${id}/sensors/V2-L`);
  await api('PATCH', `/investigations/${id}`, { plan: { end: { kind: 'stopped' } } });
  await pause(1500);
  await api('POST', `/investigations/${id}/recording`, {});
  const begun = Date.now();
  await pause(3000);
  await throwIn(server.child);
  const thrown = Date.now();
  await server.ended;
  expect(Date.now() - thrown).toBeLessThan(7000);
  // It does not pretend that all was well.
  expect(server.child.exitCode).toBe(1);
  await standIns.stop();
  const next = await startServer(cluster.address, 0, folder);
  standIns = startStandIns(next.port, folder);
  const again = await signedInAt(next.port);
  const { runs } = await again.api<{
    runs: { state: string; channels: { id: number; sampling: { interval: number } }[] }[];
  }>('GET', `/investigations/${id}`);
  expect(runs).toHaveLength(1);
  expect(runs[0].state).not.toBe('recording');
  for (const { id: channel, sampling } of runs[0].channels) {
    const stored = await again.values(channel);
    expect(stored.some(Number.isNaN)).toBe(false);
    // All up to the error, but for what was on its way.
    expect((thrown - begun) / 1000 - stored.length * sampling.interval).toBeLessThan(1);
  }
  await standIns.stop();
  await next.stop();
  await database.close();
  await cluster.stop();
}, 90_000);
