import { type Investigation, type Run, lookOf } from '@heuristor/contracts';
import { type StoredEvaluation } from '@heuristor/core';
import { conditionsOf } from '@heuristor/evaluation';
import { type WebWorker } from 'puppeteer-core';
import { BenchHand } from './support/bench';
import { type System, startSystem, until } from './support/system';

// What the workings say of a run is worked out by a browser's worker where the run is shown, and by a thread of the server where it
// is not: the same code over the same readings, in two programs. Every number has to be the same to its last bit.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  // One's own, with the demo's investigations and no others.
  system = await startSystem({ own: true, demo: true });
  hand = new BenchHand(system.page);
  await system.open(`/sign-in/${await system.signInToken()}`);
  await hand.waitForText('Investigations');
});
afterEach(() => expect(system.faults).toEqual([]));
afterAll(() => system.close());

interface Listed {
  investigations: { id: string; name: string }[];
}

const fetched = <T>(path: string): Promise<T> =>
  system.page.evaluate(async (address) => (await (await fetch(`/api${address}`)).json()) as never, path);

/** Puts a question to a worker as the page does, and takes the answer before the page gets it; null where it holds no such run. */
const askWorker = (worker: WebWorker, runId: string, about: object): Promise<StoredEvaluation | null> =>
  worker.evaluate(
    (id, asked) =>
      new Promise<never>((resolve, reject) => {
        const call = `asked ${id}`;
        const post = self.postMessage.bind(self) as (message: unknown, rest?: never) => void;
        self.postMessage = (message: { id?: string; value?: unknown; type?: string }, rest?: unknown) => {
          if (message.id !== call) {
            post(message, rest as never);
            return;
          }
          self.postMessage = post as typeof self.postMessage;
          if (message.type === 'HANDLER') reject(new Error(JSON.stringify(message.value)));
          else resolve((message.value as unknown[])[0] as never);
        };
        const raw = (value: unknown) => ({ type: 'RAW', value });
        const data = {
          id: call,
          type: 'APPLY',
          path: ['ask'],
          argumentList: [raw([id]), raw('outcomes'), raw(asked)],
        };
        // One that is only starting listens to nobody yet.
        setTimeout(() => resolve(null as never), 15_000);
        self.dispatchEvent(new MessageEvent('message', { data, origin: location.origin }));
      }),
    runId,
    about as never,
  );

const heldBy = async (workers: readonly WebWorker[], run: Run, about: object) => {
  for (const worker of workers) {
    const answer = await askWorker(worker, run.id, about);
    if (answer !== null) return answer;
  }
  return null;
};

test('outcomes of all runs of the demo are the same in the browser and on the server, to the last bit', async () => {
  const { investigations } = await fetched<{ investigations: { id: string; name: string }[] }>(
    '/investigations',
  );
  let compared = 0;
  let numbers = 0;
  for (const { id, name } of investigations) {
    const { runs, plan, workings } = await fetched<Investigation>(`/investigations/${id}`);
    if (runs.length === 0) continue;
    await system.open(`/investigations/${id}`);
    await hand.element('[aria-label="Runs"]');
    const shown = runs.filter((run) => lookOf(run, workings.runs).shown && !run.removed);
    for (const run of shown) {
      const about = { sheets: [workings], conditions: conditionsOf(run, plan) };
      const own = await until(
        () => heldBy(system.page.workers(), run, about),
        (held) => held !== null,
      );
      const others = await fetched<StoredEvaluation>(`/runs/${run.id}/outcomes`);
      expect({ name, run: run.name, ...own }).toEqual({ name, run: run.name, ...others });
      compared++;
      numbers += others.results.length;
    }
  }
  expect(compared).toBeGreaterThan(20);
  expect(numbers).toBeGreaterThan(200);
}, 240_000);

test('a run whose readings no page has loaded is worked out all the same', async () => {
  const { investigations } = await fetched<Listed>('/investigations');
  const [{ id }] = investigations;
  await system.open('/');
  await hand.waitForText('Investigations');
  const { runs } = await fetched<Investigation>(`/investigations/${id}`);
  const asked: string[] = [];
  const note = (request: { url(): string }) => asked.push(new URL(request.url()).pathname);
  system.page.on('request', note);
  const outcomes = await fetched<StoredEvaluation>(`/runs/${runs[0].id}/outcomes`);
  system.page.off('request', note);
  expect(outcomes.results.length).toBeGreaterThan(0);
  expect(JSON.stringify(outcomes).length).toBeLessThan(5000 * Math.max(outcomes.results.length, 10));
  expect(asked).toEqual([`/api/runs/${runs[0].id}/outcomes`]);
});
