import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import {
  type GuideDocument,
  type GuideItem,
  type MadeParticipant,
  emptyGuide,
  emptyWorkings,
  noSetting,
} from '@heuristor/contracts';
import { importedRun } from './testing/importedRun';
import { TestScreen } from './testing/testScreen';
import { type Signed, type TestServer, startTestServer } from './testing/testServer';

let server: TestServer;
let id: string;
let run: string;
let channel: number;
let participant: Signed;
let screen: Signed;

beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  id = ((await server.api('post', '/investigations', { name: 'Springs' })).body as { id: string }).id;
  const made = await importedRun(id);
  run = made.id;
  channel = made.channels[0].id;
  [participant, screen] = [await letIn('participant'), await letIn('screen')];
});

const letIn = async (kind: 'participant' | 'screen') => {
  const { body } = await server.api('post', `/investigations/${id}/participants`, { name: 'Heron', kind });
  return server.signIn((body as MadeParticipant).token);
};
const asked = (itemId: string) => ({ id: itemId, title: itemId, text: '', isBefore: false });
const period: GuideItem = {
  kind: 'number',
  ...asked('period'),
  unit: 'ms',
  digits: { least: 3, most: 4 },
  tries: 3,
  right: { value: 942.7731, tolerance: 5.5519 },
};
const spring: GuideItem = {
  kind: 'choice',
  ...asked('spring'),
  options: ['softer', 'stiffer', 'neither'].map((key) => ({ key, text: key })),
  isMany: false,
  tries: 1,
  right: ['stiffer'],
};
const mean: GuideItem = {
  kind: 'result',
  ...asked('mean'),
  unit: 'cm',
  tries: 2,
  right: { value: 200.000_731, tolerance: 0.5519 },
};
const why: GuideItem = {
  kind: 'words',
  ...asked('why'),
  right: 'The cormorant answer: it pulls back harder.',
};
const guide: GuideDocument = {
  ...emptyGuide,
  items: [
    {
      kind: 'step',
      id: 's1',
      title: 'Hang the soft spring',
      text: 'Wait until it is *still*.',
      picture: 'spring',
      checks: [],
      setting: noSetting,
    },
    period,
    spring,
    mean,
    why,
  ],
};
const put = (who: Signed, document: GuideDocument, version = 1) =>
  who.api('put', `/investigations/${id}/guide`, { version, guide: document });
/** The teacher's own, which begins when it is first looked at. */
const write = async (document: GuideDocument) => {
  const { version } = (await server.api('get', `/investigations/${id}/guide`)).body as { version: number };
  await put(server, document, version).expect(200);
};
const read = async (who: Signed) =>
  ((await who.api('get', `/investigations/${id}/guide`).expect(200)).body as { guide: GuideDocument }).guide;
const check = (who: Signed, item: string, answer: object) =>
  who.api('post', `/investigations/${id}/guide/checks`, { item, answer });
const typed = (text: string) => ({ kind: 'number', text });
const chosen = (...keys: string[]) => ({ kind: 'choice', chosen: keys });

test('everybody reads what the teacher wrote; only the teacher changes it', async () => {
  await write(guide);
  expect(await read(server)).toEqual(guide);
  for (const who of [participant, screen]) {
    expect((await read(who)).items.map((item) => item.id)).toEqual(['s1', 'period', 'spring', 'mean', 'why']);
    const refused = await put(who, emptyGuide, 2).expect(403);
    expect(JSON.stringify(refused.body)).not.toContain('cormorant');
  }
  expect(await read(server)).toEqual(guide);
});

/** What only the teacher may know, however it is written. */
const secret = /942\.?7731|5\.?5519|200\.000731|cormorant|"right":\[|"right":\{/;

test('nothing that is right reaches who takes part, by any way there is, before it is released', async () => {
  await server.api('get', `/investigations/${id}/guide`);
  const streams = await Promise.all(
    [participant, screen].map((who) => TestScreen.open(server.port, { Cookie: who.cookie })),
  );
  for (const stream of streams)
    await new Promise<void>((heard) =>
      stream.say({ type: 'watch', investigations: [id], stage: null }, heard),
    );
  await write(guide);
  await check(participant, 'period', typed('900 ms')).expect(200);
  await check(participant, 'spring', chosen('softer')).expect(200);
  // Every address that can be read, as it stands in the routes.
  const folder = join(__dirname, 'routes');
  const source = readdirSync(folder).map((file) => [file, readFileSync(join(folder, file), 'utf8')] as const);
  const places: Record<string, string> = {
    'devices.ts': '/devices',
    'imports.ts': '/imports',
    'jobs.ts': '/jobs',
    'senml.ts': '/device-tokens',
    'signIn.ts': '',
    'templates.ts': '/templates',
  };
  const kinds = ['workings', 'trials', 'guide', 'values', 'times', 'gaps', 'noise'];
  const paths = source.flatMap(([file, text]) =>
    [...text.matchAll(/router\.get\(\s*[`']([^`']*)[`']/g)].flatMap(([, path]) => {
      const bases = places[file] === undefined ? ['/investigations', '/runs', '/channels'] : [places[file]];
      const ids: Record<string, string> = { '/runs': run, '/channels': String(channel) };
      return bases.flatMap((base) =>
        kinds.map(
          (kind) =>
            base +
            path
              .replace(/\$\{\w+\}/, kind)
              .replace(':id', ids[base] ?? id)
              .replace(/:\w+/g, 'x'),
        ),
      );
    }),
  );
  expect(paths).toContain(`/investigations/${id}/guide`);
  expect(paths).toContain(`/investigations/${id}/guide/standing`);
  let read200 = 0;
  for (const who of [participant, screen])
    for (const path of new Set(paths)) {
      const { status, text } = await who.api('get', path);
      if (status === 200) read200++;
      expect([path, secret.exec(text)?.[0]]).toEqual([path, undefined]);
    }
  expect(read200).toBeGreaterThan(10);
  for (const stream of streams) {
    await stream.until(({ messages }) => messages.some(({ type }) => type === 'document'), 'the new guide');
    expect(JSON.stringify(stream.messages)).not.toMatch(secret);
  }
  // The way is one that finds it: the teacher's own answer has it.
  expect(JSON.stringify(await read(server))).toMatch(secret);
  await write({ ...guide, isReleased: true });
  expect(JSON.stringify(await read(participant))).toMatch(secret);
});

test('an answer is checked as often as the teacher says, the same one once', async () => {
  await write(guide);
  const found = async (text: string) =>
    (await check(participant, 'period', typed(text)).expect(200)).body as object;
  expect(await found('900 ms')).toEqual({ isRight: false, says: '', left: 2 });
  expect(await found('900 ms')).toEqual({ isRight: false, says: '', left: 2 });
  expect(await found('0.9 s')).toEqual({ isRight: false, says: '', left: 1 });
  expect(await found('0,943 s')).toEqual({ isRight: true, says: '', left: 0 });
  const refused = await check(participant, 'period', typed('944 ms')).expect(429);
  expect(refused.body).toMatchObject({
    error: { message: 'This was checked as often as your teacher allows.' },
  });
  // What was found stays known; somebody else has tries of his own.
  expect(await found('0,943 s')).toMatchObject({ isRight: true, left: 0 });
  const standing = await participant.api('get', `/investigations/${id}/guide/standing`);
  expect(standing.body).toEqual({
    mayWrite: false,
    checked: [{ item: 'period', isRight: true, says: '', left: 0, answer: typed('0,943 s') }],
  });
  await check(await letIn('participant'), 'period', typed('944 ms')).expect(200);
  await check(screen, 'period', typed('944 ms')).expect(403);
});

test('twenty who ask at the same moment as one are told no more than he may ask', async () => {
  await write(guide);
  const answers = await Promise.all(
    Array.from({ length: 20 }, (_, i) => check(participant, 'period', typed(`${930 + i} ms`))),
  );
  expect(answers.filter(({ status }) => status === 200)).toHaveLength(3);
  expect(answers.filter(({ status }) => status === 429)).toHaveLength(17);
});

test.each<[string, string, object, string]>([
  [
    'words for a number',
    'period',
    typed('about a second'),
    '“about a second” is no number. Type one like 1.25 ms.',
  ],
  [
    'another quantity',
    'period',
    typed('94 cm'),
    '“cm” measures something else. It is expected in ms or the like.',
  ],
  ['no unit', 'period', typed('943'), 'Type the unit too, such as ms.'],
  ['an answer to another question', 'period', chosen('stiffer'), 'This is no answer to that question.'],
  ['a step', 's1', chosen('x'), 'Answers to this question are checked once your teacher releases them.'],
  [
    'a question that is not there',
    'q9',
    chosen('x'),
    'There is no such question in the guide. It may have been removed.',
  ],
])('%s is no try, and says what would be right', async (_, item, answer, says) => {
  await write(guide);
  const refused = await check(participant, item, answer);
  expect(refused.body).toMatchObject({ error: { message: says } });
  expect((await check(participant, 'period', typed('1 ms'))).body).toMatchObject({ left: 2 });
});

test('a right value with too many digits is told what is missing', async () => {
  await write(guide);
  expect((await check(participant, 'period', typed('942.77 ms'))).body).toMatchObject({
    isRight: false,
    says: 'The value is right. Write it with 3 to 4 significant digits; this has 5.',
  });
});

test('a result is checked by what the own workings say of the run, in any unit', async () => {
  await write(guide);
  const { version, workings } = (await participant.api('get', `/investigations/${id}/workings`)).body as {
    version: number;
    workings: typeof emptyWorkings;
  };
  const entry = { kind: 'statistics', id: 'm', name: '', of: 'channel:x', region: null };
  await participant
    .api('put', `/investigations/${id}/workings`, { version, workings: { ...workings, entries: [entry] } })
    .expect(200);
  const answer = (key: string, of = run) => ({ kind: 'result', run: of, entry: 'm', key, then: 'typed' });
  // 1, 2 and 3 m.
  expect((await check(participant, 'mean', answer('mean'))).body).toMatchObject({ isRight: true, left: 1 });
  expect((await check(participant, 'mean', answer('max'))).body).toMatchObject({
    isRight: false,
    left: 0,
  });
  // The teacher has another sheet, on which there is no such result.
  expect((await check(server, 'mean', answer('mean'))).status).toBe(404);
});

test('once it is released, everybody asks as often as he likes; a question without tries waits for that', async () => {
  await write({ ...guide, items: [{ ...spring, tries: 0 } as GuideItem] });
  await check(participant, 'spring', chosen('stiffer')).expect(403);
  await write({ ...guide, isReleased: true, items: [{ ...spring, tries: 0 } as GuideItem] });
  for (const key of ['softer', 'neither', 'stiffer'])
    expect((await check(participant, 'spring', chosen(key))).body).toEqual({
      isRight: key === 'stiffer',
      says: '',
      left: null,
    });
});

test('a copy of the investigation has the guide, and a template keeps it with what is right', async () => {
  await write(guide);
  const { body } = await server.api('post', `/investigations/${id}/copy`);
  const copy = (body as { id: string }).id;
  expect((await server.api('get', `/investigations/${copy}/guide`)).body).toMatchObject({ guide });
  const template = {
    name: 'Springs',
    about: '',
    channels: [],
    conditions: [],
    workings: emptyWorkings,
    guide,
  };
  await server.api('post', '/templates', template).expect(201);
  expect((await server.api('get', '/templates')).body).toMatchObject([{ guide }]);
  await participant.api('get', '/templates').expect(403);
});
