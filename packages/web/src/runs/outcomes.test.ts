import { type WorkingsDocument, emptyWorkings } from '@heuristor/contracts';
import { openedEvaluation } from '@heuristor/core';
import { poolHere, runOf, swing } from '../testing/runs';
import { outcomesOfRun } from './outcomes';

const workings: WorkingsDocument = {
  ...emptyWorkings,
  entries: [{ kind: 'statistics', id: 'mean', name: '', of: 'channel:x', region: null }],
};
const plan = { conditions: [] };
const stored = jest.fn(async () => undefined);

test('a run that a worker holds is asked there, another one of the server when the sheet is stored; both say the same', async () => {
  const { pool } = poolHere();
  const run = runOf('shown', ['x']);
  await pool.put(run, { values: [swing(300)], times: [null] });
  const asked: string[] = [];
  const own = await outcomesOfRun(pool, { run, plan, workings, stored });
  expect(stored).not.toHaveBeenCalled();
  globalThis.fetch = (async (path: string) => {
    asked.push(path);
    return new Response(JSON.stringify({ ...own, runId: 'hidden' }));
  }) as typeof fetch;
  const other = await outcomesOfRun(pool, { run: runOf('hidden', ['x']), plan, workings, stored });
  expect(asked).toEqual(['/api/runs/hidden/outcomes']);
  expect(stored).toHaveBeenCalledTimes(1);
  expect(other).toEqual({ ...own, runId: 'hidden' });
  const [mean] = openedEvaluation(other);
  // A swing of 4 cm about 0.8 m, over 300 readings a tenth of a radian apart.
  expect(mean.quantity.value).toBeCloseTo(0.8, 2);
});
