import {
  type ChannelFields,
  type Plan,
  type Run,
  type SampleFrame,
  encodeFrame,
  frameKinds,
} from '@heuristor/contracts';
import { EventEmitter } from 'node:events';
import { performance } from 'node:perf_hooks';
import { type Knex } from 'knex';
import { type Logger } from 'pino';
import { type Deferred, deferred } from '../deferred';
import { Failure } from '../failure';
import { type LinkedDevice, sameChannel } from '../link/device';
import { type DeviceRegistry } from '../link/registry';
import { findInvestigation, keepBindings } from '../services/investigations';
import { addRun, endRun, markRun, readRun } from '../services/runs';
import { joinBlocks } from '../services/samples';
import { BlockWriter } from './blockWriter';
import { type RecorderEffect, type RecorderEvent, type RecorderState } from './state';
import { isSending, readingsOf, sourcesOf } from './sources';
import { step } from './step';

interface Events {
  run: [run: Run];
  samples: [investigationId: string, frame: Uint8Array];
  waiting: [waiting: boolean];
}

/** The recording of one investigation, and what of it is known to the database. */
interface Recording {
  investigationId: string;
  state: RecorderState;
  run: Run | null;
  /** What the devices said when the run began, to hold their return against. */
  hellos: Map<string, LinkedDevice['hello']>;
  entered: Deferred<Run>;
  ended: Deferred<Run>;
  marked: { dirty: boolean; timer: NodeJS.Timeout | null };
  /** Whether readings had to be let go because too many waited for the database. */
  hasOverflowed: boolean;
}

const tickMilliseconds = 100;
const markMilliseconds = 1000;
const retryMilliseconds = 500;
/** A sensor that has just been asked to send may take so long to its first reading before a run begins without it. */
const firstReadingMilliseconds = 1000;
/** How long a request that ends a run waits for its rest to be stored before it answers that this goes on. */
const patienceMilliseconds = 1800;

/** Carries out what the steps of recordings want: database, live stream, devices. One run an investigation at a time. */
export class Recorder extends EventEmitter<Events> {
  private readonly recordings = new Map<string, Recording>();
  readonly writer: BlockWriter;
  private readonly timer: NodeJS.Timeout;
  private closing = false;
  /** Nothing is tried again from here on: the database may be gone. */
  private closed = false;
  /** Ends of runs that are being stored and joined. */
  private readonly finishing = new Set<Promise<void>>();

  constructor(
    private readonly registry: DeviceRegistry,
    storage: Knex,
    private readonly log: Logger,
  ) {
    super();
    this.writer = new BlockWriter(storage, log, (waiting) => this.emit('waiting', waiting));
    registry.on('samples', (device, frame) => this.readings(device, frame));
    registry.on('gone', ({ code }) => this.all({ kind: 'left', code, now: performance.now() }));
    registry.on('back', (device) => this.returned(device));
    registry.on('doubt', (device, sentence) =>
      this.all({ kind: 'disbelieved', code: device.code, sentence, now: performance.now() }),
    );
    registry.on('remark', (_device, sentence) => this.remark(_device.code, sentence));
    registry.busy = (code) => {
      for (const { run, state } of this.recordings.values())
        if ('tracks' in state && state.tracks.some((track) => track.code === code))
          return `${code} is recording ${run?.name ?? 'a run'}. Stop the run before changing the sensor.`;
      return null;
    };
    registry.rateInRun = (code) => {
      for (const { state } of this.recordings.values())
        if (state.phase === 'recording' || state.phase === 'armed')
          for (const track of state.tracks) if (track.code === code) return track.rate;
      return null;
    };
    this.timer = setInterval(() => this.all({ kind: 'tick', now: performance.now() }), tickMilliseconds);
  }

  /** Starts a run from all devices that are connected. @throws Failure */
  async start(investigationId: string): Promise<Run> {
    if (this.recordings.has(investigationId))
      throw new Failure('already-recording', 'A run is being recorded already. Stop it first.');
    const recording: Recording = {
      investigationId,
      state: { phase: 'idle' },
      run: null,
      hellos: new Map(),
      entered: deferred(),
      ended: deferred(),
      marked: { dirty: false, timer: null },
      hasOverflowed: false,
    };
    // Nobody may be waiting for these when they fail.
    recording.entered.promise.catch(() => undefined);
    recording.ended.promise.catch(() => undefined);
    this.recordings.set(investigationId, recording);
    const began = performance.now();
    try {
      const investigation = await findInvestigation(investigationId);
      const hasWaited = await this.firstReadings();
      const pressed = hasWaited ? performance.now() : began;
      const devices = this.registry.ready().filter(isSending);
      if (devices.length === 0)
        throw new Failure('nothing-connected', 'No sensor is sending. Connect one and wait for its reading.');
      const { sources, plan } = sourcesOf(devices, investigation.plan, (code) =>
        this.registry.isConnected(code),
      );
      for (const { code, hello } of devices) recording.hellos.set(code, hello);
      this.dispatch(recording, { kind: 'arm', now: pressed, plan, sources });
      return await recording.entered.promise;
    } catch (error) {
      this.recordings.delete(investigationId);
      recording.entered.reject(error);
      recording.ended.reject(error);
      throw error;
    }
  }

  /** Waits for sensors that send at a rate but have not yet begun to; answers whether there were any. */
  private async firstReadings(): Promise<boolean> {
    const isBeginning = (device: LinkedDevice) =>
      device.stream !== null && device.hello.sampling === 'regular' && !isSending(device);
    const until = performance.now() + firstReadingMilliseconds;
    let hasWaited = false;
    while (this.registry.ready().some(isBeginning) && performance.now() < until) {
      hasWaited = true;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    return hasWaited;
  }

  /** Ends the run that is being recorded and stores its rest. @throws Failure */
  async stop(investigationId: string): Promise<Run> {
    const recording = this.recordings.get(investigationId);
    if (recording === undefined) throw new Failure('not-recording', 'No run is being recorded.');
    // A run that is only just being begun or entered ends as soon as it has been, with the readings that it has by then.
    if (recording.state.phase === 'idle' || recording.state.phase === 'armed')
      await recording.entered.promise;
    this.dispatch(recording, { kind: 'stop', now: performance.now() });
    const late = new Promise<null>((resolve) =>
      setTimeout(() => resolve(null), patienceMilliseconds).unref(),
    );
    const ended = await Promise.race([recording.ended.promise, late]);
    if (ended !== null) return ended;
    throw new Failure(
      'database-away',
      'The run has ended, but the database does not answer. Its rest waits in memory and is stored when the database is back.',
    );
  }

  /** Stops everything in good order, for the end of the server; what a database that is away does not take within a few seconds is lost. */
  async close(): Promise<void> {
    this.closing = true;
    clearInterval(this.timer);
    const ends = [...this.recordings.values()].map((recording) => {
      this.dispatch(recording, { kind: 'stop', now: performance.now() });
      return recording.ended.promise.catch(() => undefined);
    });
    const all = Promise.all(ends).then(() => Promise.all(this.finishing));
    await Promise.race([all, new Promise((resolve) => setTimeout(resolve, 4000).unref())]);
    this.closed = true;
    for (const { marked } of this.recordings.values()) if (marked.timer !== null) clearTimeout(marked.timer);
    this.writer.close();
  }

  private all(event: RecorderEvent): void {
    for (const recording of this.recordings.values()) this.dispatch(recording, event);
  }

  private dispatch(recording: Recording, event: RecorderEvent): void {
    const [state, effects] = step(recording.state, event);
    recording.state = state;
    for (const effect of effects) this.carryOut(recording, effect);
  }

  private readings(device: LinkedDevice, frame: SampleFrame): void {
    const event = readingsOf(device, frame);
    if (event !== null) this.all(event);
  }

  private returned(device: LinkedDevice): void {
    for (const recording of this.recordings.values()) {
      const known = recording.hellos.get(device.code);
      if (known === undefined || device.stream === null || !('tracks' in recording.state)) continue;
      const { channels, rates, sampling } = device.hello;
      const mine = recording.state.tracks.filter(({ code }) => code === device.code);
      const places: Record<string, number> = {};
      const fits = mine.every(({ channelKey, rate }) => {
        const place = channels.findIndex(({ key }) => key === channelKey);
        const before = known.channels.find(({ key }) => key === channelKey);
        places[channelKey] = place;
        return (
          place >= 0 &&
          before !== undefined &&
          sameChannel(before, channels[place]) &&
          sampling === known.sampling &&
          (sampling !== 'regular' || (rate >= rates.lowest && rate <= rates.highest))
        );
      });
      this.dispatch(recording, {
        kind: 'returned',
        code: device.code,
        stream: device.stream.number,
        places: fits ? places : null,
        now: performance.now(),
      });
    }
  }

  private remark(code: string, sentence: string): void {
    for (const recording of this.recordings.values())
      if (recording.hellos.has(code)) this.dispatch(recording, { kind: 'remarked', sentence });
  }

  private carryOut(recording: Recording, effect: RecorderEffect): void {
    switch (effect.kind) {
      case 'enter':
        void this.enter(recording, effect.plan, effect.channels);
        break;
      case 'replay':
        for (const device of this.registry.all())
          for (const { frame } of device.ring.kept()) {
            const event = readingsOf(device, frame);
            if (event !== null) this.dispatch(recording, event);
          }
        break;
      case 'append':
        this.append(recording, effect);
        break;
      case 'mark':
        this.mark(recording);
        break;
      case 'finish': {
        const finished = this.finish(recording).finally(() => this.finishing.delete(finished));
        this.finishing.add(finished);
        break;
      }
    }
  }

  private async enter(recording: Recording, plan: Plan, channels: ChannelFields[]): Promise<void> {
    try {
      await keepBindings(recording.investigationId, plan.bindings);
      const run = await addRun({
        investigationId: recording.investigationId,
        origin: 'recorded',
        state: 'recording',
        plan,
        channels,
      });
      recording.run = run;
      for (const { id } of run.channels) this.writer.open(id);
      recording.entered.resolve(run);
      this.emit('run', run);
      this.dispatch(recording, { kind: 'entered' });
      // What was to be marked before there was a run to mark it on.
      if (recording.marked.dirty) this.mark(recording);
    } catch (error) {
      this.dispatch(recording, { kind: 'not-entered', sentence: String(error) });
      this.recordings.delete(recording.investigationId);
      recording.entered.reject(error);
      recording.ended.reject(error);
    }
  }

  /** Readings that nobody can keep are missing from the run, which says so. */
  private overflow(recording: Recording): void {
    if (recording.hasOverflowed) return;
    recording.hasOverflowed = true;
    this.log.error({ run: recording.run?.id }, 'Too many readings wait for the database; some are lost');
    this.dispatch(recording, {
      kind: 'remarked',
      sentence:
        'The database was away for so long that not all readings could be kept in memory; those that are missing are left out.',
    });
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
    this.emit(
      'samples',
      investigationId,
      encodeFrame({ kind: frameKinds.run, subject: channel.id, firstIndex, channels: 1, values, times }),
    );
  }

  /** Stores gaps and sentences and tells the screens, at most once a second and apart from the readings. */
  private mark(recording: Recording): void {
    const { marked } = recording;
    marked.dirty = true;
    marked.timer ??= setTimeout(() => {
      marked.timer = null;
      if (!marked.dirty || !('gaps' in recording.state) || recording.run === null) return;
      marked.dirty = false;
      const { gaps, notes } = recording.state;
      markRun(recording.run.id, gaps, notes)
        .then((run) => this.emit('run', run))
        .catch(() => this.closed || this.mark(recording));
    }, markMilliseconds);
  }

  /** Stores the rest of a run and its end; tried until it succeeds. */
  private async finish(recording: Recording): Promise<void> {
    const { state, investigationId, marked } = recording;
    // What ended while it was still being entered is in the database all the same, and has to end there too.
    const run = recording.run ?? (await recording.entered.promise.catch(() => null));
    if (run === null || state.phase !== 'ending') {
      this.recordings.delete(investigationId);
      return;
    }
    if (marked.timer !== null) clearTimeout(marked.timer);
    marked.timer = null;
    const channelIds = run.channels.map(({ id }) => id);
    while (!this.closed) {
      try {
        if (await this.writer.flush()) {
          await markRun(run.id, state.gaps, state.notes);
          const ended = await endRun(run.id, 'ended');
          this.writer.forget(channelIds);
          this.dispatch(recording, { kind: 'stored' });
          this.recordings.delete(investigationId);
          recording.ended.resolve(ended);
          this.emit('run', ended);
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
      for (const id of channelIds) await joinBlocks(id);
      const joined = await readRun(run.id);
      this.emit('run', joined);
    } catch (error) {
      this.log.warn(
        { run: run.id, error: String(error) },
        'Blocks of a run stay as small as they were recorded',
      );
    }
  }
}
