import { type Template, emptyTable, emptyTrials, emptyWorkings } from '@heuristor/contracts';
import { TemplateModel } from './models/template';
import { type TestServer, startTestServer } from './testing/testServer';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

const template = {
  name: 'Swing',
  about: 'period of a swing',
  channels: [{ key: 'x', quantity: 'position', unit: 'm' }],
  conditions: [{ key: 'm', name: 'mass', kind: 'number', unit: 'kg' }],
  workings: {
    ...emptyWorkings,
    aside: [{ run: 'r1', channel: 'x', ranges: [[1, 2]] }],
    shifts: [{ run: 'r1', by: 0.2 }],
    entries: [
      {
        kind: 'region',
        id: 'A',
        name: '',
        letter: 'A',
        along: 't',
        start: 0,
        end: 1,
        own: [{ run: 'r1', start: 0.5, end: 2 }],
      },
    ],
  },
};
const list = async (): Promise<Template[]> => (await server.api('get', '/templates')).body as Template[];

test('a template is kept without what belongs to single runs, and is there again', async () => {
  const { status, body } = await server.api('post', '/templates', template);
  expect(status).toBe(201);
  const [kept] = await list();
  // One without tables is one as before there were any.
  expect(kept.trials).toEqual(emptyTrials);
  expect(kept).toMatchObject({ id: body.id, name: 'Swing', conditions: template.conditions });
  expect(kept.workings).toMatchObject({ aside: [], shifts: [], entries: [{ id: 'A', own: [] }] });
});

test('a template is removed, and put back', async () => {
  const [{ id }] = await list();
  expect((await server.api('delete', `/templates/${id}`)).status).toBe(204);
  expect(await list()).toEqual([]);
  expect((await server.api('post', `/templates/${id}/restore`)).status).toBe(204);
  expect(await list()).toHaveLength(1);
  const unknown = '0b0f7f6e-0000-4000-8000-000000000000';
  const answer = await server.api('delete', `/templates/${unknown}`);
  expect([answer.status, answer.body.error.message]).toEqual([404, 'There is no such template.']);
});

test.each([
  ['without a name', { ...template, name: '  ' }],
  ['with a sheet that is none', { ...template, workings: { format: 5 } }],
  ['with more than is known of it', { ...template, owner: 'somebody' }],
  [
    'with a region that ends before it starts in a run',
    {
      ...template,
      workings: {
        ...template.workings,
        entries: [{ ...template.workings.entries[0], own: [{ run: 'r', start: 2, end: 1 }] }],
      },
    },
  ],
])('a template %s is refused', async (_, wrong) => {
  const answer = await server.api('post', '/templates', wrong);
  expect([answer.status, answer.body.error.code]).toEqual([400, 'invalid-request']);
});

test('one that is damaged does not hide the others', async () => {
  const { body } = await server.api('post', '/templates', { ...template, name: 'Other' });
  await TemplateModel.query()
    .findById(String(body.id))
    .patch({ document: { format: 99 } });
  expect((await list()).map(({ name }) => name)).toEqual(['Swing']);
});

test('nobody asks for templates without a cookie', async () => {
  expect((await server.anonymous.get('/api/templates')).status).toBe(401);
});

test('the tables of a template are kept, without the rows of a class; one that was kept without any has none', async () => {
  const table = { ...emptyTable, id: 'one', typed: [{ id: 't1', name: 'Gulls', cells: {} }] };
  const trials = { ...emptyTrials, tables: [table] };
  const { body } = await server.api('post', '/templates', { ...template, name: 'With tables', trials });
  const found = (await list()).find(({ id }) => id === body.id);
  expect(found?.trials.tables).toMatchObject([{ id: 'one', typed: [] }]);
  await TemplateModel.query().findById(body.id).patch({ trials: null });
  expect((await list()).find(({ id }) => id === body.id)?.trials).toEqual(emptyTrials);
});
