import { type Investigation, type Run } from '@heuristor/contracts';
import { Agent, request } from 'node:http';
import { type Socket } from 'node:net';
import pg from 'pg';
import { connected, endedRun, newBench, pause, runOf, until, valuesOf } from './testing/bench';
import { TestScreen } from './testing/testScreen';
import { type TestServer, newDatabase, startTestServer } from './testing/testServer';
import { wayTo } from './testing/wayTo';

describe('a database that hangs', () => {
  test('is said within two seconds, the run goes on in memory, ends, and is whole when the database is back', async () => {
    const way = await wayTo(await newDatabase());
    const server = await startTestServer(undefined, way.address);
    const device = await connected(server, 'T1-A');
    const id = await newBench(server, 4);
    const run = (await server.api('post', `/investigations/${id}/recording`).expect(201)).body as Run;
    await pause(500);
    way.hang();
    const began = Date.now();
    const [answer] = await Promise.all([server.api('get', '/investigations'), pause(100)]);
    expect(answer.status).toBe(503);
    expect(answer.body.error).toMatchObject({ code: 'database-away' });
    expect(Date.now() - began).toBeLessThan(2500);
    // From now on every answer is quick, and the run ends meanwhile.
    await pause(4500);
    const asked = Date.now();
    await server.api('delete', `/investigations/${id}/recording`).expect(503);
    expect(Date.now() - asked).toBeLessThan(2500);
    way.mend();
    const ended = await until(
      async () => (await server.api('get', `/investigations/${id}`)).body as Investigation,
      (found) => found.runs?.[0]?.state === 'ended',
      15,
    );
    expect(ended.runs[0].id).toBe(run.id);
    expect(ended.runs[0].gaps).toEqual([]);
    const values = await valuesOf(server, run.channels[0].id);
    expect(values).toHaveLength(201);
    expect(values.filter(Number.isNaN)).toHaveLength(0);
    // And the next can be recorded.
    await server.api('post', `/investigations/${id}/recording`).expect(201);
    device.vanish();
    await server.close();
    way.close();
  }, 60_000);
});

test('a run is stopped while the database hangs: it has no reading of what came after', async () => {
  const way = await wayTo(await newDatabase());
  const server = await startTestServer(undefined, way.address);
  const device = await connected(server, 'T2-A');
  const id = await newBench(server, null);
  const run = (await server.api('post', `/investigations/${id}/recording`).expect(201)).body as Run;
  await pause(500);
  way.hang();
  await pause(1000);
  const { body } = await server.api('delete', `/investigations/${id}/recording`).expect(503);
  expect(body.error.message).toContain('The run has ended, but the database does not answer.');
  // Long after that it is back; what was read meanwhile is no part of the run.
  await pause(3000);
  way.mend();
  await until(
    async () => (await server.api('get', `/investigations/${id}`)).body as Investigation,
    (found) => found.runs?.[0]?.state === 'ended',
    15,
  );
  const values = await valuesOf(server, run.channels[0].id);
  expect(values.length).toBeGreaterThan(60);
  expect(values.length).toBeLessThan(120);
  // Nobody who was not known stops anything.
  const stranger = await fetch(`http://127.0.0.1:${server.port}/api/investigations/${id}/recording`, {
    method: 'DELETE',
  });
  expect(stranger.status).toBe(401);
  device.vanish();
  await server.close();
  way.close();
}, 60_000);

test('a database that is away for longer than the memory lasts: the run says that readings are missing, and goes on after them', async () => {
  const way = await wayTo(await newDatabase());
  const server = await startTestServer(undefined, way.address);
  const device = await connected(server, 'T2-A');
  const id = await newBench(server, null);
  const run = (await server.api('post', `/investigations/${id}/recording`).expect(201)).body as Run;
  await pause(300);
  server.heuristor.recorder.writer.room = 50;
  way.hang();
  await pause(3500);
  way.mend();
  await until(
    () => server.api('get', '/investigations'),
    ({ status }) => status === 200,
    15,
  );
  await pause(1500);
  await until(
    () => server.api('delete', `/investigations/${id}/recording`),
    ({ status }) => status !== 503,
  );
  const ended = await endedRun(server, run.id);
  expect(ended.notes).toEqual([expect.stringContaining('not all readings could be kept in memory')]);
  const values = await valuesOf(server, run.channels[0].id);
  const missing = values.filter(Number.isNaN).length;
  expect(missing).toBeGreaterThan(20);
  // Every reading that is there stands in its own place.
  const origin = values[0];
  values.forEach((value, i) => {
    if (!Number.isNaN(value)) expect(value - origin).toBeCloseTo(i * 0.00002, 9);
  });
  expect(Number.isNaN(values[values.length - 1])).toBe(false);
  device.vanish();
  await server.close();
  way.close();
}, 60_000);

describe('a database that is slow to enter a run', () => {
  let server: TestServer;
  let blocker: pg.Client;
  beforeAll(async () => {
    const address = await newDatabase();
    server = await startTestServer(undefined, address);
    blocker = new pg.Client({ connectionString: address });
    await blocker.connect();
  });
  afterAll(async () => {
    await blocker.end();
    await server.close();
  });
  const release = () => blocker.query('commit');
  /** Presses Record while the database holds runs back. */
  const beginBlocked = async (id: string) => {
    await blocker.query('begin');
    await blocker.query('lock table run in exclusive mode');
    return { answer: begin(id) };
  };
  const begin = (id: string) =>
    server
      .api('post', `/investigations/${id}/recording`)
      .then(({ status, body }) => ({ status, run: body as Run }));

  test('costs no reading, and the run ends by its length', async () => {
    const device = await connected(server, 'U1-A');
    const id = await newBench(server, 0.5);
    const { answer: beginning } = await beginBlocked(id);
    await pause(2500);
    await release();
    const { status, run } = await beginning;
    expect(status).toBe(201);
    const ended = await endedRun(server, run.id);
    expect(ended).toMatchObject({ gaps: [], notes: [] });
    expect(await valuesOf(server, run.channels[0].id)).toHaveLength(26);
    await server.api('patch', '/devices/U1-A', { connected: false });
    device.vanish();
  });

  test('leaves no run open that was stopped meanwhile', async () => {
    const device = await connected(server, 'U2-A');
    const id = await newBench(server, null);
    const { answer: beginning } = await beginBlocked(id);
    await pause(400);
    const stopping = server.api('delete', `/investigations/${id}/recording`).then(({ status }) => status);
    await pause(800);
    await release();
    const { status, run } = await beginning;
    expect([status, await stopping]).toEqual([201, 200]);
    const ended = await endedRun(server, run.id);
    expect((await valuesOf(server, ended.channels[0].id)).length).toBeGreaterThan(15);
    // And the next can begin.
    expect((await begin(id)).status).toBe(201);
    await server.api('delete', `/investigations/${id}/recording`).expect(200);
    await server.api('patch', '/devices/U2-A', { connected: false });
    device.vanish();
  });

  test('forgets no sentence about a device that turned out to lie meanwhile', async () => {
    const device = await connected(server, 'U3-A');
    const id = await newBench(server, null);
    const { answer: beginning } = await beginBlocked(id);
    await pause(300);
    device.pace = 4;
    await pause(1200);
    device.pace = 1;
    await release();
    const { status, run } = await beginning;
    expect(status).toBe(201);
    const told = await until(
      () => runOf(server, run.id),
      ({ notes }) => notes.length > 0,
    );
    expect(told.notes.join()).toMatch('U3-A sends about');
    await server.api('delete', `/investigations/${id}/recording`).expect(200);
    expect((await endedRun(server, run.id)).gaps).toHaveLength(1);
    await server.api('patch', '/devices/U3-A', { connected: false });
    device.vanish();
  });
});

test('a request that was answered because the database hung leaves its connection whole when the database is back', async () => {
  const way = await wayTo(await newDatabase());
  const server = await startTestServer(undefined, way.address);
  const agent = new Agent({ keepAlive: true, maxSockets: 1 });
  const ask = () =>
    new Promise<{ status: number; socket: Socket }>((resolve, reject) => {
      const asking = request({
        port: server.port,
        host: '127.0.0.1',
        path: '/api/investigations',
        agent,
        headers: { Cookie: server.cookie },
      });
      asking.once('error', reject);
      asking.once('socket', (socket) =>
        asking.once('response', (response) => {
          response.resume();
          response.once('end', () => resolve({ status: response.statusCode ?? 0, socket }));
        }),
      );
      asking.end();
    });
  expect((await ask()).status).toBe(200);
  way.hang();
  const { status, socket } = await ask();
  expect(status).toBe(503);
  way.mend();
  await until(ask, (answer) => answer.status === 200);
  // What the first request had asked for has failed by now; nobody waits for it any more.
  await pause(500);
  expect(socket.destroyed).toBe(false);
  agent.destroy();
  await server.close();
  way.close();
}, 30_000);

test('a screen that asks for an investigation while the database hangs hears of it when the database is back', async () => {
  const way = await wayTo(await newDatabase());
  const server = await startTestServer(undefined, way.address);
  const { body } = await server.api('post', '/investigations', { name: 'Watched' }).expect(201);
  const { id } = body as { id: string };
  const screen = await TestScreen.open(server.port, { Cookie: server.cookie });
  way.hang();
  let isHeard = false;
  screen.say({ type: 'watch', investigations: [id], stage: null }, () => (isHeard = true));
  await pause(3000);
  expect(isHeard).toBe(false);
  way.mend();
  await until(
    () => Promise.resolve(isHeard),
    (heard) => heard,
  );
  await until(
    () => server.api('patch', `/investigations/${id}`, { name: 'Watched still' }),
    ({ status }) => status === 204,
    15,
  );
  await screen.until(({ messages }) => messages.some(({ type }) => type === 'plan'), 'word of the name');
  await server.close();
  way.close();
}, 60_000);
