import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import {
  type Investigation,
  type InvestigationPage,
  type Template,
  lookOf,
  mostOnSheet,
} from '@heuristor/contracts';
import pg from 'pg';
import { hashOf } from '../auth/signIn';
import { PersonModel } from '../models/person';
import { SignInModel } from '../models/signIn';
import { type TestServer, newDatabase, startTestServer } from '../testing/testServer';

// A dump of the demo as the version before 013 left it: signed in, a sensor used and zeroed, a device let in, a run hidden.

const cookie = 'qdeupQrP7k62AfTEyeFnF_R9dn-6HUj2fEYuAN6nGdk';
const deviceToken = 'D5WGaOHmHKqzJTI-FQ_-r2mF_EmsoD9g';
const dump = () =>
  gunzipSync(readFileSync(join(__dirname, '../../fixtures/demo-012.sql.gz'))).toString('utf8');

let server: TestServer;
let counts: Record<string, number>;
/** How each run was looked at, when that was stored with the run. */
let looks: { id: string; number: number; shown: boolean; style: number; keepPinned: boolean }[];

beforeAll(async () => {
  const address = await newDatabase();
  const client = new pg.Client({ connectionString: address });
  await client.connect();
  await client.query(dump());
  const { rows } = await client.query<Record<string, number>>(
    `select (select count(*)::int from public.investigation) investigations,
      (select count(*)::int from public.run) runs, (select count(*)::int from public.template) templates,
      (select sum(count)::int from public.block) readings`,
  );
  [counts] = rows;
  // One that is drawn otherwise, and one in which everything counts, beside the hidden one.
  await client.query(
    `update public.run set style = 6, "keepPinned" = true where id = (select id from public.run where number = 2 limit 1)`,
  );
  looks = (
    await client.query<(typeof looks)[number]>(
      'select id, number, shown, style, "keepPinned" from public.run',
    )
  ).rows;
  await client.end();
  server = await startTestServer(() => true, address);
}, 60_000);
afterAll(() => server.close());

const asBefore = (path: string) =>
  server.anonymous.get(`/api${path}`).set('Cookie', `heuristor-${server.port}=${cookie}`);

test('who was signed in is signed in still, as the teacher that there was', async () => {
  expect((await asBefore('/me').expect(200)).body).toMatchObject({ name: 'Teacher', kind: 'teacher' });
  expect(await PersonModel.query().where({ kind: 'teacher' }).resultSize()).toBe(1);
  expect(await SignInModel.query().findById(hashOf(cookie))).toMatchObject({ kind: 'cookie' });
});

test('every investigation opens with its runs, its sheet and every reading', async () => {
  const page = (await asBefore('/investigations').expect(200)).body as InvestigationPage;
  expect([page.total, page.investigations.length]).toEqual([counts.investigations, 11]);
  let [runs, readings] = [0, 0];
  for (const { id, runCount, entryCount } of page.investigations) {
    const opened = (await asBefore(`/investigations/${id}`).expect(200)).body as Investigation;
    expect([opened.runs.length, opened.workings.entries.length]).toEqual([runCount, entryCount]);
    expect(entryCount).toBeLessThanOrEqual(mostOnSheet.entries);
    runs += opened.runs.length;
    for (const { channels } of opened.runs)
      for (const channel of channels) {
        const values = await asBefore(`/channels/${channel.id}/values`).responseType('blob').expect(200);
        readings += (values.body as Buffer).length / 8;
      }
  }
  expect([runs, readings]).toEqual([counts.runs, counts.readings]);
}, 60_000);

test('runs are shown, hidden, drawn and counted as they were, as the sheet of their owner says', async () => {
  const { investigations } = (await asBefore('/investigations').expect(200)).body as InvestigationPage;
  const seen = new Map<string, object>();
  for (const { id } of investigations) {
    const { runs, workings } = (await asBefore(`/investigations/${id}`).expect(200)).body as Investigation;
    for (const run of runs) seen.set(run.id, lookOf(run, workings.runs));
  }
  expect(looks.filter(({ shown }) => !shown)).toHaveLength(1);
  for (const { id, shown, style, keepPinned } of looks)
    expect(seen.get(id)).toEqual({ shown, style, keepPinned });
});

test('its templates are there, its devices known as they were set', async () => {
  expect(((await asBefore('/templates').expect(200)).body as Template[]).length).toBe(counts.templates);
  const tokens = await asBefore('/device-tokens').expect(200);
  expect(tokens.body).toMatchObject([{ code: 'H51-D', name: 'quay thermometer' }]);
  await server.anonymous
    .post('/api/senml')
    .set('Authorization', `Bearer ${deviceToken}`)
    .set('Content-Type', 'application/senml+json')
    .send('[{"n":"temperature","u":"Cel","v":11.5}]')
    .expect(204);
  const { storedSettings } = await import('../services/deviceSettings');
  const { storedUse } = await import('../services/sensorUse');
  const { onlySchool } = await import('../auth/signIn');
  const { id: school } = await onlySchool();
  const kept = await storedSettings(school, 'K7-D');
  expect(kept.calibration.zeros.x.offset).toBeCloseTo(0.5999311970274627, 15);
  expect(await storedUse(school, 'K7-D')).toMatchObject({ name: 'Channel buoy: soft and stiff spring' });
});
