import { type Job } from '@heuristor/contracts';
import { raw } from 'objection';
import { type Logger } from 'pino';
import { type Bus } from '../bus';
import { Failure } from '../failure';
import { JobModel } from '../models/job';
import { livesIn } from '../services/processLease';
import { type AnyJobKind } from './jobKind';

/** What was begun is given back within so long when a process ends, in milliseconds; a database that does not answer is not waited for. */
const mostAtEnd = 3000;
/** So many are worked on at once in a process. */
const mostAtOnce = 2;
const progressMilliseconds = 300;
/** A job that failed by a fault is tried again after so long, times its attempts. */
const pauseSeconds = 5;
/** What became of a job can be asked for so long. */
const rememberedHours = 24;
const mostWaiting = 1000;

interface Parts {
  kinds: readonly AnyJobKind[];
  bus: Bus;
  /** The process that this is, by its id. */
  process: string;
  log: Logger;
}

interface For {
  person?: string;
  investigation?: string;
}

/**
 * What may wait, in one row in the database that all processes share: each takes what is next, nobody twice, and what a process was
 * doing that has ended is taken by another one.
 */
export class Queue {
  private readonly kinds: ReadonlyMap<string, AnyJobKind>;
  private readonly bus: Bus;
  private readonly process: string;
  private readonly log: Logger;
  private readonly working = new Map<number, { abort: AbortController; done: Promise<void> }>();
  private taking: Promise<void> | null = null;
  private isClosed = false;

  constructor({ kinds, bus, process, log }: Parts) {
    this.kinds = new Map(kinds.map((kind) => [kind.key, kind]));
    this.bus = bus;
    this.process = process;
    this.log = log;
    bus.on('beat', () => this.takeNext());
  }

  /** Puts something at the end of the row. @throws Failure where too much waits already */
  async add(kind: string, task: object, { person, investigation }: For = {}): Promise<Job> {
    const known = this.kinds.get(kind);
    if (known === undefined) throw new Error(`there is no kind of job “${kind}”`);
    const waiting = await JobModel.query().where({ state: 'waiting' }).resultSize();
    if (waiting >= mostWaiting)
      throw new Failure('too-many-requests', `${waiting} jobs are waiting already. Try again later.`);
    await JobModel.query()
      .where('endedAt', '<', raw(`now() - ? * interval '1 hour'`, [rememberedHours]))
      .delete();
    const job = await JobModel.query().insertAndFetch({
      kind,
      task: known.task.parse(task) as object,
      person: person ?? null,
      investigationId: investigation ?? null,
      state: 'waiting',
    });
    this.takeNext();
    return presentJob(job);
  }

  /** What becomes of something that a person wanted. @throws Failure */
  async status(person: string, id: number): Promise<Job> {
    return presentJob(await this.find(person, id));
  }

  /** Gives up what a person wanted; what is done of it stays. @throws Failure */
  async cancel(person: string, id: number): Promise<Job> {
    await this.find(person, id);
    await JobModel.query()
      .findById(id)
      .whereIn('state', ['waiting', 'running'])
      .patch({ state: 'cancelled', endedAt: new Date() });
    this.working.get(id)?.abort.abort();
    const job = await this.find(person, id);
    this.tell(job);
    return presentJob(job);
  }

  /** Ends what is being worked on; it is taken again by the next process. */
  async close(): Promise<void> {
    this.isClosed = true;
    for (const { abort } of this.working.values()) abort.abort();
    const all = Promise.all([this.taking, ...[...this.working.values()].map(({ done }) => done)]);
    await Promise.race([all, new Promise((resolve) => setTimeout(resolve, mostAtEnd).unref())]);
  }

  private async find(person: string, id: number): Promise<JobModel> {
    const job = await JobModel.query().findById(id);
    if (job?.person !== person)
      throw new Failure('not-found', 'You asked for no job of that number in the last day.');
    return job;
  }

  /** Takes jobs as long as there are any and there is time for them. */
  private takeNext(): void {
    if (this.taking !== null) return;
    this.taking = this.takeAll().finally(() => (this.taking = null));
  }

  private async takeAll(): Promise<void> {
    try {
      while (!this.isClosed && this.working.size < mostAtOnce) {
        const job = await this.take();
        if (job === undefined) return;
        // It was closed while this one was taken.
        if (this.closed()) {
          await this.giveBack(job);
          return;
        }
        const abort = new AbortController();
        const done = this.work(job, abort).finally(() => {
          this.working.delete(job.id);
          this.takeNext();
        });
        this.working.set(job.id, { abort, done });
      }
    } catch (error) {
      if (!this.isClosed) this.log.warn({ error: String(error) }, 'what waits is looked for again');
    }
  }

  /** Asked anew after each wait. */
  private closed(): boolean {
    return this.isClosed;
  }

  /** The first that waits, or whose process has ended; it is this process's from now on. */
  private async take(): Promise<JobModel | undefined> {
    const next = JobModel.query()
      .whereIn('kind', [...this.kinds.keys()])
      .where((is) =>
        is
          .where((due) => due.where({ state: 'waiting' }).where('notBefore', '<=', raw('now()')))
          .orWhere((left) => left.where({ state: 'running' }).whereRaw(`not ${livesIn('"takenBy"')}`)),
      )
      .orderBy('id')
      .limit(1)
      .forUpdate()
      .skipLocked()
      .select('id');
    const [taken] = await JobModel.query()
      .whereIn('id', next)
      .patch({ state: 'running', takenBy: this.process, attempts: raw('attempts + 1') })
      .returning('*');
    return taken;
  }

  private async work(job: JobModel, abort: AbortController): Promise<void> {
    const kind = this.kinds.get(job.kind);
    if (kind === undefined) return;
    if (job.attempts > kind.attempts) {
      await this.end(job, 'failed', 'It was tried several times, and the server ended each time.');
      return;
    }
    let storedAt = 0;
    const progress = (share: number) => {
      if (Date.now() - storedAt < progressMilliseconds) return;
      storedAt = Date.now();
      void this.mine(job, { share }).then(
        (isMine) => (isMine ? this.tell({ ...job, share }) : abort.abort()),
        () => undefined,
      );
    };
    try {
      await kind.work(kind.task.parse(job.task), { signal: abort.signal, progress });
      if (abort.signal.aborted) await this.giveBack(job);
      else await this.end(job, 'done');
    } catch (error) {
      if (abort.signal.aborted) await this.giveBack(job);
      else await this.failed(job, kind, error);
    }
  }

  private async failed(job: JobModel, kind: AnyJobKind, error: unknown): Promise<void> {
    if (error instanceof Failure) {
      await this.end(job, 'failed', error.message);
      return;
    }
    this.log.error({ job: job.id, kind: job.kind, error: String(error) }, 'Something that waited failed');
    if (job.attempts >= kind.attempts) {
      await this.end(job, 'failed', 'It failed with an error every time that it was tried.');
      return;
    }
    const notBefore = raw(`now() + ? * interval '1 second'`, [pauseSeconds * job.attempts]);
    await this.mine(job, { state: 'waiting', takenBy: null, notBefore }).catch(() => undefined);
  }

  /** What was only interrupted by the end of this process waits for another one, and was not tried. */
  private async giveBack(job: JobModel): Promise<void> {
    await this.mine(job, { state: 'waiting', takenBy: null, attempts: job.attempts - 1 }).catch(
      () => undefined,
    );
  }

  private async end(job: JobModel, state: 'done' | 'failed', sentence: string | null = null): Promise<void> {
    const share = state === 'done' ? 1 : job.share;
    try {
      // What was cancelled, or taken by another process since this one was not heard of, is not ours to end.
      if (await this.mine(job, { state, sentence, share, endedAt: new Date() }))
        this.tell({ ...job, state, sentence, share });
    } catch (error) {
      this.log.warn({ job: job.id, error: String(error) }, 'the end of something that waited was not stored');
    }
  }

  /** Changes a job as long as it is this process's. @returns whether it is */
  private async mine(job: JobModel, change: object): Promise<boolean> {
    const count = await JobModel.query()
      .findById(job.id)
      .where({ state: 'running', takenBy: this.process })
      .patch(change);
    return count === 1;
  }

  private tell(job: Pick<JobModel, 'person' | keyof Job>): void {
    if (job.person !== null) this.bus.emit('job', job.person, presentJob(job));
  }
}

const presentJob = ({ id, kind, state, share, sentence }: Pick<JobModel, keyof Job>): Job => ({
  id,
  kind,
  state,
  share,
  sentence,
});
