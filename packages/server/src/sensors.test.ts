import { type Calibration, type Device, noCalibration } from '@heuristor/contracts';
import { endedRun, newBench, pause, until, use, valuesOf } from './testing/bench';
import { FakeDevice, helloOf } from './testing/fakeDevice';
import { type TestServer, startTestServer } from './testing/testServer';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

const deviceOf = async (code: string): Promise<Device> => {
  const { body } = await server.api('get', '/devices');
  const found = (body as Device[]).find((device) => device.code === code);
  if (found === undefined) throw new Error(`no ${code}`);
  return found;
};

const two = (code: string) => ({
  type: 'hello',
  protocol: 'heuristor-link',
  version: 2,
  device: { code, model: 'Wheel' },
  streams: [
    {
      key: 'wheel',
      rates: { lowest: 1, highest: 200, usual: 50 },
      channels: [
        {
          key: 'angle',
          quantity: 'angle',
          symbol: 'φ',
          unit: 'rad',
          ranges: [
            { key: 'wide', low: -600, high: 600, noise: 0.001 },
            { key: 'fine', low: -6, high: 6, noise: 0.0001 },
          ],
        },
      ],
    },
  ],
  numbers: [{ key: 'radius', label: 'Radius', unit: 'm', low: 0.01, high: 0.5, step: 0.001, value: 0.03 }],
  outputs: [{ key: 'speed', label: 'Speed', unit: 'Hz', low: 0, high: 10, step: 0.1, value: 1 }],
  state: { battery: 0.4 },
});

describe('the set-up of a sensor in an investigation', () => {
  test('range, unit, sign and names are taken; a run is recorded with them and knows them', async () => {
    const device = await FakeDevice.connect(server.port, 'S1-W', () => Math.PI, two('S1-W'));
    const id = await newBench(server, 0.3);
    await use(server, id, 'S1-W');
    const started = await device.heard(({ type }) => type === 'start');
    expect(started).toMatchObject({ of: 'wheel', rate: 50, ranges: { angle: 'wide' } });
    await server
      .api('patch', `/investigations/${id}/sensors/S1-W`, {
        rates: { wheel: 100 },
        channels: { angle: { range: 'fine', unit: 'deg', reversed: true, symbol: 'β', quantity: 'turning' } },
      })
      .expect(204);
    await device.heard(
      (message) => message.type === 'start' && message.rate === 100 && message.ranges?.angle === 'fine',
    );
    await pause(300);
    const { body } = await server.api('post', `/investigations/${id}/recording`).expect(201);
    const run = await endedRun(server, body.id as string);
    expect(run.channels[0]).toMatchObject({
      symbol: 'β',
      quantity: 'turning',
      unit: 'deg',
      sampling: { interval: 0.01 },
      applied: { range: 'fine', reversed: true, zero: null, numbers: {} },
    });
    for (const value of await valuesOf(server, run.channels[0].id)) expect(value).toBeCloseTo(-180, 9);
    expect(run.channels[0].high).toBeCloseTo((6 * 180) / Math.PI, 9);
    device.vanish();
  });

  test.each([
    ['a rate it has not', { rates: { wheel: 500 } }, 422, 'Choose a rate from 1 to 200 Hz'],
    ['a stream it has not', { rates: { other: 50 } }, 404, 'no stream other'],
    ['a channel it has not', { channels: { y: { on: false } } }, 404, 'no channel y'],
    ['a range it has not', { channels: { angle: { range: 'huge' } } }, 404, 'no range huge'],
    ['a unit of something else', { channels: { angle: { unit: 'kg' } } }, 400, 'cannot be shown in “kg”'],
    ['a symbol of nothing', { channels: { angle: { symbol: '  ' } } }, 400, 'a symbol needs a letter'],
  ])('%s is refused by name, and nothing changes', async (_, patch, status, words) => {
    const device = await FakeDevice.connect(server.port, 'S2-W', () => 1, two('S2-W'));
    const id = await newBench(server, 1);
    await use(server, id, 'S2-W');
    const before = await deviceOf('S2-W');
    const { body } = await server.api('patch', `/investigations/${id}/sensors/S2-W`, patch).expect(status);
    expect(body.error.message).toContain(words);
    expect(await deviceOf('S2-W')).toEqual(before);
    device.vanish();
    await until(
      () => deviceOf('S2-W'),
      ({ present }) => !present,
    );
  });

  test('is remembered by each investigation while another one has the sensor', async () => {
    const device = await FakeDevice.connect(server.port, 'S3-A', () => 1);
    const [mine, theirs] = [await newBench(server, 1), await newBench(server, 1)];
    await use(server, mine, 'S3-A');
    await server.api('patch', `/investigations/${mine}/sensors/S3-A`, { rates: { only: 20 } }).expect(204);
    await use(server, theirs, 'S3-A');
    expect((await deviceOf('S3-A')).streams[0].rate).toBe(50);
    const refused = await server.api('patch', `/investigations/${mine}/sensors/S3-A`, {
      rates: { only: 30 },
    });
    expect(refused.body.error.message).toContain('S3-A is in use in “Faults”');
    await use(server, mine, 'S3-A');
    expect((await deviceOf('S3-A')).streams[0].rate).toBe(20);
    // An investigation that is removed lets its sensors go.
    await server.api('delete', `/investigations/${mine}`).expect(204);
    expect((await deviceOf('S3-A')).use).toBeNull();
    await device.heard(({ type }) => type === 'stop');
    device.vanish();
  });
});

describe('what belongs to a device itself', () => {
  test('its numbers are sent to it, kept, and bounded; its outputs are set; its battery is shown', async () => {
    const device = await FakeDevice.connect(server.port, 'S4-W', () => 1, two('S4-W'));
    expect(await device.heard(({ type }) => type === 'number')).toMatchObject({ key: 'radius', value: 0.03 });
    const wider: Calibration = { ...noCalibration, numbers: { radius: 0.05 } };
    await server.api('put', '/devices/S4-W/calibration', wider).expect(204);
    await device.heard((message) => message.type === 'number' && message.value === 0.05);
    const { body } = await server
      .api('put', '/devices/S4-W/calibration', { ...noCalibration, numbers: { radius: 5 } })
      .expect(400);
    expect(body.error.message).toBe('Radius of S4-W must lie between 0.01 and 0.5 m.');
    await server.api('post', '/devices/S4-W/output', { key: 'speed', value: 3.5 }).expect(204);
    expect(await device.heard(({ type }) => type === 'output')).toMatchObject({ key: 'speed', value: 3.5 });
    await server.api('post', '/devices/S4-W/output', { key: 'speed', value: 35 }).expect(400);
    await server.api('post', '/devices/S4-W/output', { key: 'colour', value: 1 }).expect(404);
    device.sendRaw(JSON.stringify({ type: 'state', battery: 0.2, outputs: { speed: 7 } }));
    const shown = await until(
      () => deviceOf('S4-W'),
      ({ battery }) => battery === 0.2,
    );
    expect(shown.outputs[0].value).toBe(7);
    expect(shown.numbers[0].value).toBe(0.05);
    // It comes back with what was set for it.
    device.vanish();
    await pause(100);
    const again = await FakeDevice.connect(server.port, 'S4-W', () => 1, two('S4-W'));
    expect(await again.heard(({ type }) => type === 'number')).toMatchObject({ value: 0.05 });
    again.vanish();
  });

  test('calibration by two true values: read, applied, shown in the run, and taken back', async () => {
    let seen = 0.12;
    const force = {
      ...helloOf('S5-F'),
      channels: [
        { key: 'f', quantity: 'force', symbol: 'F', unit: 'N', range: { low: -50, high: 50 }, noise: 0.01 },
      ],
    };
    const device = await FakeDevice.connect(server.port, 'S5-F', () => seen, force);
    const id = await newBench(server, 0.3);
    await use(server, id, 'S5-F');
    await pause(200);
    const read = async () => (await server.api('get', '/devices/S5-F/channels/f/still').expect(200)).body;
    const empty = await read();
    seen = 5.02;
    await pause(100);
    const loaded = await read();
    expect([empty.mean, loaded.mean].map((mean: number) => Number(mean.toFixed(6)))).toEqual([0.12, 5.02]);
    const gain = 4.905 / (loaded.mean - empty.mean);
    const at = new Date().toISOString();
    const calibration: Calibration = {
      zeros: { f: { offset: empty.mean, spread: 0, at } },
      scales: {
        f: {
          gain,
          points: [
            { read: empty.mean, known: 0 },
            { read: loaded.mean, known: 4.905 },
          ],
          at,
        },
      },
      numbers: {},
    };
    await server.api('put', '/devices/S5-F/calibration', calibration).expect(204);
    const { body } = await server.api('post', `/investigations/${id}/recording`).expect(201);
    const run = await endedRun(server, body.id as string);
    for (const value of await valuesOf(server, run.channels[0].id)) expect(value).toBeCloseTo(4.905, 9);
    expect(run.channels[0].applied?.twoPoint?.gain).toBe(gain);
    expect(run.channels[0].applied?.zero?.offset).toBe(empty.mean);
    await server.api('put', '/devices/S5-F/calibration', noCalibration).expect(204);
    expect((await deviceOf('S5-F')).streams[0].channels[0]).toMatchObject({ scale: 1, offset: 0 });
    device.vanish();
  });

  test('what it sends is held against what it has announced', async () => {
    const device = await FakeDevice.connect(server.port, 'S6-W', () => 1, {
      ...two('S6-W'),
      streams: [
        {
          key: 'gate',
          sampling: 'events',
          channels: [
            {
              key: 'gate',
              quantity: 'gate',
              symbol: 'G',
              unit: '1',
              ranges: [{ key: 'all', low: -1, high: 2, noise: 0 }],
            },
          ],
        },
      ],
    });
    const id = await newBench(server, 1);
    await use(server, id, 'S6-W');
    await device.heard(({ type }) => type === 'start');
    device.sendEvents(0, [0.01], [3]);
    expect(await device.heard(({ type }) => type === 'refused')).toMatchObject({
      code: 'malformed',
      message: 'stream gate announced events, whose values are 0 and 1',
    });
  });
});
