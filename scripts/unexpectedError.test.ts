import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { issueLinkToken, openDatabase } from '@heuristor/server';
import { FakeDevice } from '../packages/server/src/testing/fakeDevice';
import { newDatabase } from '../packages/server/src/testing/testServer';
import { startServer } from './system';

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

test('a server that meets an error that nobody expected stores what is recorded, and ends with a fault', async () => {
  const data = mkdtempSync(join(tmpdir(), 'heuristor-'));
  const address = await newDatabase();
  const database = await openDatabase(address);
  // A signal makes it throw where nobody catches.
  const throws = 'process.on("SIGUSR2",()=>setTimeout(()=>{throw new Error("planned")}))';
  const server = await startServer(address, 0, data, {
    NODE_OPTIONS: `--import data:text/javascript,${encodeURIComponent(throws)}`,
  });
  const site = `http://127.0.0.1:${server.port}`;
  const headers: Record<string, string> = { 'Content-Type': 'application/json' };
  const ask = async (method: string, path: string, body?: object) =>
    fetch(`${site}/api${path}`, {
      method,
      headers,
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
  const signedIn = await ask('POST', '/sign-in', { token: await issueLinkToken() });
  headers.Cookie = String(signedIn.headers.get('set-cookie')).split(';')[0];
  const { id } = (await (await ask('POST', '/investigations', { name: 'Unexpected' })).json()) as {
    id: string;
  };
  const device = await FakeDevice.connect(server.port, 'X1-X', () => 1);
  await ask('PUT', `/investigations/${id}/sensors/X1-X`);
  await ask('PATCH', `/investigations/${id}`, { plan: { end: { kind: 'stopped' } } });
  await pause(500);
  expect((await ask('POST', `/investigations/${id}/recording`)).status).toBe(201);
  await pause(1500);
  server.child.kill('SIGUSR2');
  await server.ended;
  expect(server.child.exitCode).toBe(1);
  device.vanish();

  const again = await startServer(address, server.port, data);
  const { runs } = (await (await ask('GET', `/investigations/${id}`)).json()) as {
    runs: { state: string; gaps: unknown[]; channels: { id: number }[] }[];
  };
  expect(runs).toMatchObject([{ state: 'ended', gaps: [] }]);
  const answer = await ask('GET', `/channels/${runs[0].channels[0].id}/values`);
  const values = new Float64Array(await answer.arrayBuffer());
  // A second and a half at 50 Hz.
  expect(values.length).toBeGreaterThan(60);
  expect(values.some(Number.isNaN)).toBe(false);
  await again.stop();
  await database.close();
  rmSync(data, { recursive: true, force: true });
}, 60_000);
