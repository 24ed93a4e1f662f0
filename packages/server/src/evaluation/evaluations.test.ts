import {
  type MadeParticipant,
  type WorkingsDocument,
  channelOf,
  emptyWorkings,
  outcomesOfRunsSchema,
  storedEvaluationSchema,
  usualPlan,
} from '@heuristor/contracts';
import {
  type Entry,
  type OpenedResult,
  type StoredEvaluation,
  covarianceOf,
  evaluate,
  normalRandom,
  openedEvaluation,
  parseUnit,
  regular,
} from '@heuristor/core';
import { EvaluationModel } from '../models/evaluation';
import { BlockModel } from '../models/block';
import { RunModel } from '../models/run';
import { type NewRun, addRun, endRun } from '../services/runs';
import { addRows } from '../services/spots';
import { bytesOf, writeSamples } from '../services/samples';
import { type Signed, type TestServer, startTestServer } from '../testing/testServer';

const interval = 0.01;
const zero = 0.02;
const count = 3000;

let server: TestServer;
let investigation: string;
let participant: Signed & { id: string };
let version = 1;
/** Two runs under one zero of the sensor, each with its readings. */
const runs: { id: string; values: Float64Array }[] = [];

const on = { region: null } as const;
const entries: Entry[] = [
  {
    kind: 'constant',
    id: 'm',
    name: 'm',
    value: 0.5,
    uncertainty: 0.001,
    unit: 'kg',
    source: '',
    ends: '',
    shift: 0,
  },
  { kind: 'statistics', id: 'f', name: 'f', of: 'channel:F', ...on },
  { kind: 'slope', id: 's', name: 's', of: 'channel:F', against: 't', ...on },
  { kind: 'calculation', id: 'a', name: 'a', formula: { text: 'f/m', names: {} }, unit: '' },
];

const asked = async (who: Signed, run: string, query = '', status = 200): Promise<StoredEvaluation> => {
  const { body } = await who.api('get', `/runs/${run}/outcomes${query}`).expect(status);
  return status === 200 ? storedEvaluationSchema.parse(body) : (body as StoredEvaluation);
};
const resultOf = (evaluation: StoredEvaluation, entry: string, field: string): OpenedResult => {
  const found = openedEvaluation(evaluation).find((one) => one.entry === entry && one.field === field);
  if (found === undefined) throw new Error(`no ${field} of ${entry}`);
  return found;
};
const writeSheet = async (changed: Entry[], choices: WorkingsDocument['runs'] = []) => {
  const workings: WorkingsDocument = { ...emptyWorkings, entries: changed, runs: choices };
  const { body } = await server
    .api('put', `/investigations/${investigation}/workings`, { version, workings })
    .expect(200);
  ({ version } = body as { version: number });
};
const madeAt = async (run: string) =>
  (await EvaluationModel.query().where({ runId: run }).first().throwIfNotFound()).madeAt.getTime();

/** A force against time, or by the number of its readings. */
const force = (timeUnit: 's' | '1') =>
  channelOf({
    key: 'F',
    quantity: 'force',
    unit: 'N',
    timeUnit,
    sampling:
      timeUnit === 's' ? { kind: 'regular', start: 0, interval } : { kind: 'regular', start: 1, interval: 1 },
  });
/** A run of the investigation. */
const newRun = (more: Pick<NewRun, 'channels'> & Partial<NewRun>) =>
  addRun({ investigationId: investigation, origin: 'recorded', state: 'ended', plan: usualPlan, ...more });

beforeAll(async () => {
  server = await startTestServer();
  investigation = ((await server.api('post', '/investigations', { name: 'Pull' })).body as { id: string }).id;
  for (const seed of [1, 2]) {
    const normal = normalRandom(seed);
    const values = Float64Array.from(
      { length: count },
      (_, i) => 2 + 0.01 * seed * i * interval + 0.05 * normal(),
    );
    const run = await newRun({
      channels: [
        {
          ...force('s'),
          deviceCode: 'K7-F',
          applied: {
            scale: 1,
            offset: 0,
            range: 'usual',
            reversed: false,
            numbers: {},
            zero: { offset: 0.3, spread: 0.05, at: '2026-11-29T10:00:00.000Z', uncertainty: zero },
            twoPoint: null,
            zeroedAtStart: false,
          },
        },
      ],
    });
    await writeSamples(run.channels[0].id, values, null);
    runs.push({ id: run.id, values });
  }
  await writeSheet(entries);
  const { id, token } = (
    await server
      .api('post', `/investigations/${investigation}/participants`, { name: 'Heron', kind: 'participant' })
      .expect(201)
  ).body as MadeParticipant;
  participant = { id, ...(await server.signIn(token)) };
}, 60_000);
afterAll(() => server.close());

test('a run that no screen shows is worked out, as the core says', async () => {
  const [{ id, values }] = runs;
  await writeSheet(entries, [{ run: id, hidden: true }]);
  const evaluation = await asked(server, id);
  const { outcomes } = evaluate(
    { entries },
    {
      id,
      channels: [
        {
          key: 'F',
          symbol: 'F',
          quantity: 'force',
          unit: parseUnit('N'),
          timeUnit: parseUnit('s'),
          sampling: regular(0, interval, count),
          values,
          low: null,
          high: null,
          noise: null,
          systematic: [
            { root: 'zero/K7-F/F/2026-11-29T10:00:00.000Z', label: 'zero of F', offset: zero, perUnit: 0 },
          ],
        },
      ],
    },
  );
  const mean = outcomes.get('f');
  if (mean?.kind !== 'results') throw new Error('no mean');
  const [own] = mean.results;
  const { quantity } = resultOf(evaluation, 'f', 'mean');
  expect(quantity.value).toBe(own.quantity.value);
  expect(quantity.standardUncertainty).toBe(own.quantity.standardUncertainty);
  // The mean of n readings that scatter by s, under a zero: √(s²/n + u²), JCGM 100:2008, 4.2.3 and 5.1.2.
  expect(quantity.standardUncertainty).toBeCloseTo(Math.hypot(0.05 / Math.sqrt(count), zero), 3);
  expect(JSON.stringify(evaluation).length).toBeLessThan(50_000);
});

test('results of two runs share their zero and the typed constant, through storage', async () => {
  for (const { id } of runs) await asked(server, id);
  const kept = await Promise.all(runs.map(({ id }) => asked(server, id)));
  const [one, two] = kept.map((evaluation) => resultOf(evaluation, 'f', 'mean').quantity);
  expect(covarianceOf(one, two)).toBeCloseTo(zero ** 2, 15);
  const [a, b] = kept.map((evaluation) => resultOf(evaluation, 'a', 'value').quantity);
  // a = f/m: the zero by 1/m in each, and m by −f/m² in each.
  const byZero = (zero / 0.5) ** 2;
  const byMass = (one.value / 0.25) * 0.001 * (two.value / 0.25) * 0.001;
  expect(covarianceOf(a, b) / (byZero + byMass)).toBeCloseTo(1, 9);
  expect(kept[0].shared.map(({ label }) => label).sort()).toEqual(['m', 'zero of F']);
});

test('what was worked out is kept as long as what it depends on stands', async () => {
  const [{ id }] = runs;
  await asked(server, id);
  const first = await madeAt(id);
  await asked(server, id);
  expect(await madeAt(id)).toBe(first);
  // Another constant: the mean does not depend on it, what is worked out from it does.
  await writeSheet(entries.map((entry) => (entry.id === 'm' ? ({ ...entry, value: 0.25 } as Entry) : entry)));
  const mean = await asked(server, id, '?entries=f,s');
  expect(await madeAt(id)).toBe(first);
  expect(Object.keys(mean.sheets[0])).toEqual(['f', 's']);
  const both = await asked(server, id);
  expect(await madeAt(id)).toBeGreaterThan(first);
  expect(resultOf(both, 'a', 'value').quantity.value).toBeCloseTo(
    resultOf(both, 'f', 'mean').quantity.value / 0.25,
    12,
  );
  expect(resultOf(both, 'f', 'mean').quantity.value).toBe(resultOf(mean, 'f', 'mean').quantity.value);
  // What counts of the readings, and what the run was said to be, decide too.
  const second = await madeAt(id);
  await writeSheet(entries);
  await asked(server, id);
  const third = await madeAt(id);
  await writeSheet(entries, [{ run: id, keepPinned: true }]);
  await asked(server, id);
  expect(third).toBeGreaterThan(second);
  expect(await madeAt(id)).toBeGreaterThan(third);
  await writeSheet(entries);
});

test.each([
  ['that goes on', 'recorded', 'recording'],
  ['of which more is fetched', 'away', 'fetching'],
] as const)('a run %s is evaluated as far as it has come', async (_, origin, state) => {
  const { rows } = (await RunModel.knex().raw('select id from server_process')) as { rows: { id: string }[] };
  const run = await newRun({ origin, state, recordedBy: rows[0].id, channels: [force('s')] });
  const [{ id: channelId }] = run.channels;
  const mean = async () => resultOf(await asked(server, run.id, '?entries=f'), 'f', 'mean').quantity.value;
  const more = (sequence: number, value: number) =>
    BlockModel.query().insert({
      channelId,
      sequence,
      firstIndex: 20 * sequence,
      count: 20,
      values: bytesOf(new Float64Array(20).fill(value)),
      times: null,
    });
  await more(0, 1);
  expect(await mean()).toBeCloseTo(1, 12);
  await more(1, 3);
  expect(await mean()).toBeCloseTo(2, 12);
  expect(await EvaluationModel.query().where({ runId: run.id }).resultSize()).toBe(0);
  await endRun(run.id, { gaps: [], notes: [] });
  expect(await mean()).toBeCloseTo(2, 12);
  await more(2, 5);
  expect(await mean()).toBeCloseTo(3, 12);
});

test('what follows from other values of a constant is what the core says of them, together', async () => {
  const [{ id, values }] = runs;
  const { body } = await server
    .api('get', `/runs/${id}/across?constant=m&values=0.4,0.5,1&entries=m,a`)
    .expect(200);
  const opened = openedEvaluation(storedEvaluationSchema.parse(body));
  const found = opened.filter(({ entry }) => entry === 'a');
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  [0.4, 0.5, 1].forEach((mass, sheet) => {
    const here = found.find((one) => one.sheet === sheet);
    expect((here?.quantity.value ?? NaN) / (mean / mass)).toBeCloseTo(1, 9);
    // The constant is certain there: nothing of it is in what follows.
    expect(here?.quantity.influences().map(({ root }) => root)).not.toContain(
      expect.stringContaining('constant/'),
    );
  });
  const [light, , heavy] = found.map(({ quantity }) => quantity);
  const [a, b] = [light, heavy].map(({ standardUncertainty }) => standardUncertainty ?? NaN);
  expect(covarianceOf(light, heavy) / (a * b)).toBeCloseTo(1, 6);
  await server.api('get', `/runs/${id}/across?constant=f&values=1&entries=a`).expect(404);
  await server.api('get', `/runs/${id}/across?constant=m&values=heavy&entries=a`).expect(400);
  await server.api('get', `/runs/${id}/across?constant=m&values=1`).expect(400);
});

test('many who ask at once get the same, worked out once', async () => {
  const [, { id }] = runs;
  const answers = await Promise.all(Array.from({ length: 24 }, () => asked(server, id)));
  expect(new Set(answers.map((answer) => JSON.stringify(answer))).size).toBe(1);
});

describe('who asks', () => {
  test('is told what his own sheet says; the owner what those of all say, with what they owe to the same readings', async () => {
    const [{ id }] = runs;
    const workings = {
      ...emptyWorkings,
      entries: [{ kind: 'statistics', id: 'own', name: '', of: 'channel:F', ...on }],
    };
    const { body: opened } = await participant
      .api('get', `/investigations/${investigation}/workings`)
      .expect(200);
    await participant
      .api('put', `/investigations/${investigation}/workings`, {
        version: (opened as { version: number }).version,
        workings,
      })
      .expect(200);
    expect(Object.keys((await asked(participant, id)).sheets[0])).toEqual(['own']);
    const me = (await server.api('get', '/me').expect(200)).body as { id: string };
    const joint = await asked(server, id, `?of=${me.id},${participant.id}`);
    expect(joint.sheets.map((sheet) => Object.keys(sheet))).toEqual([['m', 'f', 's', 'a'], ['own']]);
    const [mine, own] = [resultOf(joint, 'f', 'mean'), resultOf(joint, 'own', 'mean')];
    // The same mean of the same readings.
    expect(covarianceOf(mine.quantity, own.quantity)).toBeCloseTo(
      covarianceOf(mine.quantity, mine.quantity),
      15,
    );
    await asked(participant, id, `?of=${me.id}`, 403);
    await asked(server, id, `?of=${runs[1].id}`, 404);
  });

  test('for the sheets of a whole class gets them together, in their order', async () => {
    const [{ id }] = runs;
    // Whoever takes part is one who has a sheet: here the same one, again and again.
    const people = Array.from({ length: 90 }, () => participant.id);
    const joint = await asked(server, id, `?of=${people.join(',')}`);
    expect(joint.sheets).toHaveLength(90);
    expect(await asked(server, id, `?of=${people.join(',')}`)).toEqual(joint);
  });

  test('finds no run that is not his, and is told what would be right', async () => {
    const { anonymous } = server;
    await anonymous.get(`/api/runs/${runs[0].id}/outcomes`).expect(401);
    await asked(server, investigation, '', 404);
    const { body } = await server.api('get', `/runs/${runs[0].id}/outcomes?entries=`).expect(400);
    expect(JSON.stringify(body)).toMatch('ids with commas between them');
    const { body: gone } = await server.api('get', `/runs/${runs[0].id}/outcomes?entries=f,gone`).expect(404);
    expect(JSON.stringify(gone)).toMatch('There is no entry “gone” on the sheet.');
  });
});

test('of a series of spot readings, of which another one is taken', async () => {
  const run = await newRun({
    origin: 'imported',
    channels: [force('1')],
    spot: {
      seconds: 1,
      columns: [{ kind: 'typed', key: 'F', name: 'force', unit: 'N', offset: 0, output: null }],
    },
  });
  const take = (values: readonly number[]) =>
    addRows(
      run.id,
      values.map((typed) => ({ F: { typed } })),
    );
  const mean = async () => resultOf(await asked(server, run.id, '?entries=f'), 'f', 'mean').quantity.value;
  await take([1, 2, 3]);
  expect(await mean()).toBeCloseTo(2, 12);
  await take([6]);
  expect(await mean()).toBeCloseTo(3, 12);
});

test('what was kept of many runs is told without working anything out', async () => {
  const ids = [...runs.map(({ id }) => id), 'nonsense'];
  const kept = async () => {
    const path = `/investigations/${investigation}/outcomes?kept=1&runs=${ids.join()}`;
    const { body } = await server.api('get', path).expect(200);
    return outcomesOfRunsSchema.parse(body);
  };
  const [first, second] = runs;
  // Another sheet: of neither run anything stands.
  await writeSheet([...entries, { kind: 'statistics', id: 'again', name: '', of: 'channel:F', ...on }]);
  const [a, b, gone] = await kept();
  expect([a, b]).toEqual([
    { runId: first.id, notKept: true },
    { runId: second.id, notKept: true },
  ]);
  expect(gone).toMatchObject({ failed: 'There is no such run in this investigation.' });
  const said = await asked(server, second.id);
  const before = await madeAt(second.id);
  expect((await kept()).slice(0, 2)).toEqual([{ runId: first.id, notKept: true }, said]);
  expect(await madeAt(second.id)).toBe(before);
  const many = Array.from({ length: 151 }, (_, i) => i).join();
  await server.api('get', `/investigations/${investigation}/outcomes?kept=1&runs=${many}`).expect(400);
});

test('of many runs one request says what each alone says, and why one of them cannot be', async () => {
  const strange = '00000000-0000-4000-8000-000000000000';
  const ids = [...runs.map(({ id }) => id), strange, 'nonsense'];
  const { body } = await server
    .api('get', `/investigations/${investigation}/outcomes?runs=${ids.join()}`)
    .expect(200);
  const answers = outcomesOfRunsSchema.parse(body);
  expect(answers.map(({ runId }) => runId)).toEqual(ids);
  for (const [i, { id }] of runs.entries()) expect(answers[i]).toEqual(await asked(server, id));
  for (const answer of answers.slice(2))
    expect(answer).toMatchObject({ failed: 'There is no such run in this investigation.' });
  await server.api('get', `/investigations/${investigation}/outcomes`).expect(400);
  await server
    .api(
      'get',
      `/investigations/${investigation}/outcomes?runs=${Array.from({ length: 51 }, (_, i) => i).join()}`,
    )
    .expect(400);
  const { body: other } = await server.api('post', '/investigations', { name: 'Elsewhere' });
  const { body: none } = await server.api(
    'get',
    `/investigations/${(other as { id: string }).id}/outcomes?runs=${runs[0].id}`,
  );
  expect(none).toMatchObject([{ runId: runs[0].id, failed: expect.any(String) as string }]);
});
