import { type Device, type ErrorBody, type Run } from '@heuristor/contracts';
import { connected, endedRun, newBench, pause, until, use, valuesOf } from './testing/bench';
import { FakeDevice, helloOf } from './testing/fakeDevice';
import { type TestServer, startTestServer } from './testing/testServer';

const channel = (key: string, unit = 'm') => ({ ...helloOf('A1-A').channels[0], key, symbol: key, unit });

describe('devices that lie', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await startTestServer();
  });
  afterAll(() => server.close());
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

  test('one that sends four times too fast is noticed and said, and stretches no time', async () => {
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
    const handles = (body as Device[]).flatMap(({ streams }) => streams.map(({ handle }) => handle));
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

  test('a device that records in one investigation is not taken away by another, whose own run shifts nothing', async () => {
    const device = await connected(server, 'D1-A');
    const first = await newBench(server, 2);
    const run = await recording(first);
    await pause(500);
    const neighbour = await connected(server, 'D2-A');
    const second = await newBench(server, 1);
    const { body } = await server.api('put', `/investigations/${second}/sensors/D1-A`).expect(409);
    expect((body as ErrorBody).error.message).toContain('D1-A is recording run 1');
    const other = await recording(second);
    expect(other.channels.map(({ deviceCode }) => deviceCode)).toEqual(['D2-A']);
    const ended = await endedRun(server, run.id);
    await endedRun(server, other.id);
    const values = await valuesOf(server, ended.channels[0].id);
    expect(values).toHaveLength(101);
    values.forEach((value, i) => i > 0 && expect(value - values[i - 1]).toBeCloseTo(0.00002, 9));
    // Now it may be taken, and the first has it no more.
    await use(server, second, 'D1-A');
    const { body: refused } = await server.api('post', `/investigations/${first}/recording`).expect(409);
    expect((refused as ErrorBody).error.code).toBe('nothing-connected');
    device.vanish();
    neighbour.vanish();
  });

  test('events are recorded with their times, through link, recorder, blocks and back', async () => {
    const hello = {
      ...helloOf('G1-A'),
      sampling: 'events',
      channels: [{ ...channel('gate'), quantity: 'gate', unit: '1', range: { low: -1, high: 2 } }],
    };
    const gate = await FakeDevice.connect(server.port, 'G1-A', () => 1, hello);
    const id = await newBench(server, 1);
    await use(server, id, 'G1-A');
    await gate.heard(({ type }) => type === 'start');
    gate.sendEvents(0, [0.01], [0]);
    await pause(150);
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
    const { body } = await server.api('post', '/investigations', { name: 'Elsewhere' });
    await server.api('put', `/investigations/${String(body.id)}/sensors/R1-A`).expect(409);
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
