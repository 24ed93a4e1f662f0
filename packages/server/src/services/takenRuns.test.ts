import { type Investigation, type Run, channelOf, usualPlan } from '@heuristor/contracts';
import { newBench, valuesOf } from '../testing/bench';
import { type TestServer, startTestServer } from '../testing/testServer';
import { ChannelModel } from '../models/channel';
import { addRun } from './runs';
import { writeSamples } from './samples';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

const read = async (id: string): Promise<Investigation> =>
  (await server.api('get', `/investigations/${id}`)).body as Investigation;
const take = (id: string, runs: readonly string[]) =>
  server.api('post', `/investigations/${id}/runs`, { runs: [...runs] });
const ask = (id: string, conditions: object[]) =>
  server.api('patch', `/investigations/${id}`, { plan: { conditions } }).expect(204);
/** A run with a few readings. */
async function recorded(
  investigationId: string,
  values: number[],
  conditions: Run['conditions'],
): Promise<Run> {
  const run = await addRun({
    investigationId,
    origin: 'recorded',
    state: 'ended',
    plan: usualPlan,
    channels: [
      channelOf({
        key: 'x',
        unit: 'm',
        timeUnit: 's',
        sampling: { kind: 'regular', start: 0, interval: 0.1 },
      }),
    ],
  });
  await writeSamples(run.channels[0].id, Float64Array.from(values), null);
  await server.api('patch', `/runs/${run.id}`, { conditions, remark: 'windy' }).expect(200);
  return run;
}

test('runs come with their readings, their conditions in the units used here, and where they are from', async () => {
  const [here, there] = [await newBench(server, null), await newBench(server, null)];
  await server.api('patch', `/investigations/${there}`, { name: 'Gulls’ class' }).expect(204);
  await ask(there, [
    { key: 'c1', name: 'mass', kind: 'number', unit: 'kg' },
    { key: 'c2', name: 'tether', kind: 'word', unit: '' },
    { key: 'c3', name: 'not said', kind: 'word', unit: '' },
  ]);
  await ask(here, [
    { key: 'c1', name: 'spring', kind: 'word', unit: '' },
    { key: 'c9', name: 'mass', kind: 'number', unit: 'g' },
  ]);
  const own = await recorded(here, [9], {});
  const run = await recorded(there, [1, 2, 3], { c1: { value: 0.35, u: 0.001 }, c2: { word: 'string' } });
  const { body } = await take(here, [run.id]).expect(201);
  const { runs, plan } = await read(here);
  expect(runs.map(({ number }) => number)).toEqual([own.number, own.number + 1]);
  const [, taken] = runs;
  expect(body).toEqual([taken]);
  expect(taken.remark).toBe(`from “Gulls’ class”, run ${run.number}. windy`);
  // The unit that is used here; a word that was not asked for before is asked for now; what was not said is not.
  expect(plan.conditions.map(({ name }) => name)).toEqual(['spring', 'mass', 'tether']);
  expect(taken.conditions).toEqual({
    c9: { value: 350, u: 1 },
    [plan.conditions[2].key]: { word: 'string' },
  });
  expect(await valuesOf(server, taken.channels[0].id)).toEqual([1, 2, 3]);
  // What they are copies of stays as it is.
  expect((await read(there)).runs).toMatchObject([{ id: run.id, remark: 'windy' }]);
  await ChannelModel.query().findById(taken.channels[0].id).throwIfNotFound();
});

test('what cannot be taken in is refused as a whole, and nothing is taken', async () => {
  const [here, there] = [await newBench(server, null), await newBench(server, null)];
  const own = await recorded(here, [9], {});
  const [good, removed] = [await recorded(there, [1], {}), await recorded(there, [2], {})];
  await server.api('patch', `/runs/${removed.id}`, { removed: true }).expect(200);
  for (const [runs, words] of [
    [[good.id, removed.id], 'One of these runs is not over, or was removed. Nothing was taken in.'],
    [[good.id, own.id], 'One of these runs is in this investigation already. Nothing was taken in.'],
  ] as const) {
    const { body } = await take(here, runs).expect(400);
    expect(body.error.message).toBe(words);
  }
  await take(here, ['0b0f7f6e-0000-4000-8000-000000000000']).expect(404);
  await take(here, []).expect(400);
  expect((await read(here)).runs).toHaveLength(1);
});
