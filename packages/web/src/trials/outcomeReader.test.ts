import { type OutcomesOfRuns, type Run, emptyWorkings, mostKeptAtOnce } from '@heuristor/contracts';
import { emptyEvaluation, runOf } from '../testing/runs';
import { OutcomeReader } from './outcomeReader';

const plan = { conditions: [] };
const workings = emptyWorkings;
const pool = { holds: () => false, demand: () => Promise.reject(new Error('no run is held here')) };
const runsOf = (count: number): Run[] => Array.from({ length: count }, (_, i) => runOf(`r${i}`, ['x']));

let reader: OutcomeReader;
let faults: string[];
/** What was asked: whether only for what was kept, and of how many runs. */
let asked: { onlyKept: boolean; count: number }[];
/** What the server does: it has kept what is said of some runs, and may be gone. */
let server: { kept: ReadonlySet<string>; isGone: boolean };

beforeEach(() => {
  jest.useFakeTimers();
  faults = [];
  asked = [];
  server = { kept: new Set(), isGone: false };
  globalThis.fetch = (async (path: string) => {
    const query = new URL(path, 'http://here').searchParams;
    const ids = (query.get('runs') ?? '').split(',');
    asked.push({ onlyKept: query.has('kept'), count: ids.length });
    if (server.isGone) throw new TypeError('no connection');
    const answers = ids.map((runId): OutcomesOfRuns[number] =>
      query.has('kept') && !server.kept.has(runId) ? { runId, notKept: true } : emptyEvaluation(runId),
    );
    return new Response(JSON.stringify(answers));
  }) as typeof fetch;
  reader = new OutcomeReader(
    'i',
    pool,
    async () => undefined,
    (sentence) => faults.push(sentence),
  );
});
afterEach(() => {
  reader.dispose();
  jest.useRealTimers();
});

const outcomes = () => reader.state.getState().outcomes;
const settle = () => jest.advanceTimersByTimeAsync(10_000);

test('what was kept of hundreds of runs comes with few questions', async () => {
  const runs = runsOf(2 * mostKeptAtOnce);
  server.kept = new Set(runs.map(({ id }) => id));
  reader.want({ runs, workings, plan });
  await settle();
  expect(asked).toEqual(Array(2).fill({ onlyKept: true, count: mostKeptAtOnce }));
  expect(outcomes().size).toBe(runs.length);
  expect(reader.state.getState().waiting).toBe(0);
});

test('of what was not kept few runs are asked about at once, and each of them is waited for until it is there', async () => {
  const runs = runsOf(40);
  server.kept = new Set(['r3', 'r4']);
  reader.want({ runs, workings, plan });
  expect(reader.state.getState().waiting).toBe(40);
  await settle();
  const [first, ...others] = asked;
  expect(first).toEqual({ onlyKept: true, count: 40 });
  expect(others.map(({ count }) => count)).toEqual([12, 12, 12, 2]);
  expect(others.every(({ onlyKept }) => !onlyKept)).toBe(true);
  expect(outcomes().size).toBe(40);
  // Another sheet: nothing can be kept of it.
  asked = [];
  reader.want({ runs, workings: { ...workings, entries: [] }, plan });
  await settle();
  expect(asked.some(({ onlyKept }) => onlyKept)).toBe(false);
  expect(reader.state.getState().waiting).toBe(0);
});

test('a server that is gone is said once, and asked again until it is back', async () => {
  server.isGone = true;
  reader.want({ runs: runsOf(3), workings, plan });
  await settle();
  await settle();
  expect(faults).toEqual([
    'The runs could not be worked out. Heuristor does not answer. Is it still running? What was recorded is kept.',
  ]);
  expect(outcomes().size).toBe(0);
  expect(reader.state.getState().waiting).toBe(3);
  server.isGone = false;
  await settle();
  expect(outcomes().size).toBe(3);
  expect(reader.state.getState().waiting).toBe(0);
});
