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
  const { body } = await server.api('get', '/investigations?of=mine').expect(400);
  expect(JSON.stringify(body)).toContain('of takes all, own, examples, removed');
}, 30_000);

test('lists by theme, in capitals or not, those without one last; removed ones alone, and not for longer than thirty days', async () => {
  const knex = InvestigationModel.knex();
  await knex.raw(
    `insert into investigation (name, plan, "ownerId", "usedAt", theme, "deletedAt", "isExample")
     select column1, ?::jsonb, ?, now(), column2, now() - column3::interval, column4 from (values
       ('in b', '10b', null, false), ('in a', '10A', null, false), ('in B', '10B', null, false),
       ('gone', '10a', '29 days', false), ('long gone', '10a', '31 days', false), ('shipped', '', null, true)) as them`,
    [JSON.stringify(usualPlan), (await onlyTeacher()).id],
  );
  const names = async (query: string) => {
    const { body } = await server.api('get', `/investigations?${query}`).expect(200);
    return (body as { investigations: { name: string }[] }).investigations.map(({ name }) => name);
  };
  const themed = (await names('of=own&by=theme')).slice(0, 4);
  expect(themed[0]).toBe('in a');
  expect(themed.slice(1, 3).sort()).toEqual(['in B', 'in b']);
  expect(themed[3]).toContain('Buoy');
  expect(await names('of=removed')).toEqual(['gone']);
  expect(await names('of=examples')).toEqual(['shipped']);
  expect(await names('search=10a')).toEqual(['in a']);
}, 30_000);
