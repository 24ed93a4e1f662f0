import { type Run } from '@heuristor/contracts';
import { type FreshReadings, type RunReadings } from '@heuristor/evaluation';
import * as Comlink from 'comlink';
import { type RenderRequest, type RenderedRun } from '../workers/protocol';
import { type RunWorker } from '../workers/runWorker';
import { type AboutOf, type AnswerOf, type QuestionKey } from '../workers/questions';

/** Every call to a worker is answered later. */
type Remote = {
  [K in keyof RunWorker]: (...args: Parameters<RunWorker[K]>) => Promise<ReturnType<RunWorker[K]>>;
};

/** Readings on their way to a worker, and who waits for its answer. */
interface Waiting {
  part: FreshReadings;
  resolve: (missing: number | null) => void;
  reject: (error: unknown) => void;
}

const mostWorkers = 4;

/** Workers that are started before they are needed: reading their program takes a while. */
let spare: RunPool | null = null;

/** Several workers that share the runs of a bench: each run lives in one of them. */
export class RunPool {
  private readonly places = new Map<string, number>();
  private readonly channels = new Map<number, string>();
  private readonly waiting = new Map<Remote, Waiting[]>();
  private next = 0;

  constructor(
    private readonly workers: readonly Remote[],
    private readonly end: () => void = () => undefined,
  ) {}

  /** Workers that nobody uses yet. */
  static take(): RunPool {
    const pool = spare ?? RunPool.start();
    spare = null;
    return pool;
  }

  /** Starts workers for the bench that is about to open. */
  static prepare(): void {
    spare ??= RunPool.start();
  }

  private static start(): RunPool {
    const count = Math.max(1, Math.min(navigator.hardwareConcurrency, mostWorkers));
    const threads = Array.from(
      { length: count },
      () => new Worker(new URL('../workers/run.worker.ts', import.meta.url), { type: 'module' }),
    );
    return new RunPool(
      threads.map((thread) => Comlink.wrap<RunWorker>(thread) as unknown as Remote),
      () => threads.forEach((thread) => thread.terminate()),
    );
  }

  dispose(): void {
    this.end();
    // The next bench finds its workers running.
    if (spare === null) spare = RunPool.start();
  }

  async put(run: Run, readings: RunReadings): Promise<void> {
    const place = this.places.get(run.id) ?? this.next++ % this.workers.length;
    this.places.set(run.id, place);
    for (const { id } of run.channels) this.channels.set(id, run.id);
    const buffers = [...readings.values, ...readings.times.filter((times) => times !== null)].map(
      ({ buffer }) => buffer,
    );
    await this.workers[place].put(run, Comlink.transfer(readings, [...new Set(buffers)] as Transferable[]));
  }

  /** Adds readings; answers where readings are missing before them, or null. */
  async append(
    channelId: number,
    firstIndex: number,
    values: Float64Array,
    times: Float64Array | null,
  ): Promise<number | null> {
    const worker = this.workerOf(this.channels.get(channelId) ?? '');
    if (worker === null) return null;
    return new Promise((resolve, reject) => {
      const waiting = this.waiting.get(worker) ?? [];
      if (waiting.length === 0) {
        this.waiting.set(worker, waiting);
        queueMicrotask(() => void this.handOver(worker));
      }
      waiting.push({ part: { channelId, firstIndex, values, times }, resolve, reject });
    });
  }

  /** What has come in one turn, of however many channels, is one message to a worker. */
  private async handOver(worker: Remote): Promise<void> {
    const waiting = this.waiting.get(worker) ?? [];
    this.waiting.delete(worker);
    try {
      const answers = await worker.append(waiting.map(({ part }) => part));
      waiting.forEach(({ resolve }, i) => resolve(answers[i]));
    } catch (error) {
      waiting.forEach(({ reject }) => reject(error));
    }
  }

  drop(runId: string): void {
    void this.workerOf(runId)?.drop(runId);
    this.places.delete(runId);
    for (const [channel, run] of this.channels) if (run === runId) this.channels.delete(channel);
  }

  /** Puts a question to a run; null where it is not held. @throws Error that says why there is no answer */
  async ask<K extends QuestionKey>(runId: string, key: K, ...about: AboutOf<K>): Promise<AnswerOf<K> | null> {
    const worker = this.workerOf(runId);
    if (worker === null) return null;
    const [answer] = await worker.ask([runId], key, about[0]);
    return answer as AnswerOf<K> | null;
  }

  /** The same of a run that has to be there. @throws Error where it is not, too */
  async demand<K extends QuestionKey>(
    runId: string,
    key: K,
    ...about: AboutOf<K>
  ): Promise<NonNullable<AnswerOf<K>>> {
    const answer = await this.ask(runId, key, ...about);
    if (answer === null || answer === undefined) throw new Error('This run is not here. Show it first.');
    return answer;
  }

  /** Puts one question to several runs, one message to each worker; what those say that are held and know something, in their order. */
  async askAll<K extends QuestionKey>(
    runIds: readonly string[],
    key: K,
    ...about: AboutOf<K>
  ): Promise<NonNullable<AnswerOf<K>>[]> {
    const byId = new Map<string, unknown>();
    await Promise.all(
      this.shared(runIds).map(async ([worker, ids]) => {
        const answers = await worker.ask(ids, key, about[0]);
        ids.forEach((id, i) => byId.set(id, answers[i]));
      }),
    );
    return runIds
      .map((id) => byId.get(id) as AnswerOf<K> | null | undefined)
      .filter((answer): answer is NonNullable<AnswerOf<K>> => answer !== null && answer !== undefined);
  }

  async render(runIds: readonly string[], request: RenderRequest): Promise<RenderedRun[]> {
    const answers = await Promise.all(
      this.shared(runIds).map(([worker, ids]) => worker.render(ids, request)),
    );
    const byId = new Map(answers.flat().map((rendered) => [rendered.runId, rendered]));
    return runIds.map((id) => byId.get(id)).filter((rendered) => rendered !== undefined);
  }

  /** Whether a run is in one of the workers. */
  holds(runId: string): boolean {
    return this.places.has(runId);
  }

  private workerOf(runId: string): Remote | null {
    const place = this.places.get(runId);
    return place === undefined ? null : this.workers[place];
  }

  private shared(runIds: readonly string[]): [worker: Remote, runIds: string[]][] {
    const byPlace = new Map<number, string[]>();
    for (const id of runIds) {
      const place = this.places.get(id);
      if (place !== undefined) byPlace.set(place, [...(byPlace.get(place) ?? []), id]);
    }
    return [...byPlace].map(([place, ids]) => [this.workers[place], ids]);
  }
}
