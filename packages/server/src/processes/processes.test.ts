/** @jest-environment node */
import { randomUUID } from 'node:crypto';
import { type Run } from '@heuristor/contracts';
import { InvestigationModel } from '../models/investigation';
import { RunModel } from '../models/run';
import { connected, endedRun, newBench, pause, runOf, until, valuesOf } from '../testing/bench';
import { FakeDevice } from '../testing/fakeDevice';
import { startOtherServer } from '../testing/otherServer';
import { TestScreen } from '../testing/testScreen';
import { type TestServer, newDatabase, startTestServer } from '../testing/testServer';

let address: string;
let server: TestServer;
beforeAll(async () => {
  address = await newDatabase();
  server = await startTestServer(undefined, address);
});
afterAll(() => server.close());

/** A process that was heard of so many seconds ago last, or will have ended so long from now. */
async function otherProcess(secondsLeft: number): Promise<string> {
  const id = randomUUID();
  await RunModel.knex().raw(
    `insert into server_process (id, "leaseUntil") values (?, clock_timestamp() + ? * interval '1 second')`,
    [id, secondsLeft],
  );
  return id;
}

/** A run that a process left open. */
async function openRun(recordedBy: string | null): Promise<string> {
  const investigationId = await newBench(server, 1);
  const { plan } = (await InvestigationModel.query().findById(investigationId)) ?? {};
  const { id } = await RunModel.query().insertAndFetch({
    investigationId,
    number: 1,
    name: 'run 1',
    origin: 'recorded',
    state: 'recording',
    plan,
    notes: [],
    practice: false,
    conditions: {},
    group: '',
    remark: '',
    planned: null,
    recordedBy,
  });
  return id;
}

const stateOf = async (id: string) => (await runOf(server, id)).state;

test('a run of a process that has ended, or of one that nobody knows, is marked; one of a process that lives is not', async () => {
  const [dead, living] = [await otherProcess(-1), await otherProcess(60)];
  const [ofDead, ofUnknown, ofOld, ofLiving] = await Promise.all(
    [dead, randomUUID(), null, living].map(openRun),
  );
  for (const id of [ofDead, ofUnknown, ofOld])
    await until(
      () => stateOf(id),
      (state) => state === 'interrupted',
      30,
    );
  expect(await stateOf(ofLiving)).toBe('recording');
  // It is not heard of any more, and its lease has run out.
  await RunModel.knex().raw('update server_process set "leaseUntil" = clock_timestamp() where id = ?', [
    living,
  ]);
  await until(
    () => stateOf(ofLiving),
    (state) => state === 'interrupted',
    30,
  );
});

test('what waited in a process that lives is left alone', async () => {
  const [ended, waiting] = [await newBench(server, 1), await newBench(server, 1)];
  const underWay = { kind: 'waiting' };
  await InvestigationModel.query()
    .findById(waiting)
    .patch({ underWay, underWayBy: await otherProcess(30) });
  await InvestigationModel.query().findById(ended).patch({ underWay, underWayBy: randomUUID() });
  await until(
    async () => (await server.api('get', `/investigations/${ended}`)).body as { ended: string | null },
    (found) => found.ended !== null,
    30,
  );
  const { body } = await server.api('get', `/investigations/${waiting}`);
  expect(body.ended).toBeNull();
});

let devices = 0;

/** Another server that records a run, beside the one that all tests have. */
async function recordingElsewhere() {
  const other = await startOtherServer(address);
  const code = `T${++devices}-B`;
  const device = await FakeDevice.connect(other.link, code, (t) => 1 + t / 1000);
  const id = (await other.api('post', '/investigations', { name: 'Elsewhere' })).body.id as string;
  await other.api('patch', `/investigations/${id}`, { plan: { end: { kind: 'stopped' } } }).expect(204);
  await other.api('put', `/investigations/${id}/sensors/${code}`).expect(204);
  const { body } = await other.api('post', `/investigations/${id}/recording`).expect(201);
  return { other, device, id, run: body as Run };
}
describe('two servers on one database', () => {
  test('what one records goes on while the other looks, and ends when it is stopped', async () => {
    const { other, device, id, run } = await recordingElsewhere();
    await pause(5000);
    expect(await stateOf(run.id)).toBe('recording');
    await other.api('delete', `/investigations/${id}/recording`).expect(200);
    const ended = await endedRun(server, run.id);
    expect(ended.gaps).toEqual([]);
    expect((await valuesOf(server, ended.channels[0].id)).length).toBeGreaterThan(200);
    device.vanish();
    other.child.kill('SIGTERM');
    await other.ended;
  });

  test('one that is killed leaves a run that the other marks and tells its screens, with all but its last moment', async () => {
    const { other, device, id, run } = await recordingElsewhere();
    await pause(2000);
    const screen = await TestScreen.open(server.port, { Cookie: server.cookie });
    screen.watch(id);
    await pause(100);
    const began = Date.now();
    other.child.kill('SIGKILL');
    await other.ended;
    await until(
      () => stateOf(run.id),
      (state) => state === 'interrupted',
      30,
    );
    // Four seconds of lease, and what a busy machine takes.
    expect(Date.now() - began).toBeLessThan(15_000);
    await screen.until(
      (seen) => seen.heard('run').some((said) => said.run.state === 'interrupted'),
      'that the run was interrupted',
    );
    const values = await valuesOf(server, (await runOf(server, run.id)).channels[0].id);
    expect(values.length).toBeGreaterThan(50 * 1.5);
    screen.close();
    device.vanish();
  });
});

test('a server that stood still for longer than its lease goes on with its run, which lacks nothing', async () => {
  const { other, device, id, run } = await recordingElsewhere();
  await pause(1000);
  other.child.kill('SIGSTOP');
  await until(
    () => stateOf(run.id),
    (state) => state === 'interrupted',
    30,
  );
  await pause(1000);
  other.child.kill('SIGCONT');
  await until(
    () => stateOf(run.id),
    (state) => state === 'recording',
    30,
  );
  await pause(1000);
  await other.api('delete', `/investigations/${id}/recording`).expect(200);
  const ended = await endedRun(server, run.id);
  expect(ended).toMatchObject({ gaps: [], notes: [] });
  const values = await valuesOf(server, ended.channels[0].id);
  expect(values.length).toBeGreaterThan(250);
  values.forEach((value, i) => i > 0 && expect(value - values[i - 1]).toBeCloseTo(0.00002, 9));
  device.vanish();
  other.child.kill('SIGTERM');
  await other.ended;
});

test('a server that was taken for ended takes its runs on again, and none of their readings is lost', async () => {
  const device = await connected(server, 'T2-A');
  const id = await newBench(server, null);
  const { body } = await server.api('post', `/investigations/${id}/recording`).expect(201);
  const run = body as Run;
  await pause(300);
  // It stood still for longer than its lease, and another one has looked meanwhile.
  await RunModel.knex().raw(
    `update server_process set "leaseUntil" = clock_timestamp() - interval '1 second'
     where id = (select "recordedBy" from run where id = ?)`,
    [run.id],
  );
  await RunModel.query().findById(run.id).patch({ state: 'interrupted', endedAt: new Date() });
  await until(
    () => stateOf(run.id),
    (state) => state === 'recording',
    30,
  );
  await pause(300);
  await server.api('delete', `/investigations/${id}/recording`).expect(200);
  const ended = await endedRun(server, run.id);
  const values = await valuesOf(server, ended.channels[0].id);
  expect(values.length).toBeGreaterThan(20);
  values.forEach((value, i) => i > 0 && expect(value - values[i - 1]).toBeCloseTo(0.00002, 9));
  device.vanish();
});

test('a server that ends in good order leaves no lease behind', async () => {
  const count = async () => {
    const { rows } = (await RunModel.knex().raw('select count(*) from server_process')) as {
      rows: { count: number }[];
    };
    return rows[0].count;
  };
  const before = await count();
  const other = await startOtherServer(address);
  expect(await count()).toBe(before + 1);
  other.child.kill('SIGTERM');
  await other.ended;
  expect(await count()).toBe(before);
});
