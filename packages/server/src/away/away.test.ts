import { type Away, type Device, type Run, investigationSchema } from '@heuristor/contracts';
import { normalRandom } from '@heuristor/core';
import { KeepingDevice } from '../testing/keepingDevice';
import { type TestServer, newDatabase, startTestServer } from '../testing/testServer';
import { wayTo } from '../testing/wayTo';

let server: TestServer;
let address: string;
let device: KeepingDevice;
let investigation: string;
let codes = 0;

beforeAll(async () => {
  address = await newDatabase();
  server = await startTestServer(undefined, address);
}, 30_000);
afterAll(() => server.close());

async function openBench(): Promise<void> {
  const made = await server.api('post', '/investigations', { name: 'Away' });
  investigation = (made.body as { id: string }).id;
  device = new KeepingDevice(server.port, `L${++codes}-A`);
  await device.connect();
  await server.api('put', `/investigations/${investigation}/sensors/${device.code}`).expect(204);
  await soon(() => device.received.some(({ type }) => type === 'start'));
  await new Promise((resolve) => setTimeout(resolve, 150));
}
beforeEach(openBench);
afterEach(() => device.vanish());

async function soon(isSo: () => boolean | Promise<boolean>, seconds = 8): Promise<void> {
  for (const until = Date.now() + seconds * 1000; Date.now() < until;) {
    if (await isSo()) return;
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
  throw new Error('it did not come to that');
}

const holding = (): Away => {
  const found = server.heuristor.presence.list().find(({ code }: Device) => code === device.code);
  if (found?.away == null) throw new Error('it keeps nothing');
  return found.away;
};
const prepare = (body: object = {}) =>
  server.api('post', `/investigations/${investigation}/away`, {
    code: device.code,
    seconds: 20,
    begin: { kind: 'at-once' },
    ...body,
  });
const path = (id: number, rest = '') => `/devices/${device.code}/away/${id}${rest}`;
const runs = async (): Promise<Run[]> =>
  investigationSchema.parse((await server.api('get', `/investigations/${investigation}`)).body).runs;
async function numbers(id: number): Promise<Float64Array> {
  const answer = await server
    .api('get', `/channels/${id}/values`)
    .buffer(true)
    .parse((response, done) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () => done(null, Buffer.concat(parts)));
    });
  return new Float64Array(Uint8Array.from(answer.body as Buffer).buffer);
}

/** A prepared run whose memory holds so many readings of both channels. */
async function kept(count: number, state: 'recording' | 'finished' | 'full' | 'stopped' = 'finished') {
  await prepare().expect(201);
  const [run] = device.runs.slice(-1);
  const normal = normalRandom(count);
  Object.assign(run, {
    state,
    begun: device.clock,
    values: Float64Array.from({ length: 2 * count }, (_, i) => (i % 2 === 0 ? 20 : 1013) + normal()),
  });
  device.clock += count / 100;
  device.tell();
  await soon(() => holding().runs.some(({ id, count: own }) => id === run.id && own === count));
  return run;
}

test('a device is told what it is to take, how long, and what to wait for in its own unit', async () => {
  await server.api('patch', `/investigations/${investigation}/sensors/${device.code}`, {
    channels: { t: { unit: 'K' } },
  });
  await new Promise((resolve) => setTimeout(resolve, 200));
  await prepare({ begin: { kind: 'level', channel: 't', direction: 'rise', value: 300 } }).expect(201);
  const told = device.received.findLast(({ type }) => type === 'prepare');
  expect(told).toMatchObject({
    seconds: 20,
    streams: [{ of: 'main', rate: 100, ranges: { t: 'only', p: 'only' } }],
    begin: { kind: 'level', channel: 't', direction: 'rise' },
  });
  if (told?.type !== 'prepare' || told.begin.kind !== 'level') throw new Error('no level');
  expect(told.begin.value).toBeCloseTo(26.85, 9);
  expect(holding().runs[0]).toMatchObject({ state: 'waiting', investigation, begunAt: null });
  await prepare().expect(409);
});

test('what there is no room for is refused with what would fit', async () => {
  const answer = await prepare({ seconds: 1000 }).expect(413);
  expect((answer.body as { error: { message: string } }).error.message).toContain(
    'has room for 250 s at this rate',
  );
});

test('12 000 readings with the link cut five times in the middle: byte for byte what the device took, then it forgets', async () => {
  const { id, values } = await kept(12_000);
  for (let cut = 0; cut < 5; cut++) {
    device.cutAfter = 1;
    if (cut === 0) await server.api('post', path(id, '/fetch'), { end: true }).expect(202);
    await soon(() => device.cutAfter < 0);
    await new Promise((resolve) => setTimeout(resolve, 60));
    // Nothing is forgotten before it is stored, and what is not whole is not shown.
    expect(device.received.some(({ type }) => type === 'erase')).toBe(false);
    expect(await runs()).toHaveLength(0);
    device.cutAfter = cut === 4 ? Infinity : 1;
    await device.connect();
  }
  await soon(async () => (await runs()).length === 1);
  const [run] = await runs();
  expect(run).toMatchObject({ origin: 'away', state: 'ended' });
  const stored = await Promise.all(run.channels.map((channel) => numbers(channel.id)));
  const sent = [0, 1].map((channel) => values.filter((_, i) => i % 2 === channel));
  stored.forEach((own, channel) => expect(Buffer.compare(bytes(own), bytes(sent[channel]))).toBe(0));
  await soon(() => device.received.some((message) => message.type === 'erase' && message.id === id));
  await soon(() => holding().runs.length === 0);
  // Asked for once each: what was here was not asked for again.
  const asked = device.received.flatMap((message) => (message.type === 'fetch' ? [message.from] : []));
  expect([...asked].sort((a, b) => a - b)).toEqual(asked);
}, 40_000);

const bytes = (values: Float64Array) => Buffer.from(values.buffer, values.byteOffset, values.byteLength);

test('times are those of the device’s clock, and its drift is reported', async () => {
  const { id } = await kept(500);
  await server.api('post', path(id, '/fetch'), { end: true }).expect(202);
  await soon(async () => (await runs()).length === 1);
  const [run] = await runs();
  expect(run.channels[0].sampling).toEqual({ kind: 'regular', start: 0, interval: 0.01 });
  expect(run.notes.join(' ')).toMatch(/Recorded by L\d+-A by itself\. .*the device’s own clock/);
  // Five seconds passed on its clock, and hardly any here: it ran fast, and that is said.
  expect(run.notes.join(' ')).toMatch(/millionths too fast/);
});

test('a run that goes on is fetched as far as it is, and its rest later, into the same run', async () => {
  const run = await kept(300, 'recording');
  await server.api('post', path(run.id, '/fetch'), { end: false }).expect(202);
  await soon(async () => (await runs()).length === 1);
  expect((await runs())[0].notes.join(' ')).toContain('It still records');
  expect(device.received.some(({ type }) => type === 'end' || type === 'erase')).toBe(false);
  const more = Float64Array.from({ length: 400 }, (_, i) => i);
  run.values = Float64Array.from([...run.values, ...more]);
  device.tell();
  await soon(() => holding().runs[0]?.count === 500);
  await server.api('post', path(run.id, '/fetch'), { end: true }).expect(202);
  await soon(() => holding().runs.length === 0);
  const after = await runs();
  expect(after).toHaveLength(1);
  expect(await numbers(after[0].channels[0].id)).toHaveLength(500);
  expect(device.received.some(({ type }) => type === 'end')).toBe(true);
});

test('a discarded run can be put back until the device is prepared anew', async () => {
  const { id } = await kept(100);
  await server.api('delete', path(id)).expect(204);
  expect(holding().runs[0].discarded).toBe(true);
  await server.api('post', path(id, '/fetch'), { end: true }).expect(400);
  await server.api('post', path(id, '/restore')).expect(204);
  expect(holding().runs[0].discarded).toBe(false);
  await server.api('delete', path(id)).expect(204);
  expect(device.received.some(({ type }) => type === 'erase')).toBe(false);
  await prepare().expect(201);
  expect(device.received.some((message) => message.type === 'erase' && message.id === id)).toBe(true);
  await server.api('post', path(id, '/restore')).expect(404);
});

test('a fetch is cancelled, and gone on with where it was', async () => {
  const { id } = await kept(9000);
  let given = 0;
  device.answer = () => (++given > 1 ? null : undefined) as never;
  await server.api('post', path(id, '/fetch'), { end: true }).expect(202);
  await soon(() => holding().runs[0].stored > 0);
  await server.api('delete', path(id, '/fetch')).expect(204);
  device.answer = undefined;
  await soon(() => !holding().runs[0].isFetching, 12);
  expect(holding().runs[0].stored).toBe(2000);
  expect(await runs()).toHaveLength(0);
  await server.api('post', path(id, '/fetch'), { end: true }).expect(202);
  await soon(async () => (await runs()).length === 1);
  expect(await numbers((await runs())[0].channels[1].id)).toHaveLength(9000);
}, 30_000);

test('an investigation whose run a device keeps is not removed; where it was removed all the same, the device keeps the run', async () => {
  const { id } = await kept(300);
  const refused = await server.api('delete', `/investigations/${investigation}`).expect(409);
  expect(refused.body.error.message).toBe(
    `${device.code} keeps a run of this investigation. Fetch it or discard it before removing the investigation.`,
  );
  device.vanish();
  await soon(() => !server.heuristor.presence.find(device.code).present);
  await server.api('delete', `/investigations/${investigation}`).expect(204);
  await device.connect();
  device.tell();
  await soon(() => server.heuristor.presence.find(device.code).present && holding().runs.length === 1);
  await server.api('post', path(id, '/fetch'), { end: true }).expect(202);
  await soon(() => !holding().runs[0].isFetching);
  expect(device.received.some(({ type }) => type === 'erase')).toBe(false);
  expect(holding().runs).toHaveLength(1);
}, 30_000);

test('a device that lost its clock says so, and the run is kept all the same', async () => {
  const run = await kept(100, 'stopped');
  run.begun = null;
  device.clock = 3;
  device.tell();
  await soon(() => holding().runs[0].clockLost);
  await server.api('post', path(run.id, '/fetch'), { end: true }).expect(202);
  await soon(async () => (await runs()).length === 1);
  expect((await runs())[0].notes.join(' ')).toMatch(/lost its clock.*It stopped early/);
});

test('several runs on one device are fetched one by one', async () => {
  const first = await kept(50);
  const second = await kept(70);
  expect(holding().runs.map(({ count }) => count)).toEqual([50, 70]);
  await server.api('post', path(second.id, '/fetch'), { end: true }).expect(202);
  await soon(async () => (await runs()).length === 1);
  await server.api('post', path(first.id, '/fetch'), { end: true }).expect(202);
  await soon(async () => (await runs()).length === 2);
  const lengths = await Promise.all(
    (await runs()).map(async ({ channels }) => (await numbers(channels[0].id)).length),
  );
  expect(lengths).toEqual([70, 50]);
});

test.each([
  ['another place', (d: KeepingDevice, id: number) => d.frame(id, 7, new Float64Array(20))],
  ['another run', (d: KeepingDevice, id: number) => d.frame(id + 1, 0, new Float64Array(20))],
  ['more than was asked for', (d: KeepingDevice, id: number) => d.frame(id, 0, new Float64Array(20_000))],
  ['nothing', (d: KeepingDevice, id: number) => d.frame(id, 0, new Float64Array(0))],
  ['another number of channels', (d: KeepingDevice, id: number) => d.frame(id, 0, new Float64Array(30), 3)],
  [
    'infinite readings',
    (d: KeepingDevice, id: number) => d.frame(id, 0, new Float64Array(20).fill(Infinity)),
  ],
])('a device that sends %s is not believed: nothing is stored, nothing forgotten', async (_what, lie) => {
  const { id } = await kept(100);
  device.answer = (message) => lie(device, message.id);
  await server.api('post', path(id, '/fetch'), { end: true }).expect(202);
  await soon(() => !holding().runs[0].isFetching);
  expect(await runs()).toHaveLength(0);
  expect(holding().runs[0].stored).toBe(0);
  expect(device.received.some(({ type }) => type === 'erase')).toBe(false);
});

test('a hand that presses twice fetches once', async () => {
  const { id } = await kept(9000);
  const press = () => server.api('post', path(id, '/fetch'), { end: true });
  const answers = await Promise.all([press(), press(), press()]);
  expect(answers.map(({ status }) => status).sort()).toEqual([202, 409, 409]);
  await soon(async () => (await runs()).length === 1);
  const asked = device.received.flatMap((message) => (message.type === 'fetch' ? [message.from] : []));
  expect(asked).toEqual([0, 2000, 4000, 6000, 8000]);
});

test('the server dies in the middle of a fetch: it goes on after the next start', async () => {
  const { id, values } = await kept(9000);
  device.cutAfter = 2;
  await server.api('post', path(id, '/fetch'), { end: true }).expect(202);
  await soon(() => device.cutAfter < 0);
  await server.close();
  server = await startTestServer(undefined, address);
  const again = new KeepingDevice(server.port, device.code);
  again.runs = device.runs;
  again.clock = device.clock;
  device = again;
  await device.connect();
  await soon(async () => (await runs()).length === 1);
  const [run] = await runs();
  const own = await numbers(run.channels[0].id);
  expect(Buffer.compare(bytes(own), bytes(values.filter((_, i) => i % 2 === 0)))).toBe(0);
}, 40_000);

test('a fetch that the database interrupts goes on when it is back', async () => {
  // One server at a time speaks with a database.
  await server.close();
  const way = await wayTo(await newDatabase());
  server = await startTestServer(undefined, way.address);
  device.vanish();
  await openBench();
  const { id } = await kept(9000);
  let given = 0;
  device.answer = () => {
    if (++given === 2) way.hang();
    return undefined as never;
  };
  await server.api('post', path(id, '/fetch'), { end: true }).expect(202);
  await soon(() => given >= 2);
  await new Promise((resolve) => setTimeout(resolve, 2500));
  expect(holding().runs[0].isFetching).toBe(true);
  way.mend();
  await soon(
    async () =>
      ((await server.api('get', `/investigations/${investigation}`)).body as { runs?: Run[] }).runs
        ?.length === 1,
    20,
  );
  expect(await numbers((await runs())[0].channels[1].id)).toHaveLength(9000);
  device.vanish();
  await server.close();
  way.close();
  server = await startTestServer(undefined, address);
}, 60_000);
