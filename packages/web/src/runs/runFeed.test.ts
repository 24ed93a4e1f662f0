import { type Run, type SampleFrame, frameKinds } from '@heuristor/contracts';
import { poolHere, runOf } from '../testing/runs';
import { RunFeed } from './runFeed';

const numbers = (first: number, count: number) => Float64Array.from({ length: count }, (_, i) => first + i);
const frame = (firstIndex: number, count: number): SampleFrame => ({
  kind: frameKinds.run,
  subject: 1,
  firstIndex,
  channels: 1,
  values: numbers(firstIndex, count),
  times: null,
});
const turns = async () => {
  for (let i = 0; i < 30; i++) await Promise.resolve();
};

/** A server that holds the readings 0 to `length` of channel 1. */
function bench(length: number) {
  const { pool, store } = poolHere();
  const server = { length, asked: [] as string[], answers: true };
  const feed = new RunFeed(
    pool,
    async (path) => {
      server.asked.push(path);
      if (!server.answers) throw new Error('away');
      const from = Number(new URLSearchParams(path.split('?')[1]).get('from') ?? 0);
      return numbers(from, Math.max(server.length - from, 0));
    },
    () => undefined,
    () => undefined,
  );
  const held = () => [...(store.recorded('a').get('x') ?? [])];
  const shown = (...runs: Run[]) => feed.holdOnly(runs, runs);
  return { feed, server, held, shown };
}

test('stored readings, those that came while they were fetched, and later ones make one whole', async () => {
  const { feed, held, shown } = bench(10);
  shown(runOf('a', ['x']));
  feed.take(frame(8, 4));
  await turns();
  feed.take(frame(12, 3));
  await turns();
  expect(held()).toEqual([...numbers(0, 15)]);
});

test('where live frames were lost, what is missing is fetched; no hole stays', async () => {
  const { feed, server, held, shown } = bench(5);
  shown(runOf('a', ['x']));
  await turns();
  server.length = 40;
  feed.take(frame(30, 5));
  await turns();
  expect(server.asked.at(-1)).toBe('/channels/1/values?from=5');
  feed.take(frame(40, 2));
  await turns();
  expect(held()).toEqual([...numbers(0, 42)]);
});

test('times that have come between the fetch of values and that of times do not stand before later readings', async () => {
  const { pool, store } = poolHere();
  const stored = { length: 5 };
  const feed = new RunFeed(
    pool,
    async (path) => {
      const from = Number(new URLSearchParams(path.split('?')[1]).get('from') ?? 0);
      const answer = numbers(from, stored.length - from);
      // The run goes on while it is fetched.
      stored.length += 3;
      return answer;
    },
    () => undefined,
    () => undefined,
  );
  const run = runOf('a', ['x']);
  const channels = run.channels.map((channel) => ({ ...channel, sampling: { kind: 'timed' as const } }));
  const timed = (firstIndex: number, count: number): SampleFrame => ({
    ...frame(firstIndex, count),
    times: numbers(firstIndex, count),
  });
  feed.holdOnly([{ ...run, channels }], [{ ...run, channels }]);
  await turns();
  stored.length = 20;
  // Frames were lost: what lies between is fetched, values first.
  feed.take(timed(18, 2));
  await turns();
  feed.take(timed(20, 6));
  await turns();
  expect([...(store.recorded('a').get('x') ?? [])]).toEqual([...numbers(0, 26)]);
  const sampling = store.evaluator('a')?.series({ entries: [] }, 'channel:x').sampling;
  expect(sampling?.kind === 'timed' && [...sampling.times]).toEqual([...numbers(0, 26)]);
});

test('frames lost at the very end of a run are fetched when it is over', async () => {
  const { feed, server, held, shown } = bench(5);
  shown(runOf('a', ['x']));
  await turns();
  server.length = 9;
  await feed.complete('a');
  expect(held()).toEqual([...numbers(0, 9)]);
});

test('a fetch that fails is asked for again with the next frame', async () => {
  const { feed, server, held, shown } = bench(5);
  shown(runOf('a', ['x']));
  await turns();
  server.answers = false;
  feed.take(frame(10, 5));
  await turns();
  expect(held()).toHaveLength(5);
  server.answers = true;
  server.length = 20;
  feed.take(frame(15, 5));
  await turns();
  expect(held()).toEqual([...numbers(0, 20)]);
});

test('a run is fetched once, however often it is shown', async () => {
  const { server, shown } = bench(5);
  for (let i = 0; i < 4; i++) shown(runOf('a', ['x']));
  await turns();
  expect(server.asked).toHaveLength(1);
});

test('hidden runs stay in the worker as long as they are small; removed ones, and those too large, go and are fetched when shown', async () => {
  const { feed, server, held, shown } = bench(5);
  const run = runOf('a', ['x']);
  shown(run);
  await turns();
  feed.holdOnly([], [run]);
  expect(held()).toHaveLength(5);
  feed.holdOnly([], [{ ...run, removed: true }]);
  expect(held()).toEqual([]);
  server.length = 2_000_001;
  shown(run);
  await turns();
  expect(held()).toHaveLength(2_000_001);
  feed.holdOnly([], [run]);
  expect(held()).toEqual([]);
  server.length = 7;
  shown(run);
  await turns();
  expect(held()).toEqual([...numbers(0, 7)]);
});

test('a run that is removed while it is on its way does not come into the worker', async () => {
  const { feed, held, shown } = bench(5);
  const run = runOf('a', ['x']);
  shown(run);
  feed.holdOnly([], [{ ...run, removed: true }]);
  await turns();
  expect(held()).toEqual([]);
});
