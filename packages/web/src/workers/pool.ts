import { type Run, type WorkingsDocument } from '@heuristor/contracts';
import {
  type Drawn,
  type JointFit,
  type BudgetRow,
  type HampelRule,
  type SeriesRef,
  type Working,
  writeColumns,
} from '@heuristor/core';
import * as Comlink from 'comlink';
import {
  type ChosenReadings,
  type CursorQuestion,
  type CursorReading,
  type Extent,
  type FreshReadings,
  type RenderRequest,
  type RenderedRun,
  type RunReadings,
  type RunWorker,
  type Stretch,
  type TriedPoints,
} from './protocol';
import { type RunEvent, type RunMoments } from './runEvents';
import { type SeenReadings } from './seen';

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
      () => new Worker(new URL('./run.worker.ts', import.meta.url), { type: 'module' }),
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

  async seenIn(runId: string): Promise<SeenReadings[]> {
    return (await this.workerOf(runId)?.seenIn(runId)) ?? [];
  }

  async lengths(runId: string): Promise<number[]> {
    return (await this.workerOf(runId)?.lengths(runId)) ?? [];
  }

  async extents(
    runIds: readonly string[],
    workings: WorkingsDocument,
    horizontal: SeriesRef,
  ): Promise<Extent[]> {
    const answers = await Promise.all(
      this.shared(runIds).map(([worker, ids]) => worker.extents(ids, workings, horizontal)),
    );
    return answers.flat().filter((extent) => extent !== null);
  }

  async render(runIds: readonly string[], request: RenderRequest): Promise<RenderedRun[]> {
    const answers = await Promise.all(
      this.shared(runIds).map(([worker, ids]) => worker.render(ids, request)),
    );
    const byId = new Map(answers.flat().map((rendered) => [rendered.runId, rendered]));
    return runIds.map((id) => byId.get(id)).filter((rendered) => rendered !== undefined);
  }

  /** What runs are at a cursor, in their order. */
  async cursor(runIds: readonly string[], question: CursorQuestion): Promise<CursorReading[]> {
    const answers = await Promise.all(
      this.shared(runIds).map(([worker, ids]) => worker.cursor(ids, question)),
    );
    const byId = new Map(answers.flat().map((reading) => [reading.runId, reading]));
    return runIds.map((id) => byId.get(id)).filter((reading) => reading !== undefined);
  }

  async stepped(
    runId: string,
    workings: WorkingsDocument,
    reference: SeriesRef,
    at: number,
    by: number,
  ): Promise<number | null> {
    return (await this.workerOf(runId)?.stepped(runId, workings, reference, at, by)) ?? null;
  }

  async events(
    runIds: readonly string[],
    workings: WorkingsDocument,
    event: RunEvent,
  ): Promise<RunMoments[]> {
    const answers = await Promise.all(
      this.shared(runIds).map(([worker, ids]) => worker.events(ids, workings, event)),
    );
    return answers.flat();
  }

  async readingsIn(
    runId: string,
    workings: WorkingsDocument,
    reference: SeriesRef,
    stretch: Stretch,
  ): Promise<ChosenReadings | null> {
    return (await this.workerOf(runId)?.readingsIn(runId, workings, reference, stretch)) ?? null;
  }

  async outliersIn(
    runId: string,
    workings: WorkingsDocument,
    reference: SeriesRef,
    stretch: Stretch,
    rule: HampelRule,
  ): Promise<ChosenReadings | null> {
    return (await this.workerOf(runId)?.outliersIn(runId, workings, reference, stretch, rule)) ?? null;
  }

  /** The worker that holds a run, to be asked for what only it knows; null where none does. */
  of(
    runId: string,
  ): Pick<
    Remote,
    'tableShape' | 'tablePart' | 'tableRow' | 'tableText' | 'nearPoint' | 'readingsWithin'
  > | null {
    return this.workerOf(runId);
  }

  async budget(
    runId: string,
    workings: WorkingsDocument,
    entryId: string,
    key: string,
  ): Promise<BudgetRow[]> {
    return (await this.workerOf(runId)?.budget(runId, workings, entryId, key)) ?? [];
  }

  async working(
    runId: string,
    workings: WorkingsDocument,
    entryId: string,
    key: string,
  ): Promise<Working | null> {
    return (await this.workerOf(runId)?.working(runId, workings, entryId, key)) ?? null;
  }

  /** Every relation tried on the readings of a region. @throws Error that says why it cannot be */
  async tryRelations(
    runId: string,
    workings: WorkingsDocument,
    asked: { of: SeriesRef; against: SeriesRef; region: string | null },
  ): Promise<TriedPoints> {
    return this.workerFor(runId).tryRelations(runId, workings, asked);
  }

  /** What many draws say of a result by a formula. @throws Error that says why it cannot be */
  async drawn(runId: string, workings: WorkingsDocument, entryId: string, count: number): Promise<Drawn> {
    return this.workerFor(runId).drawn(runId, workings, entryId, count);
  }

  /** One relation through the readings of several runs, which different workers may hold. @throws Error that says why it cannot be */
  async jointFit(
    runIds: readonly string[],
    workings: WorkingsDocument,
    entryId: string,
    shared: number[],
  ): Promise<JointFit> {
    const sets = await Promise.all(
      runIds.map(async (id) => this.workerFor(id).fitPoints(id, workings, entryId)),
    );
    const [{ units }] = sets;
    const other = sets.find((set) => set.units !== units);
    if (other !== undefined)
      throw new Error(
        `Some of these runs are of ${units}, others of ${other.units}. Hide those that measure something else.`,
      );
    return this.workerFor(runIds[0]).jointFit(
      runIds[0],
      workings,
      entryId,
      sets.map(({ points }) => points),
      shared,
    );
  }

  private workerFor(runId: string) {
    const worker = this.workerOf(runId);
    if (worker === null) throw new Error('This run is not here. Show it first.');
    return worker;
  }

  /** Runs with their derived series as CSV text; with several runs, every heading begins with the name of its run. */
  async exportCsv(
    runs: readonly { id: string; name: string }[],
    workings: WorkingsDocument,
  ): Promise<string> {
    const names = distinct(runs.map(({ name }) => name));
    const parts = await Promise.all(
      runs.map(
        ({ id }, i) =>
          this.workerOf(id)?.columns({ id, prefix: runs.length > 1 ? `${names[i]}: ` : '' }, workings) ?? [],
      ),
    );
    return writeColumns(parts.flat());
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

/** Names that are all different, so that runs of one name stay apart in a file. */
function distinct(names: readonly string[]): string[] {
  const used = new Set<string>();
  return names.map((wish) => {
    // A colon ends the name in a heading.
    const plain = wish.replaceAll(': ', ' ');
    let name = plain;
    for (let n = 2; used.has(name); n++) name = `${plain} (${n})`;
    used.add(name);
    return name;
  });
}
