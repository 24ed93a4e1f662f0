import { type Investigation, type Run } from '@heuristor/contracts';
import { Agent, request } from 'node:http';
import { type Socket } from 'node:net';
import pg from 'pg';
import { FakeDevice, helloOf } from './testing/fakeDevice';
import { type TestServer, newDatabase, startTestServer } from './testing/testServer';
import { wayToDatabase } from './testing/wayToDatabase';

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Waits until something is so; fails with what it last saw. */
async function until<T>(look: () => Promise<T>, isSo: (seen: T) => boolean, seconds = 10): Promise<T> {
  let seen = await look();
  for (const end = Date.now() + seconds * 1000; !isSo(seen); seen = await look()) {
    if (Date.now() > end) throw new Error(`still ${JSON.stringify(seen).slice(0, 400)}`);
    await pause(30);
  }
  return seen;
}

async function newBench(server: TestServer, lengthSeconds: number | null): Promise<string> {
  const { body } = await server.api('post', '/investigations', { name: 'Faults' });
  await server.api('patch', `/investigations/${body.id}`, { plan: { lengthSeconds } }).expect(204);
  return body.id as string;
}

const runOf = async (server: TestServer, id: string): Promise<Run> =>
  (await server.api('get', `/runs/${id}`)).body as Run;

const endedRun = (server: TestServer, id: string, seconds = 12): Promise<Run> =>
  until(
    () => runOf(server, id),
    ({ state }) => state === 'ended',
    seconds,
  );

const valuesOf = async (server: TestServer, channelId: number): Promise<number[]> => {
  const { body } = await server.api('get', `/channels/${channelId}/values`).responseType('blob');
  return [...new Float64Array(Uint8Array.from(body as Buffer).buffer)];
};

async function connected(server: TestServer, code: string, hello?: unknown): Promise<FakeDevice> {
  const device = await FakeDevice.connect(server.port, code, (t) => 1 + t / 1000, hello);
  await server.api('patch', `/devices/${code}`, { connected: true }).expect(204);
  await device.heard(({ type }) => type === 'start');
  await pause(200);
  return device;
}

const channel = (key: string, unit = 'm') => ({ ...helloOf('A1-A').channels[0], key, symbol: key, unit });

describe('devices that lie', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await startTestServer();
  });
  afterAll(() => server.close());
  afterEach(async () => {
    for (const { code } of (await server.api('get', '/devices')).body as { code: string }[])
      await server.api('patch', `/devices/${code}`, { connected: false });
  });

  const recording = async (id: string): Promise<Run> =>
    (await server.api('post', `/investigations/${id}/recording`).expect(201)).body as Run;

  test.each([
    ['one channel fewer', { ...helloOf('B1-A'), channels: [channel('x')] }],
    ['another unit', { ...helloOf('B1-A'), channels: [channel('x', 'cm'), channel('y')] }],
    [
      'another range',
      {
        ...helloOf('B1-A'),
        channels: [{ ...channel('x'), range: { low: 0.1, high: 2 } }, channel('y')],
      },
    ],
    [
      'rates that the run’s is not among',
      {
        ...helloOf('B1-A'),
        channels: [channel('x'), channel('y')],
        rates: { lowest: 1, highest: 40, usual: 20 },
      },
    ],
  ])('one that comes back with %s ends its part with a gap and a sentence', async (_, changed) => {
    const device = await connected(server, 'B1-A', {
      ...helloOf('B1-A'),
      channels: [channel('x'), channel('y')],
    });
    const id = await newBench(server, 2);
    const run = await recording(id);
    await pause(400);
    device.vanish();
    await until(
      () => server.api('get', '/devices'),
      ({ body }) =>
        !(body as { code: string; present: boolean }[]).find(({ code }) => code === 'B1-A')?.present,
    );
    const again = await FakeDevice.connect(server.port, 'B1-A', () => 3, changed);
    const ended = await endedRun(server, run.id);
    expect(ended.notes[0]).toMatch('B1-A came back with other channels, ranges, units or rates');
    expect(ended.gaps.length).toBeGreaterThan(0);
    expect(ended.gaps[0].to).toBeCloseTo(2, 1);
    expect(await valuesOf(server, run.channels[0].id)).not.toContain(3);
    expect(run.channels[0].unit).toBe('m');
    again.vanish();
  });

  test('one whose usual rate has changed is asked for the rate of the run, and goes on in time', async () => {
    const device = await connected(server, 'B2-A');
    const id = await newBench(server, 2);
    const run = await recording(id);
    await pause(400);
    device.vanish();
    await pause(200);
    const again = await FakeDevice.connect(server.port, 'B2-A', () => 2, {
      ...helloOf('B2-A'),
      rates: { lowest: 1, highest: 100, usual: 100 },
    });
    expect(await again.heard(({ type }) => type === 'start')).toMatchObject({ rate: 50 });
    const ended = await endedRun(server, run.id);
    expect(await valuesOf(server, ended.channels[0].id)).toHaveLength(101);
    again.vanish();
  });

  test('one that sends four times too fast is noticed and said, and stretches nothing', async () => {
    const device = await connected(server, 'B3-A');
    device.pace = 4;
    const id = await newBench(server, 3);
    const run = await recording(id);
    const ended = await endedRun(server, run.id);
    expect(ended.notes.join()).toMatch(/B3-A sends about \d+ readings a second where 50 were set/);
    expect(ended.gaps).toHaveLength(1);
    expect((await valuesOf(server, ended.channels[0].id)).length).toBeLessThan(120);
    device.vanish();
  });

  test('one frame with a huge index costs that frame alone', async () => {
    const device = await connected(server, 'B4-A');
    const id = await newBench(server, 1.5);
    const run = await recording(id);
    await pause(400);
    device.sendFrame(4_000_000_000, 1);
    const ended = await endedRun(server, run.id);
    expect(ended.notes.join()).toMatch('which it cannot have taken yet');
    const values = await valuesOf(server, ended.channels[0].id);
    expect(values).toHaveLength(76);
    expect(values.filter(Number.isNaN)).toHaveLength(0);
    device.vanish();
  });

  test('one that loses a reading a frame does not starve storage: its losses are counted', async () => {
    const device = await connected(server, 'B5-A');
    device.losing = true;
    const id = await newBench(server, 2);
    const run = await recording(id);
    const ended = await endedRun(server, run.id);
    expect(ended.gaps).toEqual([]);
    expect(ended.notes.join()).toMatch(/B5-A lost \d+ of 1\d\d readings of x/);
    device.vanish();
  });

  test('twenty that say hello at the same moment each have a number of their own', async () => {
    const codes = Array.from({ length: 20 }, (_, i) => `H${i}-A`);
    const devices = await Promise.all(codes.map((code) => FakeDevice.connect(server.port, code, () => 1)));
    const { body } = await server.api('get', '/devices');
    const handles = (body as { handle: number }[]).map(({ handle }) => handle);
    expect(new Set(handles).size).toBe(handles.length);
    devices.forEach((device) => device.vanish());
  });

  test('two with one code at the same moment: one gets in, the other is told', async () => {
    const [a, b] = await Promise.all([
      FakeDevice.connect(server.port, 'C1-A', () => 1),
      FakeDevice.connect(server.port, 'C1-A', () => 1),
    ]);
    const said = [a, b].map(({ received }) => received[0].type).sort();
    expect(said).toEqual(['refused', 'welcome']);
    a.vanish();
    b.vanish();
  });

  test('a second recording that begins does not shift the first', async () => {
    const device = await connected(server, 'D1-A');
    const first = await newBench(server, 2);
    const run = await recording(first);
    await pause(500);
    const second = await newBench(server, 1);
    const other = await recording(second);
    const ended = await endedRun(server, run.id);
    await endedRun(server, other.id);
    const values = await valuesOf(server, ended.channels[0].id);
    expect(values).toHaveLength(101);
    values.forEach((value, i) => i > 0 && expect(value - values[i - 1]).toBeCloseTo(0.00002, 9));
    device.vanish();
  });

  test('events are recorded with their times, through link, recorder, blocks and back', async () => {
    const hello = {
      ...helloOf('G1-A'),
      sampling: 'events',
      channels: [{ ...channel('gate'), quantity: 'gate', unit: '1', range: { low: -1, high: 2 } }],
    };
    const gate = await FakeDevice.connect(server.port, 'G1-A', () => 1, hello);
    await server.api('patch', '/devices/G1-A', { connected: true }).expect(204);
    await gate.heard(({ type }) => type === 'start');
    gate.sendEvents(0, [0.01], [0]);
    await pause(150);
    const id = await newBench(server, 1);
    const run = await recording(id);
    await pause(300);
    const now = gate.seconds;
    gate.sendEvents(1, [now - 0.09, now - 0.07, now - 0.01], [1, 0, 1]);
    const ended = await endedRun(server, run.id);
    expect(ended.channels[0].sampling).toEqual({ kind: 'events' });
    expect(await valuesOf(server, ended.channels[0].id)).toEqual([1, 0, 1]);
    const { body } = await server.api('get', `/channels/${ended.channels[0].id}/times`).responseType('blob');
    const times = new Float64Array(Uint8Array.from(body as Buffer).buffer);
    expect(times[1] - times[0]).toBeCloseTo(0.02, 9);
    expect(times[2] - times[1]).toBeCloseTo(0.06, 9);
    gate.vanish();
  });
});

describe('devices on other machines', () => {
  test('wait until the teacher lets them in, and then have a key that nobody else has', async () => {
    const server = await startTestServer(() => false);
    const device = await FakeDevice.connect(server.port, 'R1-A', () => 1);
    expect(device.received[0]).toEqual({ type: 'waiting' });
    await server.api('patch', '/devices/R1-A', { connected: true }).expect(409);
    await server.api('post', '/devices/R1-A/admission').expect(204);
    const admitted = await device.heard(({ type }) => type === 'admitted');
    const key = admitted.type === 'admitted' ? admitted.key : '';
    await device.heard(({ type }) => type === 'welcome');
    device.vanish();
    await pause(100);
    const impostor = await FakeDevice.connect(server.port, 'R1-A', () => 1);
    expect(impostor.received[0]).toMatchObject({ type: 'refused', code: 'wrong-key' });
    const again = await FakeDevice.connect(server.port, 'R1-A', () => 1, { ...helloOf('R1-A'), key });
    expect(again.received[0]).toMatchObject({ type: 'welcome' });
    again.vanish();
    await server.close();
  });
});

describe('a database that hangs', () => {
  test('is said within two seconds, the run goes on in memory, ends, and is whole when the database is back', async () => {
    const way = await wayToDatabase(await newDatabase());
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

test('a database that is away for longer than the memory lasts: the run says that readings are missing, and goes on after them', async () => {
  const way = await wayToDatabase(await newDatabase());
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
  const block = async () => {
    await blocker.query('begin');
    await blocker.query('lock table run in exclusive mode');
  };
  const release = () => blocker.query('commit');
  const begin = (id: string) =>
    server
      .api('post', `/investigations/${id}/recording`)
      .then(({ status, body }) => ({ status, run: body as Run }));

  test('costs no reading, and the run ends by its length', async () => {
    const device = await connected(server, 'U1-A');
    const id = await newBench(server, 0.5);
    await block();
    const beginning = begin(id);
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
    await block();
    const beginning = begin(id);
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
    await block();
    const beginning = begin(id);
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
  const way = await wayToDatabase(await newDatabase());
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
