import { emptyWorkings } from '@heuristor/contracts';
import { issueLinkToken } from './auth/signIn';
import { type TestServer, startTestServer } from './testing/testServer';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

const newInvestigation = async (name = 'Buoy'): Promise<string> =>
  (await server.api('post', '/investigations', { name })).body.id as string;

describe('signing in', () => {
  test('the link works once; its cookie is HttpOnly and SameSite=Strict', async () => {
    const token = await issueLinkToken();
    const first = await server.anonymous.post('/api/sign-in').send({ token });
    expect(first.status).toBe(204);
    expect(String(first.headers['set-cookie'])).toMatch(/HttpOnly.*SameSite=Strict/);
    const second = await server.anonymous.post('/api/sign-in').send({ token });
    expect(second.status).toBe(401);
    expect(second.body.error).toMatchObject({
      code: 'link-used',
      message: expect.stringContaining('npm run sign-in-link'),
    });
  });

  test('of ten requests with one token at once, one gets in', async () => {
    const token = await issueLinkToken();
    const answers = await Promise.all(
      Array.from({ length: 10 }, () => server.anonymous.post('/api/sign-in').send({ token })),
    );
    expect(answers.filter(({ status }) => status === 204)).toHaveLength(1);
  });

  test.each([
    ['get', '/investigations'],
    ['post', '/investigations'],
    ['get', '/investigations/0b0f7f6e-0000-4000-8000-000000000000'],
    ['put', '/investigations/0b0f7f6e-0000-4000-8000-000000000000/workings'],
    ['post', '/investigations/0b0f7f6e-0000-4000-8000-000000000000/recording'],
    ['get', '/channels/1/values'],
    ['get', '/devices'],
    ['post', '/devices/K7-D/zero'],
    ['patch', '/runs/x'],
    ['get', '/nothing'],
    ['get', '/me'],
  ] as const)('without a cookie %s %s answers 401', async (method, path) => {
    const answer = await server.anonymous[method](`/api${path}`);
    expect(answer.status).toBe(401);
    expect(answer.body.error.code).toBe('not-signed-in');
  });

  test('security headers are on, and scripts come from our own origin only', async () => {
    const { headers } = await server.anonymous.get('/api/me');
    expect(headers['content-security-policy']).toContain("script-src 'self'");
    expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['x-powered-by']).toBeUndefined();
  });
});

describe('investigations', () => {
  test('are begun, renamed, copied, removed and put back', async () => {
    const id = await newInvestigation('Lifeboat');
    await server.api('patch', `/investigations/${id}`, { name: 'Lifeboat, wet' }).expect(204);
    const { body: copy } = await server.api('post', `/investigations/${id}/copy`).expect(201);
    await server.api('delete', `/investigations/${id}`).expect(204);
    await server.api('get', `/investigations/${id}`).expect(404);
    const names = async () =>
      ((await server.api('get', '/investigations')).body as { name: string }[]).map(({ name }) => name);
    expect(await names()).toContain('Lifeboat, wet (copy)');
    expect(await names()).not.toContain('Lifeboat, wet');
    await server.api('post', `/investigations/${id}/restore`).expect(204);
    expect(await names()).toContain('Lifeboat, wet');
    expect(copy.id).not.toBe(id);
  });

  test('a stale write of the workings is refused with the newer document', async () => {
    const id = await newInvestigation();
    const line = { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 9 };
    const newer = { ...emptyWorkings, lines: [line] };
    await server
      .api('put', `/investigations/${id}/workings`, { version: 1, workings: newer })
      .expect(200, { version: 2 });
    const { body } = await server
      .api('put', `/investigations/${id}/workings`, { version: 1, workings: emptyWorkings })
      .expect(409);
    expect(body.error).toMatchObject({ code: 'stale-document', current: { version: 2, workings: newer } });
  });
});

describe('bad requests name their fault', () => {
  test.each([
    [
      'a name of spaces',
      'post',
      '/investigations',
      { name: '   ' },
      400,
      'name: a name needs at least one character',
    ],
    ['a name too much', 'post', '/investigations', { name: 'a', owner: 'me' }, 400, 'owner'],
    ['broken JSON', 'post', '/investigations', '{"name":', 400, 'not JSON'],
    ['an id that is none', 'get', '/investigations/17', undefined, 404, '“17” is not the id of anything'],
    [
      'an unknown id',
      'get',
      '/investigations/0b0f7f6e-0000-4000-8000-000000000000',
      undefined,
      404,
      'no such investigation',
    ],
    ['an unknown run', 'get', '/runs/0b0f7f6e-0000-4000-8000-000000000000', undefined, 404, 'no such run'],
    ['an unknown channel', 'get', '/channels/99999/values', undefined, 404, 'no such channel'],
    ['an unknown device', 'patch', '/devices/Q9-Q', { connected: true }, 404, 'no device Q9-Q'],
    ['an unknown address', 'get', '/nothing', undefined, 404, 'nothing at this address'],
  ] as const)('%s', async (_, method, path, body, status, words) => {
    const request = server.api(method, path);
    const answer = await (body === undefined
      ? request
      : request.set('Content-Type', 'application/json').send(body));
    expect(answer.status).toBe(status);
    expect(answer.body.error.message).toContain(words);
  });

  test('a body over its size is refused as such', async () => {
    const answer = await server.api('post', '/investigations', { name: 'x'.repeat(1_100_000) });
    expect(answer.status).toBe(413);
    expect(answer.body.error.code).toBe('too-large');
  });

  test('impossible plans are refused', async () => {
    const id = await newInvestigation();
    for (const lengthSeconds of [0, -3, 1e9])
      await server.api('patch', `/investigations/${id}`, { plan: { lengthSeconds } }).expect(400);
  });

  test('recording without a sensor is refused with what to do', async () => {
    const id = await newInvestigation();
    const { body } = await server.api('post', `/investigations/${id}/recording`).expect(409);
    expect(body.error).toMatchObject({
      code: 'nothing-connected',
      message: expect.stringContaining('Connect one'),
    });
  });
});

describe('files', () => {
  const send = async (text: string) => {
    const id = await newInvestigation();
    return server
      .api('post', `/investigations/${id}/imports?name=table`)
      .set('Content-Type', 'text/csv')
      .send(text);
  };
  const values = async (id: number, what = 'values') => {
    const { body } = await server.api('get', `/channels/${id}/${what}`).responseType('blob');
    return [...new Float64Array(Uint8Array.from(body as Buffer).buffer)];
  };

  test('a first column of time becomes the time of the run, in seconds', async () => {
    const { body, status } = await send('t / ms;F / N\n0;0,5\n20;0,75\n50;1,0E0\n');
    expect(status).toBe(201);
    expect(body.channels).toHaveLength(1);
    expect(body.channels[0]).toMatchObject({ key: 'F', unit: 'N', timeUnit: 's', interval: null });
    expect(await values(body.channels[0].id)).toEqual([0.5, 0.75, 1]);
    expect(await values(body.channels[0].id, 'times')).toEqual([0, 0.02, 0.05]);
  });

  test('columns without time are numbered readings', async () => {
    const { body } = await send('x,y\n0.2,0.1\n337.4,338.8\n');
    expect(
      body.channels.map(({ key, timeUnit }: { key: string; timeUnit: string }) => [key, timeUnit]),
    ).toEqual([
      ['x', '1'],
      ['y', '1'],
    ]);
  });

  test.each([
    ['t / s,x / m\n0,1\n1,zwei\n', 'Row 3, column 2 (x): “zwei” is not a number'],
    ['t / s,x / m\n0,1\n0,2\n', 'not after the one before'],
    ['t / s,x / m\n0,1\n,2\n', 'The time in reading 2 is missing'],
  ])('a wrong file %j is refused with the place', async (text, words) => {
    const { body, status } = await send(text);
    expect(status).toBe(422);
    expect(body.error.message).toContain(words);
  });
});
