import { usualPlan } from '@heuristor/contracts';
import { onlyTeacher } from './auth/signIn';
import { InvestigationModel } from './models/investigation';
import { type TestServer, startTestServer } from './testing/testServer';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

test('a thousand of them come in pages, quickly and in few bytes; a search finds among all', async () => {
  const knex = InvestigationModel.knex();
  await knex.raw(
    `insert into investigation (name, plan, "ownerId", "usedAt")
     select 'Buoy 100% no. ' || n, ?::jsonb, ?, now() - n * interval '1 minute' from generate_series(1, 1000) n`,
    [JSON.stringify(usualPlan), (await onlyTeacher()).id],
  );
  type Page = { total: number; investigations: { name: string }[] };
  const times: number[] = [];
  for (let i = 0; i < 5; i++) {
    const begun = performance.now();
    const { text } = await server.api('get', '/investigations').expect(200);
    times.push(performance.now() - begun);
    expect(text.length).toBeLessThan(100_000);
  }
  expect(Math.min(...times)).toBeLessThan(100);
  const page = async (query: string) =>
    (await server.api('get', `/investigations?${query}`).expect(200)).body as Page;
  const second = await page('from=24');
  expect([second.total, second.investigations[0].name]).toEqual([1000, 'Buoy 100% no. 25']);
  expect(await page('search=NO.%20999')).toMatchObject({
    total: 1,
    investigations: [{ name: 'Buoy 100% no. 999' }],
  });
  // A sign of patterns is a letter like any other.
  expect((await page('search=%25%20no')).total).toBe(1000);
  expect((await page('search=_')).total).toBe(0);
  await server.api('get', `/investigations?search=${'x'.repeat(201)}`).expect(400);
}, 30_000);
