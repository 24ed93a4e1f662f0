import { type Gap } from '@heuristor/contracts';
import { newBench } from '../testing/bench';
import { type TestServer, startTestServer } from '../testing/testServer';
import { addRun, endRun, markRun } from './runs';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

const gapTo = (to: number): Gap => ({ channel: 'x', from: 1, to });

async function newRun(): Promise<string> {
  const investigationId = await newBench(server, 1);
  const { plan } = (await server.api('get', `/investigations/${investigationId}`)).body;
  const run = await addRun({ investigationId, origin: 'recorded', state: 'recording', plan, channels: [] });
  return run.id;
}

test('a gap that is stored twice at the same moment is one gap', async () => {
  const id = await newRun();
  const marks = { gaps: [gapTo(2)], notes: ['lost'] };
  await Promise.all([markRun(id, marks), markRun(id, marks), endRun(id, marks)]);
  expect(await markRun(id, marks)).toMatchObject({ ...marks, state: 'ended' });
});

test('what is stored late does not take the place of what was said at the end', async () => {
  const id = await newRun();
  const last = { gaps: [gapTo(3)], notes: ['lost', 'and more'] };
  await endRun(id, last);
  expect(await markRun(id, { gaps: [gapTo(2)], notes: ['lost'] })).toMatchObject(last);
});
