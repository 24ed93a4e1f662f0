import { type WorkingsDocument, emptyWorkings } from '@heuristor/contracts';
import { openedEvaluation } from '@heuristor/core';
import { poolHere, runOf, swing } from '../testing/runs';
import { outcomesOfRuns } from './outcomes';

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
  const of = { investigation: 'i', plan, workings, stored };
  const [own] = await outcomesOfRuns(pool, { ...of, runs: [run] });
  if ('failed' in own) throw new Error(own.failed);
  expect(stored).not.toHaveBeenCalled();
  globalThis.fetch = (async (path: string) => {
    asked.push(path);
    return new Response(
      JSON.stringify([
        { ...own, runId: 'hidden' },
        { runId: 'bad', failed: 'It is broken.' },
      ]),
    );
  }) as typeof fetch;
  const hidden = ['hidden', 'bad'].map((id) => runOf(id, ['x']));
  const [other, bad] = await outcomesOfRuns(pool, { ...of, runs: hidden });
  expect(bad).toEqual({ runId: 'bad', failed: 'It is broken.' });
  if (!('results' in other)) throw new Error('There is no answer.');
  expect(asked).toEqual(['/api/investigations/i/outcomes?runs=hidden,bad']);
  expect(stored).toHaveBeenCalledTimes(1);
  expect(other).toEqual({ ...own, runId: 'hidden' });
  const [mean] = openedEvaluation(other);
  // A swing of 4 cm about 0.8 m, over 300 readings a tenth of a radian apart.
  expect(mean.quantity.value).toBeCloseTo(0.8, 2);
});
