import { type Plan, type Run, type WorkingsDocument } from '@heuristor/contracts';
import { type StoredEvaluation, restrictedTo, withConstantAt } from '@heuristor/core';
import { conditionsOf } from '@heuristor/evaluation';
import { availableParallelism } from 'node:os';
import { setFlagsFromString } from 'node:v8';
import PQueue from 'p-queue';
import { type Logger } from 'pino';
import { Piscina } from 'piscina';
import { Failure } from '../failure';
import { threadProgram } from '../threads';
import { type Asked, type OwnedSheet, askedAbout, statesOf } from './askedRuns';
import { type Made, type Wanted, findKept, keep } from './keptEvaluations';
import { type EvaluationTask } from './task';

const mostWaiting = 500;
const youngMegabytes = 32;

/** Of a run that goes on, what is said now is not said any more in a moment. */
const isAtRest = ({ state }: Run): boolean => state === 'ended' || state === 'interrupted';

/**
 * What workings say of any run, also of one that no screen shows: worked out on threads of the server by the same code as in a
 * browser's workers, and kept by run and by what each entry depends on.
 */
export class Evaluations {
  private readonly pool: Piscina;
  /** What is being worked out: who asks the same meanwhile gets the same. */
  private readonly underWay = new Map<string, Promise<StoredEvaluation | Failure>>();
  private readonly waiting = new PQueue();

  /**
   * @param database address of the database, from which the threads fetch readings
   * @param isRecording whether anything is recorded now: one core is left to that
   */
  constructor(
    database: string,
    private readonly isRecording: () => boolean,
    private readonly log: Logger,
  ) {
    // Whoever evaluates makes and drops thousands of arrays. In a young generation of the usual size they outlive it by chance, and looking
    // for them among what is old takes half as much time again as the evaluation. A new thread begins with this size at once;
    // those of imports too, as far as their own limits let them.
    setFlagsFromString(`--min-semi-space-size=${youngMegabytes}`);
    this.pool = new Piscina({
      ...threadProgram('evaluation/worker'),
      workerData: { database },
      // The young generation is three such spaces.
      resourceLimits: { maxYoungGenerationSizeMb: 3 * youngMegabytes },
      minThreads: 0,
      maxThreads: availableParallelism(),
      idleTimeout: 120_000,
    });
  }

  /**
   * What sheets say of a run, evaluated together.
   * @param entries the only ones that are asked for; null for all of them
   * @throws Failure
   */
  async of(
    run: Run,
    plan: Pick<Plan, 'conditions'>,
    sheets: readonly OwnedSheet[],
    entries: ReadonlySet<string> | null = null,
  ): Promise<StoredEvaluation> {
    const [answer] = await this.ofRuns([run], plan, sheets, entries);
    if (answer instanceof Failure) throw answer;
    return answer;
  }

  /** The same of several runs, each by itself, in their order; what was kept of them is found together. */
  async ofRuns(
    runs: readonly Run[],
    plan: Pick<Plan, 'conditions'>,
    sheets: readonly OwnedSheet[],
    entries: ReadonlySet<string> | null = null,
  ): Promise<(StoredEvaluation | Failure)[]> {
    const wanted = wantedOf(sheets, entries);
    const asked = await askedAbout(runs, plan, sheets);
    const kept = await keptOf(asked, wanted);
    const others = asked.filter(({ made }) => !kept.has(made.runId));
    const made = await this.workOut(others);
    return asked.map((one) => {
      const whole = kept.get(one.made.runId) ?? made[others.indexOf(one)];
      return whole instanceof Failure
        ? whole
        : restrictedTo(whole, (sheet, entry) => wanted[sheet].has(entry));
    });
  }

  /** What was kept of runs and still stands; nothing is worked out. Null of one of which nothing was. */
  async keptOf(
    runs: readonly Run[],
    plan: Pick<Plan, 'conditions'>,
    sheets: readonly OwnedSheet[],
  ): Promise<(StoredEvaluation | null)[]> {
    const kept = await keptOf(await askedAbout(runs, plan, sheets), wantedOf(sheets, null));
    return runs.map(({ id }) => kept.get(id) ?? null);
  }

  /**
   * What a sheet says of a run for each of several values of a constant, together, so that what they owe to the same readings is known.
   * It is not kept: nobody asks the same twice.
   * @throws Failure
   */
  async across(
    run: Run,
    plan: Pick<Plan, 'conditions'>,
    workings: WorkingsDocument,
    {
      constant,
      values,
      entries,
    }: { constant: string; values: readonly number[]; entries: readonly string[] },
  ): Promise<StoredEvaluation> {
    const [state] = await statesOf([run]);
    return this.ask({
      run,
      state,
      conditions: conditionsOf(run, plan),
      sheets: values.map((value) => withConstantAt(workings, constant, value)),
      only: entries,
    });
  }

  async close(): Promise<void> {
    await this.pool.destroy();
  }

  /** Works runs out, and keeps what comes of them when all are done; in their order. */
  private async workOut(asked: readonly Asked[]): Promise<(StoredEvaluation | Failure)[]> {
    const answers = asked.map(({ made, task }) => {
      const key = JSON.stringify(made);
      const same = this.underWay.get(key);
      if (same !== undefined) return same;
      const answer = this.ask(task).catch(orFailure);
      this.underWay.set(key, answer);
      return answer;
    });
    try {
      const evaluations = await Promise.all(answers);
      await this.keep(
        asked.flatMap(({ made, task }, i): [Made, StoredEvaluation][] => {
          const said = evaluations[i];
          return said instanceof Failure || !isAtRest(task.run) ? [] : [[made, said]];
        }),
      );
      return evaluations;
    } finally {
      asked.forEach(({ made }, i) => {
        const key = JSON.stringify(made);
        if (this.underWay.get(key) === answers[i]) this.underWay.delete(key);
      });
    }
  }

  /** What cannot be kept is worked out again the next time. */
  private async keep(said: readonly [Made, StoredEvaluation][]): Promise<void> {
    if (said.length === 0) return;
    await keep(said).catch((error: unknown) => this.log.warn(error, 'what was worked out could not be kept'));
  }

  private async ask(task: EvaluationTask): Promise<StoredEvaluation> {
    if (this.waiting.size >= mostWaiting)
      throw new Failure(
        'too-many-requests',
        `${mostWaiting} runs are waiting to be worked out. Ask again when some of them are done.`,
      );
    this.setPace();
    const answer = await this.waiting.add(async () => {
      // Between two runs, so that a run that begins waits for one evaluation at most.
      this.setPace();
      return (await this.pool.run(task)) as StoredEvaluation | { refused: string };
    });
    if ('refused' in answer) throw new Failure('invalid-request', answer.refused);
    return answer;
  }

  private setPace(): void {
    this.waiting.concurrency = Math.max(1, availableParallelism() - Number(this.isRecording()));
  }
}

const orFailure = (error: unknown): Failure => {
  if (error instanceof Failure) return error;
  throw error;
};

const wantedOf = (sheets: readonly OwnedSheet[], entries: ReadonlySet<string> | null): Wanted =>
  sheets.map(
    ({ workings }) => new Set(workings.entries.map(({ id }) => id).filter((id) => entries?.has(id) ?? true)),
  );

const keptOf = (asked: readonly Asked[], wanted: Wanted): Promise<Map<string, StoredEvaluation>> =>
  findKept(
    asked.filter(({ task }) => isAtRest(task.run)).map(({ made }) => made),
    wanted,
  );
