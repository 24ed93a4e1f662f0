import { type Run } from '@heuristor/contracts';
import { endedRun, newBench, pause, runOf, until, use, valuesOf } from './testing/bench';
import { GoingOnDevice } from './testing/goingOnDevice';
import { type TestServer, startTestServer } from './testing/testServer';

// Every reading of the device is its own number in thousandths, so that one that is missing or stands elsewhere is seen.

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

let codes = 0;
const running: GoingOnDevice[] = [];
afterEach(() => running.splice(0).forEach((device) => device.vanish()));

/** A device that an investigation uses and that sends, and a run of so long that has begun; null for one that is stopped by hand. */
async function begun(seconds: number | null): Promise<{ device: GoingOnDevice; id: string; run: Run }> {
  const { device, id } = await used(seconds);
  const { body } = await server.api('post', `/investigations/${id}/recording`).expect(201);
  return { device, id, run: body as Run };
}

async function used(seconds: number | null): Promise<{ device: GoingOnDevice; id: string }> {
  const device = await new GoingOnDevice(server.port, `B${++codes}-G`).connect();
  running.push(device);
  const id = await newBench(server, seconds);
  await use(server, id, device.code);
  await pause(300);
  return { device, id };
}

const numbersOf = async ({ channels }: Run): Promise<number[]> =>
  (await valuesOf(server, channels[0].id)).map((value) => Math.round(value * 1000));

/** Whether each number is one more than the one before. */
const followEachOther = (numbers: readonly number[]) =>
  numbers.every((n, i) => i === 0 || n === numbers[i - 1] + 1);

test('a link that breaks for a second and a half in the middle of a run costs nothing', async () => {
  const { device, run } = await begun(3);
  await pause(700);
  await device.breakFor(1500);
  const ended = await endedRun(server, run.id);
  expect(ended).toMatchObject({ gaps: [], notes: [] });
  const numbers = await numbersOf(ended);
  expect(numbers).toHaveLength(601);
  expect(followEachOther(numbers)).toBe(true);
  expect(device.received.filter(({ type }) => type === 'start')).toHaveLength(1);
});

test('however often it breaks, also while it is still sending what it kept', async () => {
  const { device, id, run } = await begun(null);
  for (const milliseconds of [300, 20, 700, 5, 1200, 60]) {
    await pause(milliseconds / 3);
    await device.breakFor(milliseconds);
  }
  await pause(400);
  await server.api('delete', `/investigations/${id}/recording`).expect(200);
  const ended = await endedRun(server, run.id);
  expect(ended).toMatchObject({ gaps: [], notes: [] });
  const numbers = await numbersOf(ended);
  expect(numbers.length).toBeGreaterThan(500);
  expect(followEachOther(numbers)).toBe(true);
});

test('one that comes on another connection while its former one hangs is taken for itself, and loses nothing', async () => {
  const { device, run } = await begun(3);
  await pause(700);
  await device.comeOtherwise(600);
  await pause(200);
  // What ends late of the former connection does no harm to the present one.
  await device.comeOtherwise(100);
  const ended = await endedRun(server, run.id);
  expect(ended).toMatchObject({ gaps: [], notes: [] });
  const numbers = await numbersOf(ended);
  expect(numbers).toHaveLength(601);
  expect(followEachOther(numbers)).toBe(true);
});

test('another device with its code, which goes on with nothing that it was asked for, does not take its place', async () => {
  const { device } = await used(null);
  const twin = new GoingOnDevice(server.port, device.code);
  running.push(twin);
  twin.lies = [{ of: 'main', stream: 60_000, from: 0 }];
  await expect(twin.connect()).rejects.toThrow('did not welcome');
  expect(twin.received).toMatchObject([{ type: 'refused', code: 'code-in-use' }]);
  expect(server.heuristor.presence.find(device.code).present).toBe(true);
});

test('a run whose end falls into the break waits for the rest, and ends at its own length', async () => {
  const { device, run } = await begun(1);
  await pause(500);
  const back = device.breakFor(3000);
  await pause(2400);
  expect((await runOf(server, run.id)).state).toBe('recording');
  await back;
  const ended = await endedRun(server, run.id);
  expect(ended.gaps).toEqual([]);
  const numbers = await numbersOf(ended);
  expect(numbers).toHaveLength(201);
  expect(followEachOther(numbers)).toBe(true);
});

test('who stops it meanwhile is not kept waiting, and sees what is missing', async () => {
  const { device, id, run } = await begun(null);
  await pause(500);
  const back = device.breakFor(2500);
  await pause(1000);
  const before = Date.now();
  await server.api('delete', `/investigations/${id}/recording`).expect(200);
  expect(Date.now() - before).toBeLessThan(1000);
  const ended = await endedRun(server, run.id);
  expect(ended.gaps).toHaveLength(1);
  await back;
});

test('what it had to let go is a gap where it belongs, and the rest stands where it was read', async () => {
  const { device, run } = await begun(2);
  await pause(500);
  device.forgets = 100_000;
  // It has nothing of what it read before it is back; the next frames are those that follow.
  const back = device.breakFor(600);
  await back;
  device.forgets = 0;
  const ended = await endedRun(server, run.id);
  expect(ended.gaps).toHaveLength(1);
  const numbers = await numbersOf(ended);
  expect(numbers).toHaveLength(401);
  const [gap] = ended.gaps;
  expect(gap.to - gap.from).toBeGreaterThan(0.4);
  expect(gap.to - gap.from).toBeLessThan(1.2);
  numbers.forEach((n, i) => Number.isNaN(n) || expect(n).toBe(numbers[0] + i));
});

test('what was set otherwise meanwhile begins anew', async () => {
  const { device, id } = await used(null);
  const back = device.breakFor(600);
  await pause(200);
  await server
    .api('patch', `/investigations/${id}/sensors/${device.code}`, { channels: { n: { range: 'fine' } } })
    .expect(204);
  await back;
  await until(
    () => Promise.resolve(device.received.filter(({ type }) => type === 'start')),
    (starts) => starts.length === 2,
  );
  expect(device.received.some(({ type }) => type === 'go-on')).toBe(false);
});

test('what nobody uses any more ends', async () => {
  const { device, id } = await used(null);
  const back = device.breakFor(600);
  await pause(200);
  await server.api('delete', `/investigations/${id}/sensors/${device.code}`).expect(204);
  await back;
  await until(
    () => Promise.resolve(device.received),
    (heard) => heard.some(({ type }) => type === 'stop'),
  );
});

test.each([
  ['a stream of another number', [{ of: 'main', stream: 60_000, from: 0 }]],
  ['a stream that it has not', [{ of: 'other', stream: 1, from: 0 }]],
])('one that says that it went on with %s begins anew, with a gap', async (_, lies) => {
  const { device, run } = await begun(2);
  await pause(400);
  device.lies = lies;
  await device.breakFor(400);
  const ended = await endedRun(server, run.id);
  expect(device.received.filter(({ type }) => type === 'start')).toHaveLength(2);
  expect(ended.gaps).toHaveLength(1);
});

test('a run that waits for a level begins where it was crossed, though the link was broken then', async () => {
  const { device, id } = await used(1);
  let from = Infinity;
  device.reads = (n) => (n < from ? 0.001 * (n % 2) : (n - from) / 1000 + 0.0005);
  await pause(300);
  await server
    .api('patch', `/investigations/${id}`, {
      plan: {
        begin: {
          kind: 'level',
          level: { quantity: 'n', of: 'reading', direction: 'rise', value: 0.1, unit: '1' },
          keptSeconds: 0,
        },
      },
    })
    .expect(204);
  const answer = await server.api('post', `/investigations/${id}/recording`);
  expect(answer.status).toBe(202);
  await pause(400);
  const back = device.breakFor(1200);
  await pause(300);
  from = 400;
  await back;
  const runs = await until(
    async () => ((await server.api('get', `/investigations/${id}`)).body as { runs: Run[] }).runs,
    (found) => found.length === 1 && found[0].state === 'ended',
  );
  const values = await valuesOf(server, runs[0].channels[0].id);
  expect(runs[0].gaps).toEqual([]);
  // A line that rises by 0.2 a second and crosses 0.1 at the beginning.
  const { sampling } = runs[0].channels[0];
  const start = sampling.kind === 'regular' ? sampling.start : NaN;
  values.forEach((value, i) => expect(value).toBeCloseTo(0.1 + 0.2 * (start + i / 200), 6));
});
