import { type Run, type Spot, type SpotStatus, investigationSchema, runSchema } from '@heuristor/contracts';
import { FakeDevice } from '../testing/fakeDevice';
import { type TestServer, startTestServer } from '../testing/testServer';

let server: TestServer;
let device: FakeDevice;
let investigation: string;
/** What the sensor sees, in volts, at a time since its stream began. */
let truth: (seconds: number) => number = () => 1;

const hello = {
  type: 'hello',
  protocol: 'heuristor-link',
  version: 2,
  device: { code: 'S1-P', model: 'Voltage sensor with driver' },
  outputs: [
    { key: 'frequency', label: 'Driver’s frequency', unit: 'Hz', low: 1, high: 60, step: 0.01, value: 15 },
  ],
  streams: [
    {
      key: 'u',
      rates: { lowest: 1, highest: 1000, usual: 500 },
      channels: [
        {
          key: 'u',
          quantity: 'voltage',
          symbol: 'U',
          unit: 'V',
          ranges: [{ key: 'only', low: -5, high: 5, noise: 0.001, resolution: 0.001 }],
        },
      ],
    },
  ],
};

beforeAll(async () => {
  server = await startTestServer();
  device = await FakeDevice.connect(server.port, 'S1-P', (seconds) => truth(seconds), hello);
}, 30_000);
afterAll(async () => {
  device.vanish();
  await server.close();
});
beforeEach(async () => {
  truth = () => 1;
  const made = await server.api('post', '/investigations', { name: 'Spots' });
  investigation = (made.body as { id: string }).id;
  await server.api('put', `/investigations/${investigation}/sensors/S1-P`).expect(204);
  await plan({ columns: [typed('r', 'cm')], seconds: 0.2, settleSeconds: 0.1, takes: {} });
  await new Promise((resolve) => setTimeout(resolve, 100));
});

const typed = (key: string, unit: string, output: object | null = null) => ({
  kind: 'typed',
  key,
  name: key,
  unit,
  offset: 0,
  output,
});
const plan = (spot: object) =>
  server.api('patch', `/investigations/${investigation}`, { plan: { way: 'spot', spot } }).expect(204);
const take = (cells: object, run: string | null = null, more: object = {}) =>
  server.api('post', `/investigations/${investigation}/spots`, { run, cells, ...more });
const taken = async (cells: object, run: string | null = null): Promise<Run & { spot: Spot }> => {
  const { spot, ...rest } = runSchema.parse((await take(cells, run).expect(201)).body);
  if (spot === null) throw new Error('no series');
  return { ...rest, spot };
};
const read = async () =>
  investigationSchema.parse((await server.api('get', `/investigations/${investigation}`)).body);

test('a reading is the mean of its readings beside what was typed; the first one begins the series', async () => {
  const run = await taken({ r: { typed: 12 } });
  expect(run.channels.map(({ key, unit, timeUnit }) => [key, unit, timeUnit])).toEqual([
    ['r', 'cm', '1'],
    ['U', 'V', '1'],
  ]);
  expect(run).toMatchObject({ state: 'ended', origin: 'recorded' });
  expect(run.spot.rows[0].cells).toMatchObject({
    r: { typed: 12 },
    U: { value: 1, count: 100, pinned: false },
  });
  const again = await taken({ r: { typed: 8 } }, run.id);
  expect(again.id).toBe(run.id);
  expect(again.spot.rows).toHaveLength(2);
  expect((await read()).runs).toHaveLength(1);
});

test('what still moves is refused with the reason, leaves no trace, and is taken all the same where that is wanted', async () => {
  truth = (seconds) => seconds % 4;
  const answer = await take({ r: { typed: 12 } }).expect(409);
  expect(answer.body).toMatchObject({ error: { code: 'not-still' } });
  expect((answer.body as { error: { message: string } }).error.message).toMatch(
    /^U still drifts: by 0\.\d+ V/,
  );
  expect((await read()).runs).toHaveLength(0);
  await take({ r: { typed: 12 } }, null, { anyway: true }).expect(201);
  expect((await read()).spots).toEqual({ phase: 'idle' });
});

test('a reading at the limit of its sensor is taken and marked', async () => {
  truth = () => 7;
  const { spot, id } = await taken({ r: { typed: 2 } });
  expect(spot.rows[0].cells.U).toMatchObject({ pinned: true });
  const counts = await server.api('get', `/runs/${id}/left-out`);
  expect(counts.body).toMatchObject([{ pinned: 0 }, { pinned: 1 }]);
});

test('a reading is dropped and put back, mended, and taken again; nothing that was read is overwritten', async () => {
  const first = await taken({ r: { typed: 12 } });
  const [row] = first.spot.rows;
  const patch = async (id: number, body: object) =>
    runSchema.parse((await server.api('patch', `/runs/${first.id}/spots/${id}`, body).expect(200)).body);
  expect((await patch(row.id, { removed: true })).spot?.rows[0].removed).toBe(true);
  expect((await patch(row.id, { removed: false })).spot?.rows[0].removed).toBe(false);
  expect((await patch(row.id, { cells: { r: { typed: 13 } } })).spot?.rows[0].cells.r).toEqual({ typed: 13 });
  truth = () => 2;
  await new Promise((resolve) => setTimeout(resolve, 100));
  const again = runSchema.parse(
    (await server.api('post', `/runs/${first.id}/spots/${row.id}/retake`, {}).expect(200)).body,
  );
  expect(again.spot?.rows.map(({ cells, removed }) => [cells.r, removed])).toEqual([
    [{ typed: 13 }, true],
    [{ typed: 13 }, false],
  ]);
  expect(again.spot?.rows[0].cells.U).toEqual(row.cells.U);
  expect(again.spot?.rows[1].cells.U).toMatchObject({ value: 2 });
  // What was read cannot be typed over, and words are no numbers.
  await server.api('patch', `/runs/${first.id}/spots/${row.id}`, { cells: { U: { typed: 5 } } }).expect(400);
  await server
    .api('patch', `/runs/${first.id}/spots/${row.id}`, { cells: { r: { word: 'far' } } })
    .expect(400);
  await server.api('patch', `/runs/${first.id}/spots/999999`, { removed: true }).expect(404);
});

test('a series gets columns while it goes on; one that holds something stays', async () => {
  const { id } = await taken({ r: { typed: 12 } });
  const columns = [
    { ...typed('r', 'cm'), name: 'distance', offset: 1.2 },
    { kind: 'word', key: 'pole', name: 'pole' },
  ];
  const run = runSchema.parse((await server.api('put', `/runs/${id}/columns`, { columns }).expect(200)).body);
  expect(run.channels.map(({ key, quantity }) => [key, quantity])).toEqual([
    ['r', 'distance'],
    ['U', 'voltage'],
  ]);
  await server.api('put', `/runs/${id}/columns`, { columns: [columns[1]] }).expect(400);
  const mass = [...columns, typed('m', 'g')];
  const wider = runSchema.parse(
    (await server.api('put', `/runs/${id}/columns`, { columns: mass }).expect(200)).body,
  );
  expect(wider.channels.map(({ key }) => key)).toEqual(['r', 'm', 'U']);
  await server.api('put', `/runs/${id}/columns`, { columns: [...mass, typed('U', 'V')] }).expect(400);
  // A column of numbers does not become one of words while it holds some.
  const asWord = { kind: 'word', key: 'r', name: 'r' };
  await server.api('put', `/runs/${id}/columns`, { columns: [asWord] }).expect(400);
});

test('a table without a sensor is the same thing', async () => {
  await server.api('delete', `/investigations/${investigation}/sensors/S1-P`).expect(204);
  const rows = [1, 2, 3].map((r) => ({ r: { typed: r } }));
  const answer = await server
    .api('post', `/investigations/${investigation}/spots/rows`, { run: null, rows })
    .expect(201);
  const run = runSchema.parse(answer.body);
  expect(run.channels.map(({ key }) => key)).toEqual(['r']);
  expect(run.spot?.rows).toHaveLength(3);
  await plan({ columns: [], seconds: 1, settleSeconds: 1, takes: {} });
  await take({}).expect(400);
});

test('two hands at the same moment: one reading is taken, the other is told', async () => {
  const answers = await Promise.all([take({ r: { typed: 1 } }), take({ r: { typed: 2 } })]);
  expect(answers.map(({ status }) => status).sort()).toEqual([201, 409]);
});

test('a device that goes away while it is listened to ends the reading with a sentence, and the next one is taken', async () => {
  await plan({ columns: [typed('r', 'cm')], seconds: 5, settleSeconds: 1, takes: {} });
  const waiting = take({ r: { typed: 1 } });
  const answer = waiting.then((given) => given);
  await new Promise((resolve) => setTimeout(resolve, 300));
  device.vanish();
  expect((await answer).body).toMatchObject({ error: { code: 'device-absent' } });
  device = await FakeDevice.connect(server.port, 'S1-P', (seconds) => truth(seconds), hello);
  await plan({ columns: [typed('r', 'cm')], seconds: 0.2, settleSeconds: 1, takes: {} });
  await new Promise((resolve) => setTimeout(resolve, 200));
  await taken({ r: { typed: 1 } });
});

test('a sweep steps the driver, waits, reads, and goes on more finely about the peak', async () => {
  const driven = () => {
    const set = device.received.findLast((message) => message.type === 'output');
    return set?.type === 'output' ? set.value : 15;
  };
  // A resonance at 20 Hz: the amplitude of a driven oscillator with Q = 20.
  const amplitude = (f: number) => 0.1 / Math.hypot(1 - (f / 20) ** 2, f / 20 / 20);
  truth = (seconds) => amplitude(driven()) * Math.sin(2 * Math.PI * driven() * seconds);
  await plan({
    columns: [typed('f', 'Hz', { code: 'S1-P', key: 'frequency' })],
    seconds: 0.3,
    settleSeconds: 0.05,
    takes: { U: 'amplitude' },
  });
  const wanted = { run: null, column: 'f', from: 16, to: 24, step: 1, finest: 0.25, cells: {} };
  await server.api('post', `/investigations/${investigation}/spots/sweep`, { ...wanted, to: 80 }).expect(400);
  await server.api('post', `/investigations/${investigation}/spots/sweep`, wanted).expect(202);
  const seen: SpotStatus[] = [];
  for (let tries = 0; tries < 450; tries++) {
    const { spots } = await read();
    if (spots.phase === 'idle') break;
    seen.push(spots);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  expect(seen.some((status) => status.phase === 'sweeping' && status.doing === 'settling')).toBe(true);
  const [{ spot, channels }] = (await read()).runs;
  expect(channels.map(({ key, quantity }) => [key, quantity])).toEqual([
    ['f', 'f'],
    ['A', 'amplitude of voltage'],
  ]);
  const points = (spot?.rows ?? []).map(({ cells }) => [
    'typed' in cells.f ? cells.f.typed : NaN,
    'value' in cells.A ? cells.A.value : NaN,
  ]);
  expect(points.slice(0, 9).map(([f]) => f)).toEqual([16, 17, 18, 19, 20, 21, 22, 23, 24]);
  expect(points.slice(9).map(([f]) => f)).toEqual([19.25, 19.5, 19.75, 20.25, 20.5, 20.75]);
  for (const [f, a] of points) expect(Math.abs(a / amplitude(f) - 1)).toBeLessThan(0.02);
}, 30_000);

test('a sweep can be stopped, and what was read stays', async () => {
  truth = (seconds) => Math.sin(2 * Math.PI * 20 * seconds);
  await plan({
    columns: [typed('f', 'Hz', { code: 'S1-P', key: 'frequency' })],
    seconds: 0.2,
    settleSeconds: 0.3,
    takes: { U: 'amplitude' },
  });
  const wanted = { run: null, column: 'f', from: 10, to: 20, step: 1, finest: 1, cells: {} };
  const path = `/investigations/${investigation}/spots/sweep`;
  await server.api('post', path, wanted).expect(202);
  await server.api('post', path, wanted).expect(409);
  await server.api('delete', `/investigations/${investigation}`).expect(409);
  await new Promise((resolve) => setTimeout(resolve, 1400));
  await server.api('delete', path).expect(204);
  for (let tries = 0; tries < 40 && (await read()).spots.phase !== 'idle'; tries++)
    await new Promise((resolve) => setTimeout(resolve, 50));
  const { runs, spots } = await read();
  expect(spots).toEqual({ phase: 'idle' });
  expect(runs[0].spot?.rows.length).toBeGreaterThanOrEqual(1);
  expect(runs[0].spot?.rows.length).toBeLessThan(6);
  await server.api('delete', path).expect(409);
}, 30_000);

test('a sweep that is stopped while it reads what has not settled does not wait once more', async () => {
  truth = (seconds) => (seconds % 10) * Math.sin(2 * Math.PI * 20 * seconds);
  await plan({
    columns: [typed('f', 'Hz', { code: 'S1-P', key: 'frequency' })],
    seconds: 0.5,
    settleSeconds: 3,
    takes: { U: 'amplitude' },
  });
  const path = `/investigations/${investigation}/spots/sweep`;
  const wanted = { run: null, column: 'f', from: 10, to: 20, step: 1, finest: 1, cells: {} };
  await server.api('post', path, wanted).expect(202);
  const until = async (is: (spots: Awaited<ReturnType<typeof read>>['spots']) => boolean, tries: number) => {
    for (let i = 0; i < tries; i++) {
      if (is((await read()).spots)) return true;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    return false;
  };
  expect(await until((spots) => spots.phase === 'sweeping' && spots.doing === 'reading', 120)).toBe(true);
  await server.api('delete', path).expect(204);
  // The reading itself lasts half a second; three more to settle would be too long.
  expect(await until(({ phase }) => phase === 'idle', 40)).toBe(true);
}, 30_000);

test('a copy of the investigation has its series, and its picture for the first page', async () => {
  const { id } = await taken({ r: { typed: 12 } });
  await taken({ r: { typed: 8 } }, id);
  const { body: original } = await server.api('get', `/investigations/${investigation}`);
  const { workings, workingsVersion: version } = investigationSchema.parse(original);
  const shifts = [{ run: id, by: 0.25 }];
  await server
    .api('put', `/investigations/${investigation}/workings`, { version, workings: { ...workings, shifts } })
    .expect(200);
  const copied = await server.api('post', `/investigations/${investigation}/copy`).expect(201);
  const copy = await server.api('get', `/investigations/${(copied.body as { id: string }).id}`);
  const { runs, workings: sheet } = investigationSchema.parse(copy.body);
  expect(runs[0].spot?.rows).toHaveLength(2);
  // What the sheet says of a run, the copy says of the run's copy.
  expect(sheet.shifts).toEqual([{ run: runs[0].id, by: 0.25 }]);
  const pictures = await server.api('get', `/investigations/${investigation}/previews`).expect(200);
  expect((pictures.body as { x: number[] }[])[0].x).toEqual([0, 1]);
});
