import { randomUUID } from 'node:crypto';
import { type Investigation } from '@heuristor/contracts';
import pino from 'pino';
import { Bus } from '../bus';
import { InvestigationModel } from '../models/investigation';
import { newBench, until } from '../testing/bench';
import { type TestServer, startTestServer } from '../testing/testServer';
import { UnderWay, endWhatWasUnderWay } from './underWay';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

/** Lets a process live, so that the server beside this test leaves alone what is under way in it. */
const lives = (process: string) =>
  InvestigationModel.knex().raw(
    `insert into server_process (id, "leaseUntil") values (?, clock_timestamp() + interval '1 minute')`,
    [process],
  );
const dies = (process: string) =>
  InvestigationModel.knex().raw(`delete from server_process where id = ?`, [process]);

const ended = async (id: string) =>
  ((await server.api('get', `/investigations/${id}`)).body as Investigation).ended;

test('a sweep that was cut off says how far it came; one that ended is none', async () => {
  const [cut, done] = [await newBench(server, null), await newBench(server, null)];
  const bus = new Bus();
  const process = randomUUID();
  await lives(process);
  const underWay = new UnderWay({ bus, process, log: pino({ level: 'silent' }) });
  for (let taken = 0; taken <= 3; taken++)
    for (const id of [cut, done])
      bus.emit('spots', id, {
        phase: 'sweeping',
        doing: 'reading',
        value: taken,
        unit: 'Hz',
        taken,
        planned: 9,
      });
  bus.emit('spots', done, { phase: 'idle' });
  await until(
    async () => (await InvestigationModel.query().findById(cut))?.underWay as { taken: number } | null,
    (doing) => doing?.taken === 3,
  );
  await underWay.close();
  // As the server ends, everything in it comes to rest, which is no end of its own.
  bus.emit('spots', cut, { phase: 'idle' });
  await dies(process);
  // By this test, or by the server beside it.
  await endWhatWasUnderWay();
  expect(await ended(cut)).toBe(
    'A sweep was under way here when the server was restarted: it ended after 3 of 9 readings. What was read is kept.',
  );
  expect(await ended(done)).toBeNull();
  expect(await endWhatWasUnderWay()).toBe(0);
});

test('what still waits when this process is heard of again did not end', async () => {
  const id = await newBench(server, null);
  const bus = new Bus();
  const process = randomUUID();
  await lives(process);
  const underWay = new UnderWay({ bus, process, log: pino({ level: 'silent' }) });
  bus.emit('recorder', id, { phase: 'countdown', number: 1, times: 1, secondsLeft: 5 });
  await until(
    async () => (await InvestigationModel.query().findById(id))?.underWayBy,
    (by) => by === process,
  );
  await dies(process);
  // No lease of it runs, so that another process says that it ended: this test, or the server beside it.
  await endWhatWasUnderWay();
  expect(await ended(id)).toMatch('A run was waiting here');
  await lives(process);
  bus.emit('lapsed');
  await until(
    () => ended(id),
    (words) => words === null,
  );
  expect((await InvestigationModel.query().findById(id))?.underWay).toEqual({ kind: 'waiting' });
  bus.emit('recorder', id, { phase: 'idle' });
  await until(
    async () => (await InvestigationModel.query().findById(id))?.underWay,
    (doing) => doing === null,
  );
  await dies(process);
  await underWay.close();
});
