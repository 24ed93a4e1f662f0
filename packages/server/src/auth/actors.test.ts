import { type Investigation, type MadeParticipant, emptyWorkings } from '@heuristor/contracts';
import { PersonModel } from '../models/person';
import { importedRun } from '../testing/importedRun';
import { type Signed, type TestServer, startTestServer } from '../testing/testServer';
import { TestScreen } from '../testing/testScreen';
import { issueLinkToken, onlySchool } from './signIn';

let server: TestServer;
/** An investigation of the teacher with a run, and one that nobody else is let into. */
let investigation: string;
let other: string;
let run: string;
let channel: number;
let participant: Signed & { id: string };
let screen: Signed;
let colleague: Signed;

const created = async (name: string) =>
  ((await server.api('post', '/investigations', { name }).expect(201)).body as { id: string }).id;
const letIn = async (name: string, kind: 'participant' | 'screen') => {
  const answer = await server
    .api('post', `/investigations/${investigation}/participants`, { name, kind })
    .expect(201);
  const { id, token } = answer.body as MadeParticipant;
  return { id, token, ...(await server.signIn(token)) };
};
const opened = async (who: Signed) =>
  (await who.api('get', `/investigations/${investigation}`).expect(200)).body as Investigation;

beforeAll(async () => {
  server = await startTestServer();
  [investigation, other] = [await created('Shared'), await created('Own')];
  const added = await importedRun(investigation);
  [run, channel] = [added.id, added.channels[0].id];
  participant = await letIn('Heron', 'participant');
  screen = await letIn('Projector', 'screen');
  const { id } = await PersonModel.query().insertAndFetch({
    name: 'Colleague',
    schoolId: (await onlySchool()).id,
  });
  // As an invitation will make it: a link of another teacher.
  const { SignInModel } = await import('../models/signIn');
  const { hashOf } = await import('./signIn');
  await SignInModel.query().insert({
    tokenHash: hashOf('link of the colleague'),
    personId: id,
    kind: 'link',
    expiresAt: new Date(Date.now() + 60_000),
  });
  colleague = await server.signIn('link of the colleague');
}, 30_000);
afterAll(() => server.close());

test('everybody is told who they are', async () => {
  const me = async (who: Signed) => (await who.api('get', '/me').expect(200)).body as { kind: string };
  expect(await me(server)).toMatchObject({ kind: 'teacher' });
  expect(await me(participant)).toMatchObject({ kind: 'participant', name: 'Heron' });
  expect(await me(screen)).toMatchObject({ kind: 'screen', name: 'Projector' });
});

test('a token lets in as often as it is shown, a link once; who was removed is shut out at once', async () => {
  const { id, token } = await letIn('Tern', 'participant');
  for (let i = 0; i < 2; i++)
    await (await server.signIn(token)).api('get', `/investigations/${investigation}`).expect(200);
  const link = await issueLinkToken();
  await server.anonymous.post('/api/sign-in').send({ token: link }).expect(204);
  await server.anonymous.post('/api/sign-in').send({ token: link }).expect(401);
  const before = await server.signIn(token);
  const stream = await TestScreen.open(server.port, { Cookie: before.cookie });
  await server.api('delete', `/investigations/${investigation}/participants/${id}`).expect(204);
  await before.api('get', '/me').expect(401);
  await stream.until(({ ended }) => ended !== null, 'its end');
  const listed = await server.api('get', `/investigations/${investigation}/participants`).expect(200);
  expect((listed.body as { name: string }[]).map(({ name }) => name)).toEqual(['Heron', 'Projector']);
});

test.each<[string, () => Signed]>([
  ['a participant', () => participant],
  ['a screen', () => screen],
])('%s sees the one investigation and no other', async (_, who) => {
  const list = await who().api('get', '/investigations').expect(200);
  expect(list.body).toMatchObject({ total: 1, investigations: [{ id: investigation }] });
  await who().api('get', `/investigations/${other}`).expect(404);
  await who().api('get', `/runs/${run}`).expect(200);
  await who().api('get', `/channels/${channel}/values`).expect(200);
  expect((await opened(who())).runs.map(({ id }) => id)).toEqual([run]);
});

test('what was removed is listed for its owner alone', async () => {
  await server.api('delete', `/investigations/${investigation}`).expect(204);
  const listed = async (who: Signed | typeof server) =>
    ((await who.api('get', '/investigations?of=removed').expect(200)).body as { total: number }).total;
  expect(await listed(server)).toBe(1);
  for (const who of [participant, screen, colleague]) expect(await listed(who)).toBe(0);
  await server.api('post', `/investigations/${investigation}/restore`).expect(204);
});

test('another teacher of the school sees nothing of it, and is not told that it is there', async () => {
  expect((await colleague.api('get', '/investigations').expect(200)).body).toMatchObject({ total: 0 });
  for (const path of [`/investigations/${investigation}`, `/runs/${run}`, `/channels/${channel}/values`])
    await colleague.api('get', path).expect(404);
  await colleague.api('patch', `/runs/${run}`, { name: 'mine now' }).expect(404);
  await colleague.api('delete', `/investigations/${investigation}`).expect(404);
  await colleague.api('post', `/investigations/${investigation}/recording`).expect(404);
  await colleague.api('put', `/investigations/${investigation}/sensors/K7-D`).expect(404);
});

const forbidden: [method: 'post' | 'put' | 'patch' | 'delete', path: () => string, body?: object][] = [
  ['post', () => '/investigations', { name: 'mine' }],
  ['patch', () => `/investigations/${investigation}`, { name: 'mine' }],
  ['delete', () => `/investigations/${investigation}`],
  ['post', () => `/investigations/${investigation}/copy`],
  ['post', () => `/investigations/${investigation}/recording`],
  ['delete', () => `/investigations/${investigation}/recording`],
  ['post', () => `/investigations/${investigation}/imports?name=x`],
  ['post', () => `/investigations/${investigation}/participants`, { name: 'x', kind: 'screen' }],
  ['put', () => `/investigations/${investigation}/sensors/K7-D`],
  ['patch', () => `/runs/${run}`, { name: 'x' }],
  ['post', () => '/devices/K7-D/zero', {}],
  ['post', () => '/device-tokens', { name: 'x' }],
  [
    'post',
    () => '/templates',
    { name: 'x', about: '', channels: [], conditions: [], workings: emptyWorkings },
  ],
];

test('who takes part changes nothing but a sheet of his own', async () => {
  for (const [method, path, body] of forbidden)
    for (const who of [participant, screen]) {
      const { status, body: said } = await who.api(method, path(), body);
      expect([method, path(), status]).toEqual([method, path(), 403]);
      expect(said).toMatchObject({ error: { code: 'not-allowed' } });
    }
});

test('who takes part begins with the sheet that stands there, and goes on with one of his own', async () => {
  const before = await opened(server);
  const own = await opened(participant);
  expect(own.workings).toEqual(before.workings);
  expect(own.workingsOwner).toBe(participant.id);
  expect(before.workingsOwner).not.toBe(participant.id);
  const [mine, theirs] = await Promise.all(
    [server, participant].map((who) => TestScreen.open(server.port, { Cookie: who.cookie })),
  );
  for (const one of [mine, theirs])
    await new Promise<void>((heard) =>
      one.say({ type: 'watch', investigations: [investigation], stage: null }, heard),
    );
  // What he hides, he hides for himself.
  const workings = { ...emptyWorkings, shifts: [{ run, by: 0.25 }], runs: [{ run, hidden: true as const }] };
  const path = `/investigations/${investigation}/workings`;
  await participant.api('put', path, { version: own.workingsVersion, workings }).expect(200);
  expect((await opened(participant)).workings.shifts).toEqual([{ run, by: 0.25 }]);
  const alone = await participant.api('get', path).expect(200);
  expect(alone.body).toEqual({ version: own.workingsVersion + 1, workings });
  expect(await opened(server)).toMatchObject({
    workings: before.workings,
    workingsVersion: before.workingsVersion,
  });
  // Screens hear whose it is, so that nobody takes it for his own.
  for (const one of [mine, theirs]) {
    await one.until((stream) => stream.heard('document').length > 0, 'word of the sheet');
    expect(one.heard('document')).toMatchObject([{ kind: 'workings', owner: participant.id }]);
  }
  // A screen shows what the owner sees, and changes nothing.
  expect((await opened(screen)).workingsOwner).toBe(before.workingsOwner);
  await screen.api('put', path, { version: before.workingsVersion, workings }).expect(403);
});

test('the stream tells sensors to screens of the school, and an investigation to those who may see it', async () => {
  const streams = await Promise.all(
    [server, screen, participant].map((who) => TestScreen.open(server.port, { Cookie: who.cookie })),
  );
  for (const stream of streams)
    await stream.until((one) => one.heard('storage').length > 0, 'its first message');
  expect(streams.map((stream) => stream.heard('devices').length)).toEqual([1, 1, 0]);
  const stranger = await TestScreen.open(server.port, { Cookie: colleague.cookie });
  await new Promise<void>((heard) =>
    stranger.say({ type: 'watch', investigations: [investigation, other], stage: null }, heard),
  );
  await server.api('patch', `/investigations/${investigation}`, { name: 'Shared by two' }).expect(204);
  await colleague.api('get', '/me').expect(200);
  expect(stranger.heard('plan')).toEqual([]);
});

test('a file that somebody brings in is nobody else’s, nor is the word of it', async () => {
  const [mine, theirs] = await Promise.all(
    [server, colleague].map((who) => TestScreen.open(server.port, { Cookie: who.cookie })),
  );
  const answer = await server
    .api('post', `/investigations/${investigation}/imports?name=x`, 't (s),x (m)\n0,1\n1,2\n2,3\n')
    .set('Content-Type', 'text/csv')
    .expect(202);
  const { id } = answer.body as { id: string };
  await mine.until((stream) => stream.heard('import').length > 0, 'word of the file');
  await colleague.api('get', `/imports/${id}`).expect(404);
  await colleague.api('delete', `/imports/${id}`).expect(404);
  expect(theirs.heard('import')).toEqual([]);
  await server.api('delete', `/imports/${id}`).expect(204);
});
