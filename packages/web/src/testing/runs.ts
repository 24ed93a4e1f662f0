import { type Run } from '@heuristor/contracts';
import { type SeenRun } from '../runs/seenRun';
import { HeldRuns, type RunReadings } from '@heuristor/evaluation';
import { type Evaluator, type StoredEvaluation } from '@heuristor/core';
import { RunPool } from '../runs/pool';
import { answersOf } from '../workers/questions';
import { type RunWorker } from '../workers/runWorker';

/** A run of made-up channels at 50 Hz; their ids count from `firstId`. */
export const runOf = (
  id: string,
  keys: string[],
  { unit = 'm', firstId = 1, ...changes }: Partial<SeenRun> & { unit?: string; firstId?: number } = {},
): SeenRun => ({
  id,
  investigationId: 'i',
  number: 1,
  name: id,
  origin: 'recorded',
  state: 'ended',
  shown: true,
  style: 0,
  startedAt: '2026-11-23T10:00:00Z',
  timeZone: 'UTC',
  removed: false,
  gaps: [],
  notes: [],
  plan: null,
  practice: false,
  keepPinned: false,
  conditions: {},
  group: '',
  remark: '',
  planned: null,
  spot: null,
  channels: keys.map((key, i) => ({
    id: firstId + i,
    key,
    symbol: key,
    quantity: key === 'x' ? 'position' : key,
    unit: key === 'x' ? unit : 'N',
    timeUnit: 's',
    sampling: { kind: 'regular', start: 0, interval: 0.02 },
    low: 0.15,
    high: 600,
    noise: null,
    edges: null,
    deviceCode: 'K7-D',
    resolution: 0,
    applied: null,
  })),
  ...changes,
});

/** A swing of 4 cm about 0.8 m, a tenth of a radian from reading to reading. */
export const swing = (count: number) =>
  Float64Array.from({ length: count }, (_, i) => 0.8 + 0.04 * Math.sin(i * 0.1));

/** An evaluator over a run that is held as a worker holds it. */
export function stored(run: Run, values: Float64Array[], single?: RunReadings['single']): Evaluator {
  const store = new HeldRuns();
  store.put(run, { values, times: values.map(() => null), ...(single === undefined ? {} : { single }) });
  const evaluator = store.evaluator(run.id);
  if (evaluator === null) throw new Error('the run is not there');
  return evaluator;
}

/** A pool whose one worker lives in this very thread. */
export function poolHere(): { pool: RunPool; store: HeldRuns } {
  const store = new HeldRuns();
  const worker: Partial<RunWorker> = {
    put: (run, readings) => store.put(run, readings),
    append: (parts) => store.appendAll(parts),
    drop: (runId) => store.drop(runId),
    ask: (runIds, key, about) => answersOf((id) => store.held(id), runIds, key, about),
  };
  const later = new Proxy(worker, {
    get:
      (target, name: keyof RunWorker) =>
      (...args: never[]) =>
        Promise.resolve((target[name] as (...all: never[]) => unknown)(...args)),
  });
  return { pool: new RunPool([later as never]), store };
}

/** What an empty sheet says of a run. */
export const emptyEvaluation = (runId: string): StoredEvaluation => ({
  runId,
  sheets: [{}],
  results: [],
  shared: [],
  own: [],
  repeats: [],
});
