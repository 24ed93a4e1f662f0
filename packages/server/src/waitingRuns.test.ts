import { type Investigation, type Plan, type Run } from '@heuristor/contracts';
import { newBench, pause, until, use, valuesOf } from './testing/bench';
import { FakeDevice } from './testing/fakeDevice';
import { type TestServer, newDatabase, startTestServer } from './testing/testServer';
import { wayTo } from './testing/wayTo';

/** Rises through 1 m every two seconds by the server's clock, and comes back in between. */
const saw = () => 0.5 + ((performance.now() / 1000) % 2) * 0.5;
const rising: Plan['begin'] = {
  kind: 'level',
  level: { quantity: 'x', of: 'reading', direction: 'rise', value: 1, unit: 'm' },
  keptSeconds: 0.2,
};

const planOf = (server: TestServer, id: string, plan: object) =>
  server.api('patch', `/investigations/${id}`, { plan }).expect(204);
const investigation = async (server: TestServer, id: string) =>
  (await server.api('get', `/investigations/${id}`)).body as Investigation;

async function bench(server: TestServer, code: string, plan: object, moves = saw) {
  const device = await FakeDevice.connect(server.port, code, moves);
  const id = await newBench(server, 0.6);
  await use(server, id, code);
  await planOf(server, id, plan);
  await pause(300);
  return { id, device };
}

const endedRuns = (server: TestServer, id: string, count: number, seconds = 20): Promise<Run[]> =>
  until(
    // While the database is away there is no answer with runs in it.
    async () => ((await investigation(server, id)) as Partial<Investigation>).runs ?? [],
    (runs) => runs.filter(({ state }) => state === 'ended').length >= count,
    seconds,
  );

describe('a run that waits for a level', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await startTestServer();
  });
  afterAll(() => server.close());

  test('three in a row begin by themselves, each with its crossing as time zero; then it is idle', async () => {
    // At rest until all that is asked of a run that waits has been asked, however slow the machine.
    let freed = Infinity;
    const { id, device } = await bench(server, 'W1-A', { begin: rising, times: 3 }, () =>
      performance.now() < freed ? 0.5 : 0.5 + (((performance.now() - freed) / 1000) % 2) * 0.5,
    );
    const { body } = await server.api('post', `/investigations/${id}/recording`).expect(202);
    expect(body).toBeNull();
    expect((await investigation(server, id)).recorder).toMatchObject({
      phase: 'waiting',
      number: 1,
      times: 3,
      for: { kind: 'level', threshold: 1, rest: null, device: 'W1-A' },
    });
    // It takes part in a run that waits: nobody takes it away or sets it up meanwhile.
    const other = await newBench(server, 1);
    const taken = await server.api('put', `/investigations/${other}/sensors/W1-A`).expect(409);
    expect(taken.body.error.message).toContain('waits to begin');
    const removed = await server.api('delete', `/investigations/${id}`).expect(409);
    expect(removed.body.error.message).toContain('Cancel it before removing');
    await server.api('post', `/investigations/${id}/recording`).expect(409);
    freed = performance.now();
    const runs = await endedRuns(server, id, 3);
    for (const run of runs) {
      const { sampling } = run.channels[0];
      if (sampling.kind !== 'regular') throw new Error(sampling.kind);
      expect(sampling.start).toBeGreaterThanOrEqual(-0.2);
      const values = await valuesOf(server, run.channels[0].id);
      const after = values.findIndex((value) => value >= 1);
      const crossing =
        sampling.start + 0.02 * (after - (values[after] - 1) / (values[after] - values[after - 1]));
      expect(Math.abs(crossing)).toBeLessThan(0.02);
    }
    expect((await investigation(server, id)).recorder).toEqual({ phase: 'idle' });
    device.vanish();
  }, 40_000);

  test('is begun by hand, or cancelled; stopping one of a row ends the row', async () => {
    const never = { ...rising, level: { ...rising.level, value: 5 } };
    const { id, device } = await bench(server, 'W2-A', { begin: never, times: null });
    await server.api('post', `/investigations/${id}/recording`).expect(202);
    await server.api('post', `/investigations/${id}/recording/begin`).expect(204);
    await endedRuns(server, id, 1);
    expect((await investigation(server, id)).recorder).toMatchObject({ phase: 'waiting', number: 2 });
    const { body } = await server.api('delete', `/investigations/${id}/recording`).expect(200);
    expect(body).toBeNull();
    expect((await investigation(server, id)).recorder).toEqual({ phase: 'idle' });
    await server.api('post', `/investigations/${id}/recording/begin`).expect(409);
    device.vanish();
  });

  test('is cancelled by another screen while it is only just being begun', async () => {
    const device = await FakeDevice.connect(server.port, 'W7-A', () => 1);
    device.silent = true;
    const id = await newBench(server, 1);
    await use(server, id, 'W7-A');
    await planOf(server, id, { begin: { ...rising, level: { ...rising.level, value: 5 } } });
    // The sensor's first reading is waited for meanwhile.
    const begun = server.api('post', `/investigations/${id}/recording`).then(({ status }) => status);
    await pause(100);
    const stopped = server.api('delete', `/investigations/${id}/recording`);
    device.silent = false;
    const { status, body } = await stopped;
    expect([status, body]).toEqual([200, null]);
    expect(await begun).toBe(202);
    expect((await investigation(server, id)).recorder).toEqual({ phase: 'idle' });
    device.vanish();
  });

  test('a plan that can never happen is refused with the reason, and nothing waits', async () => {
    const { id, device } = await bench(server, 'W3-A', {
      begin: { ...rising, level: { ...rising.level, value: 7 } },
    });
    const { body } = await server.api('post', `/investigations/${id}/recording`).expect(400);
    expect(body.error.message).toContain('x never reaches 7 m: its sensor sees 0.15 to 6 m');
    expect((await investigation(server, id)).recorder).toEqual({ phase: 'idle' });
    device.vanish();
  });

  test('a device that goes away and comes back while it waits is waited for', async () => {
    const { id, device } = await bench(server, 'W4-A', { begin: rising }, () => 0.5);
    await server.api('post', `/investigations/${id}/recording`).expect(202);
    device.vanish();
    await pause(400);
    const again = await FakeDevice.connect(server.port, 'W4-A', saw);
    const [run] = await endedRuns(server, id, 1);
    expect(run.gaps).toEqual([]);
    again.vanish();
  });
});

test('the database is away while a run waits and begins: it is entered when the database is back, and nothing is lost', async () => {
  const way = await wayTo(await newDatabase());
  const server = await startTestServer(undefined, way.address);
  const { id, device } = await bench(server, 'W5-A', { begin: rising });
  await server.api('post', `/investigations/${id}/recording`).expect(202);
  way.hang();
  await pause(10_000);
  way.mend();
  const [run] = await endedRuns(server, id, 1, 30);
  expect(run.gaps).toEqual([]);
  expect(run.notes).toEqual([]);
  const values = await valuesOf(server, run.channels[0].id);
  expect(values.length).toBeGreaterThanOrEqual(40);
  expect(values.filter(Number.isNaN)).toEqual([]);
  expect((await investigation(server, id)).runs).toHaveLength(1);
  device.vanish();
  await server.close();
  way.close();
}, 60_000);

test('fifty pulls of a plug at random: no crash, and every gap is marked', async () => {
  const server = await startTestServer();
  let device = await FakeDevice.connect(server.port, 'W6-A', () => 1);
  const id = await newBench(server, null);
  await use(server, id, 'W6-A');
  const { body } = await server.api('post', `/investigations/${id}/recording`).expect(201);
  for (let i = 0; i < 50; i++) {
    await pause(40 + 160 * Math.random());
    device.vanish();
    await pause(30 + 100 * Math.random());
    device = await FakeDevice.connect(server.port, 'W6-A', () => 1);
  }
  await pause(300);
  const { body: ended } = await server.api('delete', `/investigations/${id}/recording`).expect(200);
  const run = ended as Run;
  expect(run.state).toBe('ended');
  const values = await valuesOf(server, (body as Run).channels[0].id);
  const missing = values.flatMap((value, i) => (Number.isNaN(value) ? [i * 0.02] : []));
  expect(missing.length).toBeGreaterThan(50);
  for (const time of missing)
    expect(run.gaps.some(({ from, to }) => time >= from - 1e-6 && time < to + 1e-6)).toBe(true);
  device.vanish();
  await server.close();
}, 60_000);

test('a run that waits when the server is started anew is spoken of to whoever opens the investigation next, once', async () => {
  const database = await newDatabase();
  let server = await startTestServer(undefined, database);
  const { id, device } = await bench(server, 'W7-A', { begin: rising }, () => 0.5);
  const other = await newBench(server, 0.6);
  await server.api('post', `/investigations/${id}/recording`).expect(202);
  expect((await investigation(server, id)).recorder.phase).toBe('waiting');
  await pause(300);
  device.vanish();
  await server.close();
  server = await startTestServer(undefined, database);
  const { recorder, ended } = await investigation(server, id);
  expect(recorder.phase).toBe('idle');
  expect(ended).toBe(
    'A run was waiting here to begin when the server was restarted; it was cancelled. Press Record again.',
  );
  expect((await investigation(server, other)).ended).toBeNull();
  await server.api('delete', `/investigations/${id}/ended`).expect(204);
  expect((await investigation(server, id)).ended).toBeNull();
  // One that was cancelled is none that was ended.
  const again = await FakeDevice.connect(server.port, 'W7-A', () => 0.5);
  await pause(300);
  await server.api('post', `/investigations/${id}/recording`).expect(202);
  await server.api('delete', `/investigations/${id}/recording`);
  await pause(300);
  again.vanish();
  await server.close();
  server = await startTestServer(undefined, database);
  expect((await investigation(server, id)).ended).toBeNull();
  await server.close();
}, 60_000);
