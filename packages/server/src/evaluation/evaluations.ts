import { type Plan, type Run, type WorkingsDocument } from '@heuristor/contracts';
import { type StoredEvaluation, dependenciesOf, restrictedTo, withConstantAt } from '@heuristor/core';
import { conditionsOf } from '@heuristor/evaluation';
import { createHash } from 'node:crypto';
import { availableParallelism } from 'node:os';
import { type Logger } from 'pino';
import { Piscina } from 'piscina';
import { Failure } from '../failure';
import { lengthsOf } from '../services/samples';
import { threadProgram } from '../threads';
import { type Made, type Wanted, findKept, keep } from './keptEvaluations';
import { programThatEvaluates } from './program';
import { type EvaluationTask } from './task';

/** A sheet, and whose it is. */
export interface OwnedSheet {
  owner: string;
  workings: WorkingsDocument;
}

const mostWaiting = 500;

/** Of a run that goes on, what is said now is not said any more in a moment. */
const isAtRest = ({ state }: Run): boolean => state === 'ended' || state === 'interrupted';

/**
 * What workings say of any run, also of one that no screen shows: worked out on threads of the server by the same code as in a
 * browser's workers, and kept by run and by what each entry depends on.
 */
export class Evaluations {
  private readonly pool: Piscina;
  /** What is being worked out: who asks the same meanwhile gets the same. */
  private readonly underWay = new Map<string, Promise<StoredEvaluation>>();

  /** @param database address of the database, from which the threads fetch readings */
  constructor(
    database: string,
    private readonly log: Logger,
  ) {
    this.pool = new Piscina({
      ...threadProgram('evaluation/worker'),
      workerData: { database },
      minThreads: 0,
      // One core is left to those who record.
      maxThreads: Math.max(1, availableParallelism() - 1),
      maxQueue: mostWaiting,
      idleTimeout: 30_000,
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
    const conditions = conditionsOf(run, plan);
    const state = await stateOf(run);
    const made: Made = {
      runId: run.id,
      owners: sheets.length === 1 ? sheets[0].owner : hashOf(sheets.map(({ owner }) => owner).join()),
      made: hashOf(`${programThatEvaluates()}${state}${JSON.stringify(conditions)}`),
      keys: sheets.map(({ workings }) => hashed(dependenciesOf(workings, run.id))),
    };
    const wanted: Wanted = sheets.map(
      ({ workings }) =>
        new Set(workings.entries.map(({ id }) => id).filter((id) => entries?.has(id) ?? true)),
    );
    const kept = isAtRest(run) ? await findKept(made, wanted) : null;
    if (kept !== null) return kept;
    const whole = await this.workOut(
      { run, state, conditions, sheets: sheets.map(({ workings }) => workings) },
      made,
    );
    return restrictedTo(whole, (sheet, entry) => wanted[sheet].has(entry));
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
    return this.ask({
      run,
      state: await stateOf(run),
      conditions: conditionsOf(run, plan),
      sheets: values.map((value) => withConstantAt(workings, constant, value)),
      only: entries,
    });
  }

  async close(): Promise<void> {
    await this.pool.destroy();
  }

  private async workOut(task: EvaluationTask, made: Made): Promise<StoredEvaluation> {
    const key = JSON.stringify(made);
    const same = this.underWay.get(key);
    if (same !== undefined) return same;
    const answer = this.ask(task).then(async (evaluation) => {
      // What cannot be kept is worked out again the next time.
      if (isAtRest(task.run))
        await keep(made, evaluation).catch((error: unknown) =>
          this.log.warn(error, 'what was worked out could not be kept'),
        );
      return evaluation;
    });
    this.underWay.set(key, answer);
    try {
      return await answer;
    } finally {
      this.underWay.delete(key);
    }
  }

  private async ask(task: EvaluationTask): Promise<StoredEvaluation> {
    if (this.pool.queueSize >= mostWaiting)
      throw new Failure(
        'too-many-requests',
        `${mostWaiting} runs are waiting to be worked out. Ask again when some of them are done.`,
      );
    const answer = (await this.pool.run(task)) as StoredEvaluation | { refused: string };
    if ('refused' in answer) throw new Failure('invalid-request', answer.refused);
    return answer;
  }
}

/** What of a run decides what is worked out from it: also one that has ended may be fetched on from a device. */
const stateOf = async ({ id, channels, spot, plan }: Run): Promise<string> =>
  JSON.stringify([
    id,
    channels,
    spot === null ? await lengthsOf(channels.map((channel) => channel.id)) : [spot.rows, spot.columns],
    plan?.way === 'pace' ? plan.pace : null,
  ]);

const hashOf = (text: string): string => createHash('sha256').update(text).digest('hex');

const hashed = (texts: ReadonlyMap<string, string>): Record<string, string> =>
  Object.fromEntries([...texts].map(([id, text]) => [id, hashOf(text)]));
