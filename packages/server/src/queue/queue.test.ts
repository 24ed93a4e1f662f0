/** @jest-environment node */
import { randomUUID } from 'node:crypto';
import { type Job } from '@heuristor/contracts';
import pino from 'pino';
import { z } from 'zod';
import { Bus } from '../bus';
import { Failure } from '../failure';
import { EvaluationModel } from '../models/evaluation';
import { JobModel } from '../models/job';
import { connected, endedRun, newBench, pause, until } from '../testing/bench';
import { type TestServer, startTestServer } from '../testing/testServer';
import { type Doing, type JobKind } from './jobKind';
import { Queue } from './queue';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

const log = pino({ level: 'silent' });
const task = z.object({ n: z.number() });
type Task = z.infer<typeof task>;

/** What a process does with jobs of a kind, under a lease of so many seconds that nobody renews. */
async function process(key: string, work: JobKind<Task>['work'], { attempts = 3, seconds = 60 } = {}) {
  const id = randomUUID();
  await JobModel.knex().raw(
    `insert into server_process (id, "leaseUntil") values (?, clock_timestamp() + ? * interval '1 second')`,
    [id, seconds],
  );
  const bus = new Bus();
  const queue = new Queue({ kinds: [{ key, task, attempts, work }], bus, process: id, log });
  const told: Job[] = [];
  bus.on('job', (_person, job) => told.push(job));
  return { id, bus, queue, told };
}

const stateOf = async (id: number) => (await JobModel.query().findById(id))?.state;
const comesTo = (id: number, state: string, seconds = 5) =>
  until(
    () => stateOf(id),
    (found) => found === state,
    seconds,
  );
const person = async () => {
  const { rows } = (await JobModel.knex().raw('select id from person limit 1')) as { rows: { id: string }[] };
  return rows[0].id;
};

test('two processes at one row: each of 200 jobs is done once, and all of them are', async () => {
  const done: number[] = [];
  const work = async ({ n }: Task) => {
    await pause(Math.random() * 5);
    done.push(n);
  };
  const [one, two] = [await process('count', work), await process('count', work)];
  for (let n = 0; n < 200; n++) await (n % 2 === 0 ? one : two).queue.add('count', { n });
  for (const { bus } of [one, two]) bus.emit('beat');
  await until(
    () => Promise.resolve(done.length),
    (length) => length >= 200,
    20,
  );
  await pause(200);
  expect([...done].sort((a, b) => a - b)).toEqual(Array.from({ length: 200 }, (_, n) => n));
  const shares = await JobModel.query().where({ kind: 'count', state: 'done' }).select('takenBy');
  expect(new Set(shares.map(({ takenBy }) => takenBy))).toEqual(new Set([one.id, two.id]));
});

test('what a process was doing that has ended is done by another one; what the first says afterwards counts no more', async () => {
  let finish: () => void = () => undefined;
  const hanging = await process('hang', () => new Promise((resolve) => (finish = resolve)), { seconds: 1 });
  const { id } = await hanging.queue.add('hang', { n: 1 });
  await comesTo(id, 'running');
  let isDone = false;
  const other = await process('hang', async () => {
    await pause(600);
    isDone = true;
  });
  other.bus.emit('beat');
  await pause(100);
  expect((await JobModel.query().findById(id))?.takenBy).toBe(hanging.id);
  await pause(1100);
  other.bus.emit('beat');
  await until(
    async () => (await JobModel.query().findById(id))?.takenBy,
    (by) => by === other.id,
  );
  finish();
  await pause(200);
  expect(await stateOf(id)).toBe('running');
  await comesTo(id, 'done');
  expect(isDone).toBe(true);
});

test('a job at which every process ends is not tried for ever', async () => {
  const { queue } = await process('deadly', () => new Promise(() => undefined), { attempts: 2, seconds: 0 });
  const { id } = await queue.add('deadly', { n: 1 });
  for (let i = 0; i < 3; i++) {
    const next = await process('deadly', () => new Promise(() => undefined), { attempts: 2, seconds: 0 });
    next.bus.emit('beat');
    await pause(150);
  }
  await comesTo(id, 'failed');
  expect((await JobModel.query().findById(id))?.sentence).toMatch('the server ended each time');
});

test('what fails with a sentence says it; what fails by a fault is tried again, later', async () => {
  let tries = 0;
  const { queue, bus, told } = await process('fails', ({ n }) => {
    tries++;
    return Promise.reject(n === 1 ? new Failure('not-found', 'There is no such run.') : new Error('oops'));
  });
  const owner = await person();
  const spoken = await queue.add('fails', { n: 1 }, { person: owner });
  await comesTo(spoken.id, 'failed');
  expect(tries).toBe(1);
  expect(told.at(-1)).toMatchObject({ state: 'failed', sentence: 'There is no such run.' });
  const faulty = await queue.add('fails', { n: 2 }, { person: owner });
  await until(
    () => Promise.resolve(tries),
    (count) => count === 2,
  );
  await comesTo(faulty.id, 'waiting');
  bus.emit('beat');
  await pause(200);
  expect(tries).toBe(2);
  for (let i = 0; i < 2; i++) {
    await JobModel.query()
      .findById(faulty.id)
      .patch({ notBefore: new Date(0) });
    bus.emit('beat');
    await until(
      () => Promise.resolve(tries),
      (count) => count === 3 + i,
    );
    // Only once its failing is noted can it be due anew.
    await comesTo(faulty.id, i === 0 ? 'waiting' : 'failed');
  }
  expect(tries).toBe(4);
});

test('who asked for it sees how far it is, and may give it up; nobody else', async () => {
  const heard: AbortSignal[] = [];
  const { queue, told } = await process('long', async (_task, { signal, progress }: Doing) => {
    heard.push(signal);
    for (let i = 1; i <= 100 && !signal.aborted; i++) {
      progress(i / 100);
      await pause(50);
    }
  });
  const owner = await person();
  const { id } = await queue.add('long', { n: 1 }, { person: owner });
  await until(
    () => Promise.resolve(told.length),
    (length) => length >= 2,
  );
  expect(told.at(-1)?.share).toBeGreaterThan(0);
  await expect(queue.status(randomUUID(), id)).rejects.toThrow('You asked for no job of that number');
  await expect(queue.cancel(randomUUID(), id)).rejects.toThrow(Failure);
  expect(await queue.cancel(owner, id)).toMatchObject({ state: 'cancelled' });
  expect(heard[0].aborted).toBe(true);
  await pause(300);
  expect(await queue.status(owner, id)).toMatchObject({ state: 'cancelled' });
});

test('what was given up in one process ends in the one that works on it', async () => {
  let signal: AbortSignal | null = null;
  const one = await process('afar', async (_task, doing) => {
    ({ signal } = doing);
    for (let i = 0; i < 200 && !doing.signal.aborted; i++) {
      doing.progress(i / 200);
      await pause(50);
    }
  });
  const other = await process('something else', () => Promise.resolve());
  const owner = await person();
  const { id } = await one.queue.add('afar', { n: 1 }, { person: owner });
  await comesTo(id, 'running');
  await other.queue.cancel(owner, id);
  await until(
    () => Promise.resolve((signal as AbortSignal | null)?.aborted),
    (aborted) => aborted === true,
  );
  expect(await stateOf(id)).toBe('cancelled');
});

test('a process that ends in good order gives back what it has begun, and that was no attempt', async () => {
  const one = await process('given back', async (_task, { signal }) => {
    while (!signal.aborted) await pause(20);
  });
  const { id } = await one.queue.add('given back', { n: 1 });
  await comesTo(id, 'running');
  await one.queue.close();
  expect(await JobModel.query().findById(id)).toMatchObject({ state: 'waiting', attempts: 0, takenBy: null });
  const two = await process('given back', () => Promise.resolve());
  two.bus.emit('beat');
  await comesTo(id, 'done');
});

test('a task that is none is refused before it waits', async () => {
  const { queue } = await process('checked', () => Promise.resolve());
  await expect(queue.add('checked', { n: 'one' })).rejects.toThrow();
  await expect(queue.add('unheard of', { n: 1 })).rejects.toThrow('no kind of job');
});

test('what workings say of all runs is worked out beforehand, for the runs of one’s own investigation alone', async () => {
  const device = await connected(server, 'Q1-A');
  const id = await newBench(server, 0.5);
  const runs: string[] = [];
  for (let i = 0; i < 3; i++) {
    const { body } = await server.api('post', `/investigations/${id}/recording`).expect(201);
    runs.push((await endedRun(server, body.id as string)).id);
  }
  device.vanish();
  const stored = await server.api('get', `/investigations/${id}/workings`).expect(200);
  const entries = [{ kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 5 }];
  await server
    .api('put', `/investigations/${id}/workings`, {
      version: stored.body.version as number,
      workings: { ...stored.body.workings, entries },
    })
    .expect(200);
  const asked = await server.api('post', `/investigations/${id}/outcomes`, {}).expect(202);
  const ended = await until(
    async () => (await server.api('get', `/jobs/${asked.body.id as number}`)).body as Job,
    ({ state }) => state === 'done' || state === 'failed',
    20,
  );
  expect(ended).toMatchObject({ kind: 'work-out', state: 'done', share: 1, sentence: null });
  const kept = await EvaluationModel.query().whereIn('runId', runs);
  expect(kept).toHaveLength(3);
  await server.api('post', `/investigations/${id}/outcomes`, { runs: [randomUUID()] }).expect(404);
  await server.api('get', '/jobs/999999').expect(404);
  await server.api('get', '/jobs/none').expect(404);
});
