import {
  type ChannelFields,
  type Clock,
  type Plan,
  type RecorderStatus,
  type Run,
  type SampleFrame,
  type Timer,
  encodeFrame,
  frameKinds,
} from '@heuristor/contracts';
import { type Knex } from 'knex';
import { type Logger } from 'pino';
import { type Bus } from '../bus';
import { Failure } from '../failure';
import { type LinkedDevice, type LinkedStream, sendsAgain } from '../link/device';
import { type Presence } from '../presence/presence';
import { findInvestigation } from '../services/investigations';
import { endRun, takeRunsOn } from '../services/runs';
import { type Queue } from '../queue/queue';
import { BlockWriter } from './blockWriter';
import { enteredRun } from './entering';
import { type Recording, channelsFrom, newRecording, placesOf, underWay } from './recording';
import { type Recordings } from './recordings';
import { RunMarks } from './runMarks';
import { type RecorderEffect, type RecorderEvent } from './state';
import { firstReadings, readingsOf, sourcesOf, streamsOf } from './sources';
import { statusOf } from './status';
import { step } from './step';

const tickMilliseconds = 100;
const lookMilliseconds = 20;
const retryMilliseconds = 500;
/** A row without an end has one where nobody can have meant it. */
const mostInRow = 500;
/** How long a request that ends a run waits for its rest to be stored before it answers that this goes on. */
const patienceMilliseconds = 1800;

const overflowed =
  'The database was away for so long that not all readings could be kept in memory; those that are missing are left out.';

interface Parts {
  presence: Presence;
  bus: Bus;
  clock: Clock;
  recordings: Recordings;
  /** Where what may wait after a run is put. */
  queue: Pick<Queue, 'add'>;
  /** The process that this is, by its id. */
  process: string;
  /** Connections of its own, which nothing else can starve. */
  storage: Knex;
  log: Logger;
}

/** Carries out what the steps of recordings want: database, live stream, devices. One run an investigation at a time. */
export class Recorder {
  private readonly presence: Presence;
  private readonly bus: Bus;
  private readonly clock: Clock;
  private readonly recordings: Recordings;
  private readonly marks: RunMarks;
  private readonly queue: Pick<Queue, 'add'>;
  private readonly process: string;
  private readonly log: Logger;
  readonly writer: BlockWriter;
  private readonly timer: Timer;
  private closing = false;
  /** Nothing is tried again from here on: the database may be gone. */
  private closed = false;
  /** Ends of runs that are being stored and joined. */
  private readonly finishing = new Set<Promise<void>>();

  constructor({ presence, bus, clock, recordings, queue, process, storage, log }: Parts) {
    this.presence = presence;
    this.bus = bus;
    this.clock = clock;
    this.recordings = recordings;
    this.queue = queue;
    this.marks = new RunMarks({ bus, isOver: () => this.closed });
    this.process = process;
    this.log = log;
    this.writer = new BlockWriter(storage, log, (waiting) => bus.emit('backlog', waiting));
    bus.on('readings', (stream, _sent, taken) => this.readings(stream, taken));
    bus.on('gone', ({ code, description }) =>
      this.all({
        kind: 'left',
        code,
        sendsAgain: sendsAgain(description),
        now: this.clock.now(),
      }),
    );
    bus.on('beat', () => void this.takeOn());
    bus.on('back', (device) => this.returned(device));
    bus.on('doubt', (device, sentence) =>
      this.all({ kind: 'disbelieved', code: device.code, sentence, now: this.clock.now() }),
    );
    bus.on('remark', ({ code }, sentence) => this.remark(code, sentence));
    this.timer = clock.every(tickMilliseconds, () => this.all({ kind: 'tick', now: clock.now() }));
  }

  /**
   * Starts a run from the devices that an investigation uses, or arms one that waits for what its plan says.
   * @returns the run, or null where it waits
   * @throws Failure
   */
  async start(investigationId: string): Promise<Run | null> {
    if (this.recordings.get(investigationId) !== undefined)
      throw new Failure('already-recording', 'A run is being recorded already. Stop it first.');
    const recording = newRecording(investigationId, 1);
    this.recordings.add(recording);
    const began = this.clock.now();
    try {
      const { plan } = await findInvestigation(investigationId);
      const hasWaited = await firstReadings(() => this.presence.ready(investigationId));
      this.arm(recording, plan, hasWaited ? this.clock.now() : began);
      if (recording.state.phase !== 'waiting') return await recording.entered.promise;
      recording.isAwaited = false;
      return null;
    } catch (error) {
      this.recordings.end(recording);
      recording.entered.reject(error);
      recording.ended.reject(error);
      throw error;
    }
  }

  /** @throws Failure where nothing sends, or where what the plan says can never happen */
  private arm(recording: Recording, wanted: Plan, now: number): void {
    const { investigationId } = recording;
    const devices = this.presence.ready(investigationId);
    const { sources, plan } = sourcesOf(devices, wanted, (code) =>
      this.presence.isUsed(code, investigationId),
    );
    if (sources.length === 0)
      throw new Failure('nothing-connected', 'No sensor is sending. Connect one and wait for its reading.');
    for (const { code, description } of devices) recording.known.set(code, description);
    this.dispatch(recording, { kind: 'arm', now, plan, sources });
  }

  /** What an investigation's recorder does. */
  status(investigationId: string): RecorderStatus {
    const recording = this.recordings.get(investigationId);
    return recording === undefined
      ? { phase: 'idle' }
      : statusOf(recording.state, recording.number, this.clock.now());
  }

  /** @throws Failure where an investigation has a run under way, which nobody would see any more if it were removed */
  checkIdle(investigationId: string): void {
    const recording = this.recordings.get(investigationId);
    if (recording !== undefined) throw new Failure('already-recording', underWay(recording));
  }

  /** Begins a run that waits, without what it waits for. @throws Failure */
  begin(investigationId: string): void {
    const recording = this.recordings.get(investigationId);
    if (recording?.state.phase !== 'waiting') throw new Failure('not-recording', 'No run waits to begin.');
    if (recording.state.sources.length === 0)
      throw new Failure(
        'nothing-connected',
        'The sensors of this run reconnected with different settings. Cancel it and record again.',
      );
    this.dispatch(recording, { kind: 'begin', now: this.clock.now() });
  }

  /**
   * Ends the run that is being recorded and stores its rest, or cancels one that waits.
   * @returns the run, or null where none had begun
   * @throws Failure
   */
  async stop(investigationId: string): Promise<Run | null> {
    const recording = this.recordings.get(investigationId);
    if (recording === undefined) throw new Failure('not-recording', 'No run is being recorded.');
    recording.isStopped = true;
    // One that is only just being begun is ended as what it becomes.
    while (recording.state.phase === 'idle' && this.recordings.get(investigationId) === recording)
      await new Promise((resolve) => setTimeout(resolve, lookMilliseconds));
    if (this.recordings.get(investigationId) !== recording)
      throw new Failure('not-recording', 'No run is being recorded.');
    if (recording.state.phase === 'waiting') {
      this.dispatch(recording, { kind: 'stop', now: this.clock.now() });
      this.recordings.end(recording);
      return null;
    }
    const stop = () => this.dispatch(recording, { kind: 'stop', now: this.clock.now() });
    // A run that is being entered ends as soon as it has been, with the readings that it has by then.
    const isEntering = recording.state.phase === 'armed';
    const stopped = isEntering ? recording.entered.promise.then(stop) : Promise.resolve(stop());
    const late = new Promise<null>((resolve) => setTimeout(resolve, patienceMilliseconds, null).unref());
    const ended = await Promise.race([stopped.then(() => recording.ended.promise), late]);
    if (ended !== null) return ended;
    throw new Failure(
      'database-away',
      isEntering
        ? 'The database does not answer. The run is stopped as soon as it does, with the readings that it has by then.'
        : 'The run has ended, but the database does not answer. Its rest waits in memory and is stored when the database is back.',
    );
  }

  /** Stops everything in good order, for the end of the server; what a database that is away does not take within a few seconds is lost. */
  async close(): Promise<void> {
    this.closing = true;
    this.timer.cancel();
    const ends = [...this.recordings.all()].map((recording) => {
      this.dispatch(recording, { kind: 'stop', now: this.clock.now() });
      return recording.ended.promise.catch(() => undefined);
    });
    const all = Promise.all(ends).then(() => Promise.all(this.finishing));
    await Promise.race([all, new Promise((resolve) => setTimeout(resolve, 4000).unref())]);
    this.closed = true;
    for (const { marked } of this.recordings.all()) if (marked.timer !== null) clearTimeout(marked.timer);
    this.writer.close();
  }

  private all(event: RecorderEvent): void {
    for (const recording of this.recordings.all()) this.dispatch(recording, event);
  }

  private dispatch(recording: Recording, event: RecorderEvent): void {
    const { phase } = recording.state;
    const [state, effects] = step(recording.state, event);
    recording.state = state;
    for (const effect of effects) this.carryOut(recording, effect);
    if (recording.state.phase !== phase || event.kind === 'tick') this.tellStatus(recording);
  }

  /** Tells the screens what a recording does, where that has changed; a countdown they count themselves. */
  private tellStatus(recording: Recording): void {
    const status = statusOf(recording.state, recording.number, this.clock.now());
    const text = JSON.stringify(status.phase === 'countdown' ? { ...status, secondsLeft: 0 } : status);
    if (text === recording.lastStatus) return;
    recording.lastStatus = text;
    this.bus.emit('recorder', recording.investigationId, status);
  }

  private readings(stream: LinkedStream, frame: SampleFrame): void {
    const event = readingsOf(stream, frame);
    if (event !== null) this.all(event);
  }

  private returned(device: LinkedDevice): void {
    for (const recording of this.recordings.all()) {
      const known = recording.known.get(device.code);
      const mine = channelsFrom(device.code, recording);
      if (known === undefined || mine.length === 0) continue;
      this.dispatch(recording, {
        kind: 'returned',
        code: device.code,
        places: placesOf(device, known, mine),
        now: this.clock.now(),
      });
    }
  }

  /** Goes on with runs that others took for interrupted, since this process was not heard of for a while; looked for at every renewal. */
  private async takeOn(): Promise<void> {
    const ids = this.recordings.runIds();
    if (ids.length === 0) return;
    try {
      for (const run of await takeRunsOn(this.process, ids)) this.bus.emit('run', run);
    } catch (error) {
      this.log.warn({ error: String(error) }, 'runs that go on could not be marked so');
    }
  }

  private remark(code: string, sentence: string): void {
    for (const recording of this.recordings.all())
      if (recording.known.has(code)) this.dispatch(recording, { kind: 'remarked', sentence });
  }

  private carryOut(recording: Recording, effect: RecorderEffect): void {
    switch (effect.kind) {
      case 'enter':
        void this.enter(recording, effect.plan, effect.channels);
        break;
      case 'replay':
        for (const stream of streamsOf(this.presence.ready(recording.investigationId)))
          for (const { frame } of stream.ring.kept()) {
            const event = readingsOf(stream, frame);
            if (event !== null) this.dispatch(recording, event);
          }
        break;
      case 'append':
        this.append(recording, effect);
        break;
      case 'mark':
        this.marks.mark(recording);
        break;
      case 'finish': {
        const finished = this.finish(recording).finally(() => this.finishing.delete(finished));
        this.finishing.add(finished);
        break;
      }
    }
  }

  private async enter(recording: Recording, plan: Plan, channels: ChannelFields[]): Promise<void> {
    const { investigationId, isAwaited } = recording;
    const rings = streamsOf(this.presence.ready(investigationId)).map(({ ring }) => ring);
    for (const ring of rings) ring.hold();
    try {
      const run = await enteredRun(
        { investigationId, plan, channels, recordedBy: this.process },
        this.log,
        () => !isAwaited && !this.closing,
      );
      recording.run = run;
      for (const channel of run.channels) this.writer.open(channel.id);
      recording.entered.resolve(run);
      this.bus.emit('run', run);
      this.dispatch(recording, { kind: 'entered' });
      // What was to be marked before there was a run to mark it on.
      if (recording.marked.dirty) this.marks.mark(recording);
    } catch (error) {
      this.dispatch(recording, { kind: 'not-entered', sentence: String(error) });
      this.recordings.end(recording);
      recording.entered.reject(error);
      recording.ended.reject(error);
    } finally {
      for (const ring of rings) ring.release();
    }
  }

  /** Readings that nobody can keep are missing from the run, which says so. */
  private overflow(recording: Recording): void {
    if (recording.hasOverflowed) return;
    recording.hasOverflowed = true;
    this.log.error({ run: recording.run?.id }, 'Too many readings wait for the database; some are lost');
    this.dispatch(recording, { kind: 'remarked', sentence: overflowed });
  }

  private append(
    recording: Recording,
    { track, firstIndex, values, times }: Extract<RecorderEffect, { kind: 'append' }>,
  ): void {
    const { run, investigationId } = recording;
    const channel = run?.channels[track];
    if (channel === undefined) return;
    if (!this.writer.append(channel.id, { firstIndex, values, times })) {
      this.overflow(recording);
      return;
    }
    this.bus.emit(
      'runReadings',
      investigationId,
      encodeFrame({ kind: frameKinds.run, subject: channel.id, firstIndex, channels: 1, values, times }),
    );
  }

  /** Arms the next run of the row, where the plan says that there is one and nobody has stopped it. */
  private again({ investigationId, number, isStopped }: Recording, plan: Plan): void {
    if (isStopped || this.closing || number >= (plan.times ?? mostInRow)) return;
    const next = newRecording(investigationId, number + 1);
    next.isAwaited = false;
    this.recordings.add(next);
    try {
      this.arm(next, plan, this.clock.now());
    } catch (error) {
      this.recordings.end(next);
      next.entered.reject(error);
      next.ended.reject(error);
      this.bus.emit('fault', investigationId, String(error instanceof Failure ? error.message : error));
    }
  }

  /** Stores the rest of a run and its end; tried until it succeeds. */
  private async finish(recording: Recording): Promise<void> {
    const { state, marked } = recording;
    // What ended while it was still being entered is in the database all the same, and has to end there too.
    const run = recording.run ?? (await recording.entered.promise.catch(() => null));
    if (run === null || state.phase !== 'ending') {
      this.recordings.end(recording);
      return;
    }
    if (marked.timer !== null) clearTimeout(marked.timer);
    marked.timer = null;
    const channelIds = run.channels.map(({ id }) => id);
    while (!this.closed) {
      try {
        if (await this.writer.flush()) {
          const ended = await endRun(run.id, state);
          this.writer.forget(channelIds);
          this.dispatch(recording, { kind: 'stored' });
          this.recordings.end(recording);
          recording.ended.resolve(ended);
          this.bus.emit('run', ended);
          this.again(recording, state.plan);
          break;
        }
      } catch (error) {
        this.log.warn(
          { run: run.id, error: String(error) },
          'The end of a run cannot be stored yet; it is tried again',
        );
      }
      if (this.closing && this.writer.isWaiting) {
        await new Promise((resolve) => setTimeout(resolve, retryMilliseconds).unref());
        continue;
      }
      await new Promise((resolve) => setTimeout(resolve, retryMilliseconds));
    }
    if (this.closed) return;
    try {
      await this.queue.add('tidy-run', { run: run.id }, { investigation: run.investigationId });
    } catch (error) {
      this.log.warn(
        { run: run.id, error: String(error) },
        'Blocks of a run stay as small as they were recorded',
      );
    }
  }
}
