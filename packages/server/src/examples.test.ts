/** @jest-environment node */
import { spawn } from 'node:child_process';
import { type Device } from '@heuristor/contracts';
import { endedRun, newBench, pause, until, use, valuesOf } from './testing/bench';
import { wayTo } from './testing/wayTo';
import { type TestServer, startTestServer } from './testing/testServer';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

test.each([
  ['node', ['examples/device.mjs'], 'J1-S', (way: URL) => [`ws://${way.host}/link`]],
  ['python3', ['examples/device.py'], 'P1-S', (way: URL) => [way.hostname, way.port]],
] as const)(
  'the example for %s sends again what a second of a hanging network and a broken link have swallowed',
  async (program, file, code, addressed) => {
    const way = await wayTo(`http://127.0.0.1:${server.port}`);
    const child = spawn(program, [...file, ...addressed(new URL(way.address))], { stdio: 'inherit' });
    try {
      await until(
        async () => (await server.api('get', '/devices')).body as Device[],
        (devices) => devices.some((device) => device.code === code && device.present),
      );
      const id = await newBench(server, 5);
      await use(server, id, code);
      await server
        .api('patch', `/investigations/${id}/sensors/${code}`, { rates: { main: 100 } })
        .expect(204);
      await pause(400);
      const { body } = await server.api('post', `/investigations/${id}/recording`).expect(201);
      await pause(1000);
      way.hang();
      await pause(1000);
      way.mend();
      const run = await endedRun(server, body.id as string, 16);
      expect(run).toMatchObject({ gaps: [], notes: [] });
      const values = await valuesOf(server, run.channels[0].id);
      expect(values).toHaveLength(501);
      // A cup of tea: what it is warmer than the room falls by the same share from each reading to the next.
      const share = Math.exp(-1 / (100 * 120));
      values.forEach((value, i) => {
        if (i > 0) expect((value - 20) / (values[i - 1] - 20)).toBeCloseTo(share, 10);
      });
    } finally {
      child.kill();
      way.close();
    }
  },
);
