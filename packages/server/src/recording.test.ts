import { type Device } from '@heuristor/contracts';
import WebSocket from 'ws';
import {
  connected as connectedTo,
  endedRun,
  newBench,
  pause,
  use,
  valuesOf as valuesIn,
} from './testing/bench';
import { FakeDevice, helloOf } from './testing/fakeDevice';
import { type TestServer, startTestServer } from './testing/testServer';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

const bench = (lengthSeconds: number | null) => newBench(server, lengthSeconds);
const connected = (code: string, position: (seconds: number) => number) =>
  connectedTo(server, code, undefined, position);
const ended = (runId: string) => endedRun(server, runId);
const valuesOf = (channelId: number) => valuesIn(server, channelId);

/** Waits until the server has begun with a run that was asked for. */
async function beingRecorded(id: string): Promise<void> {
  for (let tries = 0; tries < 1000; tries++) {
    try {
      server.heuristor.recorder.checkIdle(id);
    } catch {
      return;
    }
    await pause(1);
  }
}

describe('recording', () => {
  test('a run of a second at 50 Hz holds 51 readings from 0 to 1 s, in order, and the next has the next number', async () => {
    const device = await connected('A1-A', (t) => 1 + t / 1000);
    const id = await bench(1);
    for (const number of [1, 2]) {
      const { body } = await server.api('post', `/investigations/${id}/recording`).expect(201);
      const run = await ended(body.id as string);
      expect(run).toMatchObject({ number, state: 'ended', gaps: [] });
      const values = await valuesOf(run.channels[0].id);
      expect(values).toHaveLength(51);
      values.forEach((value, i) => i > 0 && expect(value - values[i - 1]).toBeCloseTo(0.00002, 9));
      expect(run.channels[0]).toMatchObject({
        sampling: { kind: 'regular', interval: 0.02, start: 0 },
        unit: 'm',
        deviceCode: 'A1-A',
      });
    }
    device.vanish();
  });

  test('who presses Record right after connecting two sensors gets a run with both of them', async () => {
    const devices = await Promise.all(
      ['A0-A', 'A0-B'].map((code) => FakeDevice.connect(server.port, code, () => 1)),
    );
    const id = await bench(0.5);
    await use(server, id, 'A0-A');
    await use(server, id, 'A0-B');
    const { body } = await server.api('post', `/investigations/${id}/recording`).expect(201);
    const run = await ended(body.id as string);
    expect(run.channels.map(({ deviceCode }) => deviceCode)).toEqual(['A0-A', 'A0-B']);
    expect(run.gaps).toEqual([]);
    for (const { id: channel } of run.channels) {
      const values = await valuesOf(channel);
      // The two do not tick together, so that half a second of 50 Hz holds 25 or 26 readings.
      expect([25, 26]).toContain(values.length);
      expect(values.every((value) => value === 1)).toBe(true);
    }
    // Changed her mind at once: the run ends as soon as it has begun.
    await server.api('patch', `/investigations/${id}/sensors/A0-A`, { rates: { only: 40 } }).expect(204);
    const begun = server.api('post', `/investigations/${id}/recording`).then(({ status }) => status);
    await beingRecorded(id);
    const { body: stopped } = await server.api('delete', `/investigations/${id}/recording`).expect(200);
    expect(await begun).toBe(201);
    expect(stopped.state).toBe('ended');
    devices.forEach((device) => device.vanish());
  });

  test('a sensor that never begins to send does not hold a run up for more than a second', async () => {
    const [good, silent] = await Promise.all(
      ['A1-S', 'A1-T'].map((code) => FakeDevice.connect(server.port, code, () => 1)),
    );
    silent.silent = true;
    const id = await bench(0.3);
    for (const code of ['A1-S', 'A1-T']) await use(server, id, code);
    const began = Date.now();
    const { body } = await server.api('post', `/investigations/${id}/recording`).expect(201);
    expect(Date.now() - began).toBeLessThan(2500);
    const run = await ended(body.id as string);
    expect(run.channels.map(({ deviceCode }) => deviceCode)).toEqual(['A1-S']);
    good.vanish();
    silent.vanish();
  });

  test('an open-ended run goes on until it is stopped, and its readings are stored while it goes on', async () => {
    const device = await connected('A2-A', () => 1);
    const id = await bench(null);
    const { body: run } = await server.api('post', `/investigations/${id}/recording`).expect(201);
    await pause(700);
    const early = (await valuesOf(run.channels[0].id)).length;
    expect(early).toBeGreaterThan(25);
    await server.api('post', `/investigations/${id}/recording`).expect(409);
    const slower = await server.api('patch', `/investigations/${id}/sensors/A2-A`, { rates: { only: 20 } });
    expect(slower.body.error.message).toContain('Stop the run');
    await pause(300);
    const { body: stopped } = await server.api('delete', `/investigations/${id}/recording`).expect(200);
    expect(stopped.state).toBe('ended');
    expect((await valuesOf(run.channels[0].id)).length).toBeGreaterThan(early);
    await server.api('delete', `/investigations/${id}/recording`).expect(409);
    device.vanish();
  });

  test('a copy that is made while a run is recorded says which run is not in it', async () => {
    const device = await connected('C1-C', () => 1);
    const id = await bench(null);
    await server.api('post', `/investigations/${id}/recording`).expect(201);
    const { body: during } = await server.api('post', `/investigations/${id}/copy`).expect(201);
    expect(during.left).toEqual(['run 1']);
    await server.api('delete', `/investigations/${id}/recording`).expect(200);
    const { body: after } = await server.api('post', `/investigations/${id}/copy`).expect(201);
    expect(after.left).toEqual([]);
    device.vanish();
  });

  test('a device that vanishes and comes back leaves a marked gap of missing readings, and the clock goes on', async () => {
    const device = await connected('A3-A', () => 1);
    const id = await bench(2.5);
    const { body } = await server.api('post', `/investigations/${id}/recording`).expect(201);
    await pause(600);
    device.vanish();
    await pause(700);
    const again = await FakeDevice.connect(server.port, 'A3-A', () => 2);
    const run = await ended(body.id as string);
    expect(run.gaps).toHaveLength(1);
    const [gap] = run.gaps;
    expect(gap.to - gap.from).toBeGreaterThan(0.6);
    expect(gap.to - gap.from).toBeLessThan(1.1);
    const values = await valuesOf(run.channels[0].id);
    expect(values).toHaveLength(126);
    const missing = values
      .map((value, i) => ({ value, time: i * 0.02 }))
      .filter(({ value }) => Number.isNaN(value));
    expect(missing[0].time).toBeCloseTo(gap.from, 6);
    expect(missing.length * 0.02).toBeCloseTo(gap.to - gap.from, 6);
    expect(values[values.length - 1]).toBe(2);
    again.vanish();
  });

  test('a device that never comes back leaves a gap up to the end of the run', async () => {
    const device = await connected('A4-A', () => 1);
    const id = await bench(1.5);
    const { body } = await server.api('post', `/investigations/${id}/recording`).expect(201);
    await pause(500);
    device.vanish();
    const run = await ended(body.id as string);
    expect(run.gaps[0].to).toBeCloseTo(1.5, 1);
  });
});

describe('zero', () => {
  test('averages a second of a still target and says the spread; runs are then zeroed', async () => {
    let i = 0;
    const device = await connected('B1-A', () => 0.8 + (i++ % 2 === 0 ? 0.0002 : -0.0002));
    const id = await bench(0.4);
    await server.api('post', '/devices/B1-A/zero', {}).expect(204);
    const { body: devices } = await server.api('get', '/devices');
    const found = (devices as Device[]).find(({ code }) => code === 'B1-A');
    const zeros = found?.calibration.zeros ?? {};
    expect(zeros.x.offset).toBeCloseTo(0.8, 4);
    expect(zeros.x.spread).toBeCloseTo(0.0002, 5);
    const { body } = await server.api('post', `/investigations/${id}/recording`).expect(201);
    const run = await ended(body.id as string);
    for (const value of await valuesOf(run.channels[0].id)) expect(Math.abs(value)).toBeLessThan(0.0003);
    expect(run.channels[0].high).toBeCloseTo(5.2, 3);
    device.vanish();
  });

  test('is refused politely while the target moves, or where there is none', async () => {
    const moving = await connected('B2-A', (t) => 0.8 + 0.04 * Math.sin(5 * t));
    await bench(1);
    const { body } = await server.api('post', '/devices/B2-A/zero', {}).expect(409);
    expect(body.error).toMatchObject({
      code: 'target-moves',
      message: expect.stringMatching(/^The target moves: x spread by 0\.0\d+ m.*Hold it still/),
    });
    moving.vanish();
    const blind = await connected('B3-A', () => 6);
    await bench(1);
    expect((await server.api('post', '/devices/B3-A/zero', {}).expect(409)).body.error.message).toContain(
      'sees nothing within its range',
    );
    blind.vanish();
  });
});

describe('the device link', () => {
  test.each([0, 0.5, 101, 1e9, -5])('a rate of %p Hz is refused', async (rate) => {
    const device = await FakeDevice.connect(server.port, 'C1-A', () => 1);
    const id = await bench(1);
    await use(server, id, 'C1-A');
    const answer = await server.api('patch', `/investigations/${id}/sensors/C1-A`, { rates: { only: rate } });
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.body.error.message).toMatch(
      rate > 0 ? /Choose a rate from 1 to 100 Hz/ : /positive number of hertz/,
    );
    device.vanish();
    await pause(50);
  });

  test.each([
    ['no JSON', '{"type":', 'malformed', 'must be JSON'],
    ['an unknown type', '{"type":"sing"}', 'malformed', 'type'],
    [
      'a wrong version',
      JSON.stringify({ ...helloOf('C2-A'), version: 9 }),
      'wrong-version',
      'speaks versions 1 to 3',
    ],
    ['a code that is none', JSON.stringify(helloOf('lower')), 'malformed', 'like K7-D'],
    ['samples before hello', new Uint8Array(24), 'no-hello', 'says hello before'],
  ])('%s is refused by name, and a good device beside it goes on', async (_, message, code, words) => {
    const good = await connected('C3-A', () => 1);
    const socket = new WebSocket(`ws://127.0.0.1:${server.port}/link`);
    const answers: { type: string; code: string; message: string }[] = [];
    socket.on('message', (data) => answers.push(JSON.parse(String(data)) as (typeof answers)[number]));
    const closed = new Promise((resolve) => socket.once('close', resolve));
    await new Promise((resolve) => socket.once('open', resolve));
    socket.send(message);
    await closed;
    expect(answers[0]).toMatchObject({ type: 'refused', code });
    expect(answers[0].message).toContain(words);
    const id = await bench(0.2);
    const { body } = await server.api('post', `/investigations/${id}/recording`).expect(201);
    expect((await ended(body.id as string)).gaps).toEqual([]);
    good.vanish();
    await pause(50);
  });

  test('a second device with the same code, a broken frame and a second hello are refused', async () => {
    const first = await FakeDevice.connect(server.port, 'C4-A', () => 1);
    const twin = await FakeDevice.connect(server.port, 'C4-A', () => 1);
    expect(twin.received[0]).toMatchObject({ type: 'refused', code: 'code-in-use' });
    first.sendRaw(new Uint8Array(17).fill(0x48));
    expect(await first.heard(({ type }) => type === 'refused')).toMatchObject({ code: 'malformed' });
    await pause(50);
    const third = await FakeDevice.connect(server.port, 'C4-A', () => 1);
    third.sendRaw(JSON.stringify(helloOf('C5-A')));
    expect(await third.heard(({ type }) => type === 'refused')).toMatchObject({ code: 'second-hello' });
  });

  test('a web page cannot pose as a device, and nobody without a cookie hears the live stream', async () => {
    const refusal = (path: string, headers: Record<string, string>) =>
      new Promise((resolve) => {
        const socket = new WebSocket(`ws://127.0.0.1:${server.port}${path}`, { headers });
        socket.on('unexpected-response', (_, response) => resolve(response.statusCode));
        socket.on('open', () => resolve('open'));
        socket.on('error', () => undefined);
      });
    const live = '/live/?EIO=4&transport=websocket';
    expect(await refusal('/link', { Origin: 'http://elsewhere.example' })).toBe(403);
    expect(await refusal(live, {})).toBe(400);
    expect(await refusal(live, { Cookie: server.cookie, Origin: 'http://elsewhere.example' })).toBe(400);
    expect(await refusal(live, { Cookie: server.cookie })).toBe('open');
    expect(await refusal('/elsewhere', {})).toBe(404);
  });
});
