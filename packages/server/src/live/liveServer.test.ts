import { encodeFrame, frameKinds } from '@heuristor/contracts';
import { useSomewhere } from '../testing/bench';
import { FakeDevice, helloOf } from '../testing/fakeDevice';
import { type TestServer, startTestServer } from '../testing/testServer';
import { TestScreen } from '../testing/testScreen';

let server: TestServer;
const screens: TestScreen[] = [];

beforeAll(async () => {
  server = await startTestServer();
});
afterEach(() => screens.splice(0).forEach((screen) => screen.close()));
afterAll(() => server.close());

async function newScreen(headers: Record<string, string> = { Cookie: server.cookie }): Promise<TestScreen> {
  const screen = await TestScreen.open(server.port, headers);
  screens.push(screen);
  return screen;
}

const runFrame = (subject: number, firstIndex: number, count: number) =>
  encodeFrame({
    kind: frameKinds.run,
    subject,
    firstIndex,
    channels: 1,
    values: Float64Array.from({ length: count }, (_, i) => firstIndex + i),
    times: null,
  });

const newInvestigation = async (): Promise<string> => {
  const answer = await server.api('post', '/investigations', { name: 'Watched' }).expect(201);
  return (answer.body as { id: string }).id;
};

let probes = 0;

/** Waits until the server knows that a screen watches an investigation: until a word of its own for the watchers reaches it. */
async function known(screen: TestScreen, investigation: string): Promise<void> {
  const word = ++probes;
  const asking = setInterval(
    () => server.heuristor.bus.emit('runReadings', investigation, runFrame(TestScreen.probe, word, 1)),
    10,
  );
  try {
    await screen.until((asked) => asked.hasProbe(word), 'a word for its watchers');
  } finally {
    clearInterval(asking);
  }
}

/** A screen that watches an investigation, or none. */
async function watching(investigation: string | null, stage: string | null = null): Promise<TestScreen> {
  const screen = await newScreen();
  screen.watch(investigation, stage);
  if (investigation !== null) await known(screen, investigation);
  return screen;
}

describe('who may listen', () => {
  test('a screen hears at once which devices there are and how storage does', async () => {
    const screen = await newScreen();
    await screen.until(({ messages }) => messages.length >= 2, 'its first messages');
    expect(screen.heard('devices')).toHaveLength(1);
    expect(screen.heard('storage')).toMatchObject([{ type: 'storage', away: false, waiting: false }]);
  });

  test.each([
    ['without a cookie', {}],
    ['with a cookie of nobody', { Cookie: 'heuristor=nonsense' }],
  ])('nobody %s', async (_, headers) => {
    await expect(newScreen(headers)).rejects.toThrow();
  });

  test.each(['http://elsewhere.example', 'http://127.0.0.1:1', 'null'])('no page of %s', async (origin) => {
    await expect(newScreen({ Cookie: server.cookie, Origin: origin })).rejects.toThrow();
  });

  test('the server’s own page may', async () => {
    const screen = await newScreen({ Cookie: server.cookie, Origin: `http://127.0.0.1:${server.port}` });
    await screen.until(({ messages }) => messages.length > 0, 'anything');
  });
});

describe('what a screen hears', () => {
  test('a device that comes and goes is shown on all screens', async () => {
    const [a, b] = [await newScreen(), await newScreen()];
    const device = await FakeDevice.connect(server.port, 'L1-A', () => 1);
    const has = (present: boolean) => (screen: TestScreen) =>
      screen
        .heard('devices')
        .at(-1)
        ?.devices.some(({ code, present: is }) => code === 'L1-A' && is === present) === true;
    for (const screen of [a, b]) await screen.until(has(true), 'the device');
    device.vanish();
    for (const screen of [a, b]) await screen.until(has(false), 'it go');
  });

  const turned = (id: string, code: string, reversed: boolean) =>
    server
      .api('patch', `/investigations/${id}/sensors/${code}`, { channels: { x: { reversed } } })
      .expect(204);

  test('readings of a connected device come calibrated and in order; those of one that is not connected do not', async () => {
    const device = await FakeDevice.connect(server.port, 'L2-A', (t) => 2 + t);
    const screen = await newScreen();
    const id = await useSomewhere(server, 'L2-A');
    await turned(id, 'L2-A', true);
    await screen.until(({ frames }) => frames.some(({ values }) => values[0] < 0), 'readings');
    screen.frames.splice(
      0,
      screen.frames.findIndex(({ values }) => values[0] < 0),
    );
    await screen.until(({ frames }) => frames.length >= 4, 'readings');
    let next = screen.frames[0].firstIndex;
    for (const { kind, firstIndex, values } of screen.frames) {
      expect(kind).toBe(frameKinds.device);
      expect(firstIndex).toBe(next);
      values.forEach((value, i) => expect(value).toBeCloseTo(-(2 + (firstIndex + i) / 50), 9));
      next += values.length;
    }
    device.vanish();
  });

  test('readings with the old sign come before the word of the new one, and none after it', async () => {
    const device = await FakeDevice.connect(server.port, 'L5-A', () => 2);
    const screen = await newScreen();
    const id = await useSomewhere(server, 'L5-A');
    await screen.until(({ frames }) => frames.length > 0, 'readings');
    let turnedAt: number | null = null;
    screen.onAnything(() => {
      const said = screen
        .heard('devices')
        .at(-1)
        ?.devices.find(({ code }) => code === 'L5-A');
      if (said?.streams[0].channels[0].reversed === true) turnedAt ??= screen.frames.length;
    });
    await turned(id, 'L5-A', true);
    await screen.until(
      ({ frames }) => turnedAt !== null && frames.length > turnedAt + 3,
      'readings after the word',
    );
    const after = screen.frames.slice(turnedAt ?? 0).flatMap(({ values }) => [...values]);
    expect(new Set(after)).toEqual(new Set([-2]));
    device.vanish();
  });

  test('a run’s readings go to those who watch its investigation, in order and without a hole, and to nobody else', async () => {
    const [mine, other] = [await newInvestigation(), await newInvestigation()];
    const [watcher, second, stranger] = [await watching(mine), await watching(mine), await watching(other)];
    const idle = await newScreen();
    for (let i = 0; i < 200; i++) {
      server.heuristor.bus.emit('runReadings', mine, runFrame(7, i * 10, 10));
      if (i % 20 === 0) await new Promise((resolve) => setImmediate(resolve));
    }
    const has = ({ runFrames }: TestScreen) =>
      runFrames.reduce((sum, { values }) => sum + values.length, 0) === 2000;
    for (const screen of [watcher, second]) {
      await screen.until(has, 'all readings');
      expect(screen.runFrames.flatMap(({ values }) => [...values])).toEqual(
        Array.from({ length: 2000 }, (_, i) => i),
      );
    }
    expect(stranger.runFrames).toEqual([]);
    expect(idle.runFrames).toEqual([]);
  });

  test('who turns to another investigation hears no more of the first', async () => {
    const [first, second] = [await newInvestigation(), await newInvestigation()];
    const screen = await watching(first);
    screen.watch(second);
    await known(screen, second);
    const witness = await watching(second);
    server.heuristor.bus.emit('runReadings', first, runFrame(1, 0, 5));
    server.heuristor.bus.emit('runReadings', second, runFrame(2, 0, 5));
    await screen.until(({ runFrames }) => runFrames.length > 0, 'the second');
    await witness.until(({ runFrames }) => runFrames.length > 0, 'the second');
    expect(screen.runFrames.map(({ subject }) => subject)).toEqual([2]);
  });

  test('one tab with two investigations hears of both, and is told when the server listens', async () => {
    const [first, second] = [await newInvestigation(), await newInvestigation()];
    const screen = await watching(first);
    await new Promise<void>((heard) =>
      screen.say({ type: 'watch', investigations: [first, second], stage: null }, heard),
    );
    server.heuristor.bus.emit('runReadings', first, runFrame(1, 0, 5));
    server.heuristor.bus.emit('runReadings', second, runFrame(2, 0, 5));
    await screen.until(({ runFrames }) => runFrames.length > 1, 'both');
    expect(screen.runFrames.map(({ subject }) => subject).sort()).toEqual([1, 2]);
  });
});

describe('a screen that does not keep up', () => {
  test('loses frames beyond a bound, while another beside it gets them all; it sees the hole when it wakes', async () => {
    const investigation = await newInvestigation();
    const [asleep, awake] = [await watching(investigation), await watching(investigation)];
    asleep.pause();
    // 24 MB in frames of 256 kB: more than what may wait and what the system's own buffers hold.
    const [frames, length] = [96, 32_768];
    for (let i = 0; i < frames; i++) {
      server.heuristor.bus.emit('runReadings', investigation, runFrame(9, i * length, length));
      // Some at a time, or this would take longer than the heartbeat lets anybody sleep.
      if (i % 8 === 7) await awake.until((screen) => screen.runFrames.length > i, `frame ${i}`);
    }
    expect(awake.runFrames.map(({ firstIndex }) => firstIndex)).toEqual(
      Array.from({ length: frames }, (_, i) => i * length),
    );
    asleep.resume();
    server.heuristor.bus.emit('runReadings', investigation, runFrame(9, frames * length, 1));
    await awake.until((screen) => screen.runFrames.length > frames, 'the last');
    // What had waited comes, and the stream goes on after a hole that its indices tell.
    await asleep.until((screen) => screen.runFrames.length > 0, 'what had waited');
    const deadline = Date.now() + 60_000;
    for (let last = frames * length + 1; Date.now() < deadline; last++) {
      server.heuristor.bus.emit('runReadings', investigation, runFrame(9, last, 1));
      await new Promise((resolve) => setTimeout(resolve, 60));
      if ((asleep.runFrames.at(-1)?.firstIndex ?? 0) > frames * length) break;
    }
    expect(asleep.bytes).toBeLessThan(20 << 20);
    const indices = asleep.runFrames.map(({ firstIndex }) => firstIndex);
    expect(indices).toEqual([...indices].sort((a, b) => a - b));
    expect(indices.at(-1)).toBeGreaterThan(frames * length);
    expect(indices.length).toBeLessThan(frames);
  }, 120_000);
});

test('a stand-in says how its apparatus moves while somebody looks at that scene, and only to them', async () => {
  const staged = (code: string, apparatus: string) =>
    FakeDevice.connect(server.port, code, () => 1, {
      ...helloOf(code),
      stage: { apparatus, title: apparatus, controls: [] },
    });
  const [bell, reed] = [await staged('S1-A', 'bell'), await staged('S2-A', 'reed')];
  const looking = await watching(null, 'bell');
  await bell.heard((message) => message.type === 'watched' && message.watched);
  const elsewhere = await watching(null, 'reed');
  await reed.heard((message) => message.type === 'watched' && message.watched);
  bell.sendRaw(JSON.stringify({ type: 'scene', values: { angle: 0.3 } }));
  await looking.until((screen) => screen.heard('scene').length > 0, 'the scene');
  expect(looking.heard('scene')).toEqual([{ type: 'scene', code: 'S1-A', values: { angle: 0.3 } }]);
  expect(elsewhere.heard('scene')).toEqual([]);
  looking.say({ type: 'control', code: 'S1-A', control: { action: 'grab', at: 0.25 } });
  expect(await bell.heard(({ type }) => type === 'control')).toEqual({
    type: 'control',
    control: { action: 'grab', at: 0.25 },
  });
  looking.close();
  await bell.heard((message) => message.type === 'watched' && !message.watched);
  expect(reed.received.filter(({ type }) => type === 'watched')).toHaveLength(1);
  bell.vanish();
  reed.vanish();
});

describe('a screen that lies', () => {
  test.each([
    ['no object', 'hello'],
    ['an unknown type', { type: 'shout' }],
    ['an investigation that is no id', { type: 'watch', investigations: ['x'], stage: null }],
    ['half a message', { type: 'watch' }],
    ['a control of nothing', { type: 'control', code: 'L1-A', control: { action: 'explode' } }],
    ['nothing', undefined],
  ])('by %s is cut off, and the others hear on', async (_, message) => {
    const [liar, other] = [await newScreen(), await watching(null)];
    liar.sayAnything(message);
    await liar.until(({ ended }) => ended !== null, 'its end');
    expect(liar.ended).toBe('io server disconnect');
    const device = await FakeDevice.connect(server.port, 'L4-A', () => 1);
    const before = other.heard('devices').length;
    device.vanish();
    await other.until((screen) => screen.heard('devices').length > before, 'the next message');
    expect(other.ended).toBeNull();
  });

  test('by sending more than any message has is cut off', async () => {
    const liar = await newScreen();
    liar.sayAnything({ type: 'watch', investigations: ['x'.repeat(100_000)], stage: null });
    await liar.until(({ ended }) => ended !== null, 'its end');
  });

  test('a control for a device that is not there is passed over', async () => {
    const screen = await newScreen();
    screen.say({ type: 'control', code: 'NOBODY', control: { action: 'release' } });
    screen.watch(null, 'nowhere');
    await server.api('get', '/devices').expect(200);
    expect(screen.ended).toBeNull();
  });
});

test('signing out ends the streams of that cookie and of no other', async () => {
  const mine = await newScreen();
  const { issueLinkToken } = await import('../auth/signIn');
  const answer = await server.anonymous.post('/api/sign-in').send({ token: await issueLinkToken() });
  const cookie = String(answer.headers['set-cookie']).split(';')[0];
  const theirs = await newScreen({ Cookie: cookie });
  await server.anonymous
    .post('/api/sign-out')
    .set('Cookie', cookie)
    .set('Origin', `http://127.0.0.1:${server.port}`);
  await theirs.until(({ ended }) => ended !== null, 'its end');
  expect(theirs.ended).toBe('io server disconnect');
  expect(mine.ended).toBeNull();
});
