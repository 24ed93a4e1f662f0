import { type Run, emptyTable, emptyTrials, usualPlan } from '@heuristor/contracts';
import { DocumentModel } from '../models/document';
import { newBench } from '../testing/bench';
import { type TestServer, startTestServer } from '../testing/testServer';
import { addRun } from './runs';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

const rows = ['soft', 'stiff', 'both'].map((word, i) => ({ id: `p${i}`, conditions: { spring: { word } } }));

async function planned(): Promise<string> {
  const id = await newBench(server, null);
  const trials = { ...emptyTrials, tables: [{ ...emptyTable, id: 'one', planned: rows }] };
  const { body } = await server.api('get', `/investigations/${id}/trials`);
  await server.api('put', `/investigations/${id}/trials`, { version: body.version, trials }).expect(200);
  return id;
}
const record = (investigationId: string, parts: Partial<typeof usualPlan> = {}): Promise<Run> =>
  addRun({
    investigationId,
    origin: 'recorded',
    state: 'ended',
    plan: { ...usualPlan, ...parts },
    channels: [],
  });
const said = ({ planned, conditions }: Run) => [planned, conditions.spring];
const change = (run: Run, patch: object) => server.api('patch', `/runs/${run.id}`, patch).expect(200);

test('runs fill the planned rows in their order, with what is planned of them', async () => {
  const id = await planned();
  const runs = [await record(id), await record(id), await record(id), await record(id)];
  expect(runs.map(said)).toEqual([
    ['p0', { word: 'soft' }],
    ['p1', { word: 'stiff' }],
    ['p2', { word: 'both' }],
    // What was said of the last run goes on.
    [null, { word: 'both' }],
  ]);
});

test('a row that was chosen comes first, and none where none is wanted; practice fills none', async () => {
  const id = await planned();
  const forNext = (chosen: string) => ({ forNext: { ...usualPlan.forNext, planned: chosen } });
  expect(said(await record(id, forNext('p2')))).toEqual(['p2', { word: 'both' }]);
  // It is filled: the first that is open comes.
  expect((await record(id, forNext('p2'))).planned).toBe('p0');
  expect((await record(id, forNext(''))).planned).toBeNull();
  expect((await record(id, { practice: true })).planned).toBeNull();
  expect((await record(id)).planned).toBe('p1');
});

test('a run that is removed, or taken out, leaves its row open; another one can be put there', async () => {
  const id = await planned();
  const [first, second] = [await record(id), await record(id)];
  await change(first, { removed: true });
  await change(second, { planned: null });
  const again = await record(id);
  expect(again.planned).toBe('p0');
  await change(second, { planned: 'p1' });
  expect((await record(id)).planned).toBe('p2');
  await change(first, { removed: false });
  // Two for one row: the first counts, and nothing is open.
  expect((await record(id)).planned).toBeNull();
});

test('trials that cannot be read are in the way of no run', async () => {
  const id = await planned();
  await DocumentModel.query()
    .where({ investigationId: id, kind: 'trials' })
    .patch({ content: { format: 99 } });
  expect((await record(id)).planned).toBeNull();
});

test('which row comes next is kept with the plan', async () => {
  const id = await newBench(server, null);
  await server.api('patch', `/investigations/${id}`, { forNext: { planned: 'p1' } }).expect(204);
  await server.api('patch', `/investigations/${id}`, { forNext: { group: 'Puffins' } }).expect(204);
  const { body } = await server.api('get', `/investigations/${id}`);
  expect(body.plan.forNext).toMatchObject({ planned: 'p1', group: 'Puffins' });
});
