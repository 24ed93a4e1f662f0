import { type Device, type MadeToken } from '@heuristor/contracts';
import { uniformRandom } from '@heuristor/core';
import cbor from 'cbor';
import { FakeDevice } from '../testing/fakeDevice';
import { type TestServer, startTestServer } from '../testing/testServer';

let server: TestServer;
let made: MadeToken;
let investigation: string;

beforeAll(async () => {
  server = await startTestServer();
}, 30_000);
afterAll(() => server.close());

beforeEach(async () => {
  made = (await server.api('post', '/device-tokens', { name: 'Weather hut' }).expect(201)).body as MadeToken;
  const created = await server.api('post', '/investigations', { name: 'Weather' });
  investigation = (created.body as { id: string }).id;
});
afterEach(() => server.api('delete', `/device-tokens/${made.id}`));

const post = (pack: unknown, token = made.token, type = 'application/senml+json') =>
  server.anonymous
    .post('/api/senml')
    .set('Authorization', `Bearer ${token}`)
    .set('Content-Type', type)
    .send(type.includes('cbor') ? cbor.encode(pack) : JSON.stringify(pack));
const device = (): Device | undefined =>
  server.heuristor.presence.list().find(({ code }) => code === made.code);
const connect = () => server.api('put', `/investigations/${investigation}/sensors/${made.code}`).expect(204);

const numbersOf = async (channel: number | undefined, what: 'values' | 'times') => {
  const answer = await server
    .api('get', `/channels/${channel}/${what}`)
    .buffer(true)
    .parse((response, done) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () => done(null, Buffer.concat(parts)));
    });
  return [...new Float64Array(Uint8Array.from(answer.body as Buffer).buffer)];
};
const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

test('what is posted stands among the sensors, with its names and units, and is recorded at its own times', async () => {
  await post([
    { bn: 'hut:', n: 'temp', u: 'Cel', v: 12 },
    { n: 'hum', u: '%RH', v: 80 },
  ]).expect(204);
  expect(device()).toMatchObject({ model: 'Weather hut', present: true });
  expect(
    device()?.streams.map(({ sampling, channels }) => [sampling, channels[0].quantity, channels[0].unit]),
  ).toEqual([
    ['timed', 'temp', 'Cel'],
    ['timed', 'hum', '%'],
  ]);
  await connect();
  await post([{ bn: 'hut:', n: 'temp', u: 'Cel', v: 12.1 }]).expect(204);
  await server.api('post', `/investigations/${investigation}/recording`).expect(201);
  for (let i = 0; i < 4; i++) {
    await pause(200);
    // Two readings a pack, a tenth of a second apart, given by relative times.
    await post([{ bn: 'hut:temp', bu: 'Cel', t: -0.1, v: 13 + i }, { v: 13.5 + i }]).expect(204);
  }
  const run = (await server.api('delete', `/investigations/${investigation}/recording`).expect(200)).body as {
    channels: { id: number; key: string }[];
  };
  const temp = run.channels.find(({ key }) => key === 'temp');
  expect(await numbersOf(temp?.id, 'values')).toEqual([13, 13.5, 14, 14.5, 15, 15.5, 16, 16.5]);
  const times = await numbersOf(temp?.id, 'times');
  for (let i = 0; i < 8; i += 2) expect(times[i + 1] - times[i]).toBeCloseTo(0.1, 2);
});

test('the same name in another unit is another quantity: no number is taken for one of the former unit', async () => {
  await post([{ n: 'temp', u: 'Cel', v: 12 }]).expect(204);
  await post([{ n: 'temp', u: 'K', v: 285 }]).expect(204);
  await connect();
  await server.api('post', `/investigations/${investigation}/recording`).expect(201);
  await pause(200);
  const now = Date.now() / 1000;
  await post([
    { n: 'temp', u: 'K', t: now, v: 287 },
    { n: 'temp', u: 'Cel', t: now, v: 14 },
    // Relative to now, it is the earlier one all the same.
    { n: 'temp', u: 'K', t: -0.1, v: 286 },
  ]).expect(204);
  const run = (await server.api('delete', `/investigations/${investigation}/recording`).expect(200)).body as {
    channels: { id: number; unit: string }[];
  };
  expect(run.channels.map(({ unit }) => unit)).toEqual(['Cel', 'K']);
  expect(await numbersOf(run.channels[0].id, 'values')).toEqual([14]);
  expect(await numbersOf(run.channels[1].id, 'values')).toEqual([286, 287]);
});

test('CBOR is the same', async () => {
  const pack = [
    new Map<number, unknown>([
      [-2, 'hut:'],
      [0, 'temp'],
      [1, 'Cel'],
      [2, 12],
    ]),
  ];
  await post(pack, made.token, 'application/senml+cbor').expect(204);
  expect(device()?.streams[0].channels[0].quantity).toBe('temp');
});

test('a token lets in until it is withdrawn; a wrong one does not', async () => {
  await post([{ n: 'a', v: 1 }], 'wrong-token-wrong').expect(401);
  await server.anonymous.post('/api/senml').send('[]').expect(401);
  await post([{ n: 'a', v: 1 }]).expect(204);
  const list = (await server.api('get', '/device-tokens')).body as Record<string, unknown>[];
  expect(list.find(({ id }) => id === made.id)).toMatchObject({ code: made.code, name: 'Weather hut' });
  expect(JSON.stringify(list)).not.toContain(made.token);
  await server.api('delete', `/device-tokens/${made.id}`).expect(204);
  await post([{ n: 'a', v: 1 }]).expect(401);
  expect(device()?.present ?? false).toBe(false);
});

test.each([
  ['nothing', '', 400],
  ['no JSON', '[{', 400],
  ['no pack', '{"n":"a"}', 400],
  ['no name', '[{"v":1}]', 400],
  ['a value that is none', '[{"n":"a","v":"1"}]', 400],
])('%s is refused in words', async (_what, text, status) => {
  const answer = await server.anonymous
    .post('/api/senml')
    .set('Authorization', `Bearer ${made.token}`)
    .set('Content-Type', 'application/senml+json')
    .send(text)
    .expect(status);
  expect((answer.body as { error: { message: string } }).error.message.length).toBeGreaterThan(10);
});

test('what is not understood is said to be so', async () => {
  await post('x', made.token, 'application/senml+xml').expect(415);
});

test('a phone lets itself in by a short code, which is not guessed', async () => {
  const { code } = (await server.api('post', '/device-tokens/pairing').expect(201)).body as { code: string };
  await server.anonymous.post('/api/phones').send({ code: 'AAAAAA', name: 'Phone' }).expect(401);
  const answer = await server.anonymous
    .post('/api/phones')
    .send({ code: code.toLowerCase(), name: 'Phone of Ada' })
    .expect(201);
  const { token } = answer.body as { token: string };
  await post([{ n: 'ax', u: 'm/s2', v: 9.8 }], token).expect(204);
  expect(server.heuristor.presence.list().some(({ model }) => model === 'Phone of Ada')).toBe(true);
  await server.anonymous.get('/api/device-tokens').expect(401);
});

test('a thousand malformed packs disturb nothing: a sensor beside them keeps sending', async () => {
  const beside = await FakeDevice.connect(server.port, 'B1-S', () => 1);
  await server.api('put', `/investigations/${investigation}/sensors/B1-S`).expect(204);
  const random = uniformRandom(3);
  const parts = [
    '{"n":"a","v":1}',
    '{"bn":',
    '[',
    ']',
    '{}',
    'null',
    '"v":1e999',
    '{"n":"b","v":NaN}',
    '{"v":{}}',
    '\u0000',
    '{"n":"a","t":"x","v":1}',
  ];
  const junk = () =>
    Array.from(
      { length: 1 + Math.floor(random() * 4) },
      () => parts[Math.floor(random() * parts.length)],
    ).join(',');
  const agent = (text: string) =>
    fetch(`http://127.0.0.1:${server.port}/api/senml`, {
      method: 'POST',
      headers: { Authorization: `Bearer ${made.token}`, 'Content-Type': 'application/senml+json' },
      body: `[${text}`,
    }).then(async (response) => {
      await response.arrayBuffer();
      return response.status;
    });
  const seen = new Map<number, number>();
  for (let i = 0; i < 20; i++)
    for (const status of await Promise.all(Array.from({ length: 50 }, () => agent(junk()))))
      seen.set(status, (seen.get(status) ?? 0) + 1);
  expect([...seen.keys()].filter((status) => status >= 500)).toEqual([]);
  expect(seen.get(400)).toBeGreaterThan(480);
  const stream = server.heuristor.presence.find('B1-S').streams[0];
  const before = stream.sending?.clock.next ?? 0;
  await pause(300);
  expect(stream.sending?.clock.next ?? 0).toBeGreaterThan(before + 8);
  beside.vanish();
}, 90_000);
