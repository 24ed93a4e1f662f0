import { emptyWorkings } from '@heuristor/contracts';
import { issueLinkToken } from './auth/signIn';
import { DocumentModel } from './models/document';
import workings1 from '../../contracts/examples/workings-1.json';
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
      (
        (await server.api('get', '/investigations')).body as { investigations: { name: string }[] }
      ).investigations.map(({ name }) => name);
    expect(await names()).toContain('Lifeboat, wet (copy)');
    expect(await names()).not.toContain('Lifeboat, wet');
    await server.api('post', `/investigations/${id}/restore`).expect(204);
    expect(await names()).toContain('Lifeboat, wet');
    expect(copy.id).not.toBe(id);
  });

  test('a stale write of the workings is refused with the newer document', async () => {
    const id = await newInvestigation();
    const entry = { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 9 };
    const newer = { ...emptyWorkings, entries: [entry] };
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
    ['an unknown device', 'post', '/devices/Q9-Q/zero', {}, 404, 'no device Q9-Q'],
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
    const answer = await server.api('post', '/investigations', { name: 'x'.repeat(4_300_000) });
    expect(answer.status).toBe(413);
    expect(answer.body.error.code).toBe('too-large');
  });

  test('impossible plans are refused', async () => {
    const id = await newInvestigation();
    for (const seconds of [0, -3, 1e9])
      await server
        .api('patch', `/investigations/${id}`, { plan: { end: { kind: 'after', seconds } } })
        .expect(400);
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

describe('nothing a request holds ends in a fault', () => {
  const id = '0b0f7f6e-0000-4000-8000-000000000000';
  test.each([
    ['a malformed path', () => server.api('get', '/runs/%ff')],
    ['a malformed path outside the API', () => server.anonymous.get('/%ff')],
    ['NUL in a path', () => server.api('post', '/devices/%00/flash')],
    ['NUL in a name', () => server.api('post', '/investigations', { name: 'a\u0000b' })],
    [
      'a charset that is none',
      () =>
        server
          .api('post', '/investigations')
          .set('Content-Type', 'application/json; charset=klingon')
          .send('{}'),
    ],
    [
      'an encoding that is none',
      () =>
        server
          .api('post', '/investigations')
          .set('Content-Type', 'application/json')
          .set('Content-Encoding', 'pigeon')
          .send('{}'),
    ],
    [
      'a version beyond all numbers',
      () => server.api('put', `/investigations/${id}/workings`, { version: 1e15, workings: emptyWorkings }),
    ],
    ['a channel beyond all numbers', () => server.api('get', '/channels/99999999999999/values')],
    ['an index that is none', () => server.api('get', '/channels/1/values?from=-3')],
    [
      'JSON that is no object',
      () => server.api('post', '/investigations').set('Content-Type', 'application/json').send('3'),
    ],
  ])('%s is refused with a sentence', async (_, ask) => {
    const { status, body } = await ask();
    expect(status).toBeGreaterThanOrEqual(400);
    expect(status).toBeLessThan(500);
    expect(body.error.message.length).toBeGreaterThan(10);
  });
});

describe('other pages', () => {
  test.each([
    [{ Origin: 'http://127.0.0.1:1234' }],
    [{ 'Sec-Fetch-Site': 'same-site' }],
    [{ 'Sec-Fetch-Site': 'cross-site' }],
  ])(
    'on another port, said by %j, can neither sign anybody out nor read or copy anything',
    async (headers) => {
      const id = await newInvestigation();
      for (const [method, path] of [
        ['post', '/sign-out'],
        ['post', `/investigations/${id}/copy`],
        ['get', '/investigations'],
      ] as const) {
        const { status, body } = await server.api(method, path).set(headers);
        expect(status).toBe(403);
        expect(body.error.code).toBe('wrong-origin');
      }
      await server
        .api('get', '/me')
        .set({ 'Sec-Fetch-Site': 'same-origin', Origin: `http://127.0.0.1:${server.port}` })
        .expect(200);
    },
  );

  test('the cookie is named after the port, so that two servers on a machine do not share it', () =>
    expect(server.cookie).toMatch(new RegExp(`^heuristor-${server.port}=`)));
});

describe('documents of other formats', () => {
  const store = async (document: unknown) => {
    const id = await newInvestigation();
    await DocumentModel.query().where({ investigationId: id }).patch({ content: document });
    return server.api('get', `/investigations/${id}`);
  };
  test('workings of format 1 are brought into today’s', async () => {
    const { status, body } = await store(workings1);
    expect(status).toBe(200);
    expect(body.workings.entries.map(({ kind }: { kind: string }) => kind)).toEqual([
      'region',
      'derivative',
      'slope',
    ]);
    expect(body.workings.pages[0].panels.map(({ id }: { id: string }) => id)).toEqual([
      'channel:x',
      'entry:v',
    ]);
  });
  test.each([
    [{ format: 99, entries: [] }, 'were made by a newer Heuristor (format 99'],
    [
      { format: 2, entries: [{ kind: 'séance' }], horizontal: 't', traces: [] },
      'are damaged at entries.0.kind',
    ],
    [[1, 2], 'are damaged'],
  ])('%j answers with a sentence, and does not hide the list of investigations', async (document, words) => {
    const { status, body } = await store(document);
    expect(status).toBe(409);
    expect(body.error).toMatchObject({
      code: 'unreadable-document',
      message: expect.stringContaining(words),
    });
    await server.api('get', '/investigations').expect(200);
  });
});

test('parts of a plan that several screens change at the same moment are all changed', async () => {
  const id = await newInvestigation();
  for (let round = 1; round <= 5; round++) {
    const parts = [
      { end: { kind: 'after', seconds: round } },
      { times: round },
      { practice: round % 2 === 0 },
      { begin: { kind: 'countdown', seconds: round } },
    ];
    await Promise.all(
      parts.map((plan) => server.api('patch', `/investigations/${id}`, { plan }).expect(204)),
    );
    const { body } = await server.api('get', `/investigations/${id}`).expect(200);
    expect(body.plan).toMatchObject(Object.assign({}, ...parts) as object);
  }
});
