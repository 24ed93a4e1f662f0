import { request as httpRequest } from 'node:http';
import { type Import, type Investigation, type Run } from '@heuristor/contracts';
import { StoredFileModel } from '../models/storedFile';
import { StoredPartModel } from '../models/storedPart';
import { newBench, until, valuesOf } from '../testing/bench';
import { type TestServer, newDatabase, startTestServer } from '../testing/testServer';

let address: string;
let server: TestServer;
beforeAll(async () => {
  address = await newDatabase();
  server = await startTestServer(undefined, address);
});
afterAll(() => server.close());

describe('files', () => {
  const send = async (
    text: string | Buffer,
  ): Promise<{ id: string; state: Import['state']; investigation: string }> => {
    const investigation = await newBench(server, null);
    const { body } = await server
      .api('post', `/investigations/${investigation}/imports?name=table`)
      .set('Content-Type', 'application/octet-stream')
      .send(text)
      .expect(202);
    return { id: body.id, state: await settled(body.id), investigation };
  };
  const settled = async (id: string): Promise<Import['state']> => {
    for (;;) {
      const { body } = await server.api('get', `/imports/${id}`).expect(200);
      if (body.state.kind !== 'reading') return body.state as Import['state'];
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  };
  const kept = async (text: string | Buffer): Promise<Run[]> => {
    const { id, state, investigation } = await send(text);
    expect(state.kind).toBe('ready');
    await server.api('post', `/imports/${id}/keep`).expect(201);
    const { body } = await server.api('get', `/investigations/${investigation}`);
    return (body as Investigation).runs;
  };
  const values = (id: number, what?: 'times') => valuesOf(server, id, what);

  test('are shown before anything is stored: encoding, separator, decimal sign, rows, first readings', async () => {
    const { state, investigation } = await send(
      Buffer.from('t / ms;F / µN\n0;0,5\n20;0,75\n50;1,0E0\n', 'latin1'),
    );
    expect(state).toMatchObject({
      kind: 'ready',
      encoding: 'Windows-1252 (Latin-1)',
      separator: 'semicolon',
      decimal: ',',
      rows: 3,
      runs: [
        {
          name: 'table',
          channels: [{ name: 'F', unit: 'uN', count: 3, against: 'time, irregular', first: [0.5, 0.75, 1] }],
        },
      ],
    });
    expect((await server.api('get', `/investigations/${investigation}`)).body.runs).toEqual([]);
  });

  test('dates and times of a clock become the time of the run, which keeps its instant and its zone', async () => {
    const text =
      'at;T / °C\n25.10.2026 01:30;20,5\n25.10.2026 02:30;20,4\n25.10.2026 02:30;20,3\n25.10.2026 03:30;NA\n';
    const investigation = await newBench(server, null);
    const { body } = await server
      .api('post', `/investigations/${investigation}/imports?name=night&zone=Europe/Berlin`)
      .set('Content-Type', 'application/octet-stream')
      .send(text)
      .expect(202);
    const state = await settled(body.id);
    expect(state).toMatchObject({ kind: 'ready', runs: [{ begins: '2026-10-24T23:30:00.000Z' }] });
    await server.api('post', `/imports/${body.id}/keep`).expect(201);
    const { runs } = (await server.api('get', `/investigations/${investigation}`)).body as Investigation;
    expect(runs[0]).toMatchObject({ startedAt: '2026-10-24T23:30:00.000Z', timeZone: 'Europe/Berlin' });
    // The clock shows half past two twice in that night.
    expect(runs[0].channels[0].sampling).toEqual({ kind: 'regular', start: 0, interval: 3600 });
    expect(await values(runs[0].channels[0].id)).toEqual([20.5, 20.4, 20.3, NaN]);
  });

  test('a first column of time becomes the time of the run, in seconds', async () => {
    const [{ channels }] = await kept('t / ms;F / N\n0;0,5\n20;0,75\n50;1,0E0\n');
    expect(channels).toHaveLength(1);
    expect(channels[0]).toMatchObject({ key: 'F', unit: 'N', timeUnit: 's', sampling: { kind: 'timed' } });
    expect(await values(channels[0].id)).toEqual([0.5, 0.75, 1]);
    expect(await values(channels[0].id, 'times')).toEqual([0, 0.02, 0.05]);
  });

  test('columns without time are numbered readings', async () => {
    const [{ channels }] = await kept('x,y\n0.2,0.1\n337.4,338.8\n');
    expect(channels.map(({ key, timeUnit }) => [key, timeUnit])).toEqual([
      ['x', '1'],
      ['y', '1'],
    ]);
  });

  test('two runs side by side become two runs', async () => {
    const runs = await kept('a: t / s,a: x / m,b: t / s,b: x / m\n0,1,0,2\n1,1,1,2\n2,1,,\n');
    expect(runs.map(({ name }) => name)).toEqual(['a', 'b']);
    expect(await values(runs[1].channels[0].id)).toEqual([2, 2]);
  });

  test('what is ambiguous is asked, and read again with the answer', async () => {
    const { id, state } = await send('a;b\n1,234;2\n');
    expect(state).toMatchObject({ kind: 'question', example: '1,234' });
    await server.api('post', `/imports/${id}/answer`, { decimal: '.' }).expect(200);
    expect(await settled(id)).toMatchObject({
      kind: 'ready',
      runs: [{ channels: [{ first: [1234] }, { first: [2] }] }],
    });
  });

  test('names and units that were mended in the preview are those of the run; the numbers stay', async () => {
    const { id, investigation } = await send('t / s,F / Newton,x\n0,1.5,2\n1,2.5,4\n');
    await server
      .api('post', `/imports/${id}/keep`, {
        runs: [
          {
            name: ' tow line ',
            channels: [
              { name: 'F', unit: 'N' },
              { name: ' s ', unit: 'cm' },
            ],
          },
        ],
      })
      .expect(201);
    const { body } = await server.api('get', `/investigations/${investigation}`);
    const [run] = (body as Investigation).runs;
    expect(run.name).toBe('tow line');
    expect(run.channels.map(({ key, symbol, unit }) => [key, symbol, unit])).toEqual([
      ['F', 'F', 'N'],
      ['s', 's', 'cm'],
    ]);
    expect(await values(run.channels[1].id)).toEqual([2, 4]);
  });

  test.each([
    [
      'two columns of one name',
      [
        {
          name: 'a',
          channels: [
            { name: 'x', unit: '' },
            { name: 'x', unit: '' },
          ],
        },
      ],
      /Two columns of “a” are called x/,
    ],
    [
      'another number of columns',
      [{ name: 'a', channels: [{ name: 'x', unit: '' }] }],
      /belong to another file/,
    ],
    ['another number of runs', [], /belong to another file/],
    [
      'no name',
      [
        {
          name: ' ',
          channels: [
            { name: 'x', unit: '' },
            { name: 'y', unit: '' },
          ],
        },
      ],
      /at least one character/,
    ],
    [
      'a name without letters',
      [
        {
          name: 'a',
          channels: [
            { name: ' ', unit: '' },
            { name: 'y', unit: '' },
          ],
        },
      ],
      /a column needs a name/,
    ],
    [
      'NUL',
      [
        {
          name: 'a',
          channels: [
            { name: 'x\u0000', unit: '' },
            { name: 'y', unit: '' },
          ],
        },
      ],
      /NUL/,
    ],
    [
      'an endless unit',
      [
        {
          name: 'a',
          channels: [
            { name: 'x', unit: 'm'.repeat(500) },
            { name: 'y', unit: '' },
          ],
        },
      ],
      /60 letters/,
    ],
  ])('%s for a file are refused in words, and the file can still be kept', async (_, runs, sentence) => {
    const { id, investigation } = await send('x,y\n1,2\n3,4\n');
    const { body } = await server.api('post', `/imports/${id}/keep`, { runs }).expect(400);
    expect(body.error.message).toMatch(sentence);
    expect((await server.api('get', `/investigations/${investigation}`)).body.runs).toEqual([]);
    await server.api('post', `/imports/${id}/keep`).expect(201);
  });

  test('a file that is given up is gone', async () => {
    const { id } = await send('a;b\n1;2\n');
    await server.api('delete', `/imports/${id}`).expect(204);
    await server.api('get', `/imports/${id}`).expect(404);
    await server.api('post', `/imports/${id}/keep`).expect(404);
  });

  test('files whose pages are gone hold no place for ever: the one left alone for longest makes room', async () => {
    const leftAloneFor = (minutes: number) =>
      StoredFileModel.query().patch({ touchedAt: new Date(Date.now() - minutes * 60_000) });
    // Whatever others have left open makes room for these.
    await leftAloneFor(2);
    const sent = [];
    for (let i = 0; i < 8; i++) sent.push((await send('a;b\n1;2\n')).id);
    const ninth = `/investigations/${await newBench(server, null)}/imports?name=ninth`;
    await server
      .api('post', ninth)
      .set('Content-Type', 'application/octet-stream')
      .send('a\n1\n')
      .expect(429);
    // A minute and more later.
    await leftAloneFor(2);
    await leftAloneFor(3).findById(sent[0]);
    const { id } = await send('a;b\n1;2\n');
    await server.api('get', `/imports/${sent[0]}`).expect(404);
    for (const one of [...sent.slice(1), id]) await server.api('delete', `/imports/${one}`).expect(204);
  });

  test.each([
    ['t / s,x / m\n0,1\n1,zwei\n', 'Row 3, column 2 (x): “zwei” is not a number'],
    ['t / s,x / m\n0,1\n0,2\n', 'not after the one before'],
    ['t / s,x / m\n0,1\n,2\n', 'The time in reading 2 is missing'],
    [',,,\n', 'holds no numbers'],
    ['a,b\n1,\u00002\n', 'This is no text file'],
  ])('a wrong file %j is refused with the place', async (text, words) => {
    const { state } = await send(text);
    expect(state).toMatchObject({ kind: 'refused', sentence: expect.stringContaining(words) });
  });
});

describe('while a file is brought in', () => {
  const stored = () => StoredFileModel.query().resultSize();
  const bytes = Buffer.from(
    `t / s;x / m\n${Array.from({ length: 200_000 }, (_, i) => `${i};${i / 8}`).join('\n')}\n`,
  );
  const sent = async () => {
    const investigation = await newBench(server, null);
    const { body } = await server
      .api('post', `/investigations/${investigation}/imports?name=table`)
      .set('Content-Type', 'application/octet-stream')
      .send(bytes)
      .expect(202);
    return { investigation, id: body.id as string };
  };
  const settled = (id: string) =>
    until(
      async () => (await server.api('get', `/imports/${id}`).expect(200)).body as Import,
      ({ state }) => state.kind !== 'reading',
    );

  test('its bytes lie in the database, and go when it is given up, or has become runs', async () => {
    const before = await stored();
    const [given, kept] = [await sent(), await sent()];
    expect(await stored()).toBe(before + 2);
    const parts = await StoredPartModel.query().where({ fileId: kept.id }).orderBy('part');
    expect(Buffer.concat(parts.map((part) => part.bytes)).equals(bytes)).toBe(true);
    expect(parts.length).toBeGreaterThan(1);
    await settled(kept.id);
    await server.api('post', `/imports/${kept.id}/keep`).expect(201);
    await server.api('delete', `/imports/${given.id}`).expect(204);
    expect(await stored()).toBe(before);
    expect(await StoredPartModel.query().whereIn('fileId', [given.id, kept.id]).resultSize()).toBe(0);
  });

  test('one that breaks off in the middle leaves nothing', async () => {
    const investigation = await newBench(server, null);
    const before = await stored();
    const request = httpRequest({
      port: server.port,
      host: '127.0.0.1',
      method: 'POST',
      path: `/api/investigations/${investigation}/imports?name=half`,
      headers: { Cookie: server.cookie, 'Content-Type': 'application/octet-stream', 'Content-Length': 1e8 },
    });
    request.on('error', () => undefined);
    request.write(bytes);
    await until(stored, (count) => count === before + 1);
    request.destroy();
    await until(stored, (count) => count === before);
  });

  test('the server is started anew: it is read once more as it was, and can be kept', async () => {
    const { investigation, id } = await sent();
    expect((await settled(id)).state).toMatchObject({ kind: 'ready', decimal: '.' });
    await server.api('post', `/imports/${id}/answer`, {
      layout: { axis: { kind: 'rate', hertz: 4 }, without: [0] },
    });
    await settled(id);
    const { cookie } = server;
    await server.close();
    server = await startTestServer(undefined, address);
    const asOne = (method: 'get' | 'post', path: string) =>
      server.anonymous[method](`/api${path}`).set(
        'Cookie',
        cookie.replace(/^[^=]*/, server.cookie.split('=')[0]),
      );
    const again = await until(
      async () => (await asOne('get', `/imports/${id}`).expect(200)).body as Import,
      ({ state }) => state.kind !== 'reading',
    );
    expect(again.state).toMatchObject({
      kind: 'ready',
      rows: 200_000,
      runs: [{ channels: [{ name: 'x' }] }],
    });
    await asOne('post', `/imports/${id}/keep`).expect(201);
    const { runs } = (await asOne('get', `/investigations/${investigation}`)).body as Investigation;
    expect(runs[0].channels[0].sampling).toEqual({ kind: 'regular', start: 0, interval: 0.25 });
    const values = await valuesOf(server, runs[0].channels[0].id);
    expect([values.length, values[1], values[199_999]]).toEqual([200_000, 1 / 8, 199_999 / 8]);
  });
});
