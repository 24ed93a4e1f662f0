import { emptyWorkings } from '@heuristor/contracts';
import { type FreshReadings } from '@heuristor/evaluation';
import { runOf, swing } from '../testing/runs';
import { RunPool } from './pool';
import { type RenderedRun } from '../workers/protocol';
import { type RunWorker } from '../workers/runWorker';
import { type QuestionKey } from '../workers/questions';
import { csvOf } from './severalRuns';

/** Workers that write down what they are asked. */
function workers(count: number) {
  const asked: string[][] = Array.from({ length: count }, () => []);
  const pool = new RunPool(
    asked.map((mine) => {
      const worker: Partial<Record<keyof RunWorker, (...args: never[]) => Promise<unknown>>> = {
        put: async (run: { id: string }) => void mine.push(`put ${run.id}`),
        append: async (parts: FreshReadings[]) => {
          mine.push(`append ${parts.map(({ channelId }) => channelId).join()}`);
          return parts.map(({ firstIndex }) => (firstIndex > 100 ? 100 : null));
        },
        drop: async (id: string) => void mine.push(`drop ${id}`),
        render: async (ids: string[]) =>
          ids.map((runId): RenderedRun => ({
            runId,
            changed: {},
            entryIds: [],
            traces: {},
            residuals: {},
            graphs: {},
          })),
        ask: async (ids: string[], key: QuestionKey, about?: { prefix?: string }) =>
          ids.map((id) => {
            mine.push(`${key} ${id}`);
            if (key === 'extent') return { symbol: id, unit: [], quantity: '', low: 0, high: 1, step: null };
            return key === 'columns' ? [{ heading: `${about?.prefix}x`, values: Float64Array.of(1) }] : null;
          }),
      };
      return worker as never;
    }),
  );
  return { pool, asked };
}

const readings = () => ({ values: [swing(3)], times: [null] });

test('runs are shared out, and each is asked for where it lives', async () => {
  const { pool, asked } = workers(2);
  for (const [i, id] of ['a', 'b', 'c'].entries())
    await pool.put(runOf(id, ['x'], { firstId: 10 * i + 1 }), readings());
  expect(asked.map((mine) => mine.length)).toEqual([2, 1]);
  await pool.append(11, 3, swing(1), null);
  expect(asked[1]).toEqual(['put b', 'append 11']);
  pool.drop('a');
  expect(asked[0]).toContain('drop a');
  expect(await pool.append(1, 3, swing(1), null)).toBeNull();
});

test('readings that come in one turn are one message to each worker, and each asker has its own answer', async () => {
  const { pool, asked } = workers(2);
  await pool.put(runOf('a', ['x', 'F'], { firstId: 1 }), {
    values: [swing(3), swing(3)],
    times: [null, null],
  });
  await pool.put(runOf('b', ['x'], { firstId: 10 }), readings());
  const answers = await Promise.all([
    pool.append(1, 3, swing(2), null),
    pool.append(10, 3, swing(2), null),
    pool.append(2, 500, swing(2), null),
    pool.append(1, 5, swing(2), null),
  ]);
  expect(answers).toEqual([null, null, 100, null]);
  expect(asked.map((mine) => mine.slice(1))).toEqual([['append 1,2,1'], ['append 10']]);
});

test('what several workers say comes in the order that was asked for', async () => {
  const { pool } = workers(3);
  for (const id of ['a', 'b', 'c', 'd', 'e']) await pool.put(runOf(id, ['x']), readings());
  const rendered = await pool.render(['e', 'a', 'd', 'gone', 'b'], {} as never);
  expect(rendered.map(({ runId }) => runId)).toEqual(['e', 'a', 'd', 'b']);
  const about = { workings: emptyWorkings, along: 't' } as const;
  const extents = await pool.askAll(['d', 'gone', 'a', 'b'], 'extent', about);
  expect(extents.map(({ symbol }) => symbol)).toEqual(['d', 'a', 'b']);
  expect(await pool.askAll(['a', 'b'], 'lengths')).toEqual([]);
  expect(await pool.ask('gone', 'extent', about)).toBeNull();
  await expect(pool.demand('gone', 'extent', about)).rejects.toThrow('This run is not here. Show it first.');
});

test('runs of one name stay apart in a file, and a colon in a name does not end it', async () => {
  const { pool } = workers(2);
  for (const id of ['a', 'b', 'c']) await pool.put(runOf(id, ['x']), readings());
  const text = await csvOf(
    pool,
    [
      { id: 'a', name: 'soft' },
      { id: 'b', name: 'soft' },
      { id: 'c', name: 'run: wet' },
    ],
    emptyWorkings,
  );
  expect(text.split('\r\n')[0]).toBe('soft: x,soft (2): x,run wet: x');
});
