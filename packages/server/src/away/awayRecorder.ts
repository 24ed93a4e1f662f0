import {
  type Clock,
  type KeptMessage,
  type KeptRun,
  type Prepare,
  type SampleFrame,
} from '@heuristor/contracts';
import { randomInt } from 'node:crypto';
import { type Logger } from 'pino';
import { type Bus } from '../bus';
import { Failure } from '../failure';
import { type LinkedDevice } from '../link/device';
import { type Presence } from '../presence/presence';
import { AwayRunModel } from '../models/awayRun';
import { sourcesOf } from '../recorder/sources';
import { findInvestigation, keepBindings } from '../services/investigations';
import { awayTiming } from './awayClock';
import { awayRunsOf, checkWanted, endFetched, storeFrame, storedOf } from './awayRuns';
import { goingOn } from './goingOn';
import { type Fetching, type Holding, claim, goesOn, presentHolding } from './holding';
import { checkKept } from './keptFrame';
import { checkRoom, ownLevel, tracksOf } from './preparation';

interface Parts {
  presence: Presence;
  bus: Bus;
  clock: Clock;
  log: Logger;
}

/** Readings asked for at once: what is lost when the link breaks is asked for again. */
const readingsAtOnce = 2000;
const answerMilliseconds = 4000;
const frameMilliseconds = 8000;
const waiting = 'The database does not answer. What the device keeps is fetched on when it does.';
const unstored = 'What the device keeps could not be stored. What is here stays; fetch it again.';

/** Runs that devices record and keep by themselves: prepared, fetched, discarded. */
export class AwayRecorder {
  private readonly presence: Presence;
  private readonly bus: Bus;
  private readonly clock: Clock;
  private readonly log: Logger;
  /** Devices whose word is being looked into, with what they have said since. */
  private readonly untold = new Map<LinkedDevice, KeptMessage | null>();
  private readonly holdings = new Map<string, Holding>();
  private closed = false;

  constructor({ presence, bus, clock, log }: Parts) {
    this.presence = presence;
    this.bus = bus;
    this.clock = clock;
    this.log = log;
    bus.on('kept', (device, message) => void this.hearLast(device, message));
    bus.on('keptFrame', (device, frame) => this.holdings.get(device.code)?.fetching?.take?.(frame));
  }

  /**
   * Tells a device to record by itself. What was discarded on it before is forgotten now.
   * @throws Failure where it cannot, or does not answer
   */
  async prepare(investigationId: string, { code, seconds, begin }: Prepare): Promise<void> {
    const device = this.presence.find(code);
    const holding = this.holdings.get(code);
    const { said } = holding ?? {};
    if (!device.present || !this.presence.isUsed(code, investigationId))
      throw new Failure('device-absent', `${code} is not connected here. Connect it first.`);
    if (device.description.keeps === null || holding === undefined || said == null)
      throw new Failure('invalid-request', `${code} keeps no runs by itself.`);
    if (said.runs.some(goesOn))
      throw new Failure('already-recording', `${code} still records. Fetch that run and end it first.`);
    const { plan } = await findInvestigation(investigationId);
    const { sources, plan: bound } = sourcesOf([device], plan, (other) =>
      this.presence.isUsed(other, investigationId),
    );
    const tracks = tracksOf(device, sources);
    if (tracks.length === 0)
      throw new Failure('nothing-connected', `${code} has no channel switched on, or does not send yet.`);
    const keys = [...new Set(tracks.map(({ stream }) => stream))];
    const streams = device.streams.filter(({ description }) => keys.includes(description.key));
    checkRoom(holding, seconds, streams);
    for (const row of holding.rows.filter(({ discardedAt }) => discardedAt !== null))
      await this.forget(holding, row);
    const id = randomInt(1, 2 ** 31 - 1);
    const row = await AwayRunModel.query().insertAndFetch({
      id,
      code,
      investigationId,
      plan: { ...bound, way: 'away' },
      tracks,
      seconds,
      preparedAt: new Date(),
      clockAtPreparation: said.clock + (this.clock.date() - holding.at) / 1000,
    });
    await keepBindings(investigationId, bound.bindings);
    holding.rows.push(row);
    device.send?.({
      type: 'prepare',
      id,
      streams: streams.map((stream) => ({
        of: stream.description.key,
        rate: stream.rate,
        ranges: Object.fromEntries(stream.views.map(({ key, range }) => [key, range.key])),
      })),
      seconds,
      begin: begin.kind === 'level' ? ownLevel(device, begin) : begin,
    });
    await this.until(holding, ({ runs }) => runs.some((run) => run.id === id)).catch(
      async (error: unknown) => {
        await AwayRunModel.query().deleteById(id);
        holding.rows = holding.rows.filter((other) => other !== row);
        throw error;
      },
    );
    this.show(holding);
  }

  /**
   * Brings what a device keeps of a run here, from where it was left off; the device forgets it when all of it is stored.
   * @returns when it has begun; the rest goes on by itself
   * @throws Failure
   */
  async fetch(code: string, id: number, isEnd: boolean): Promise<void> {
    const { holding, row } = this.found(code, id);
    if (holding.fetching !== null)
      throw new Failure('already-recording', `${code} is being fetched already. Wait for it, or cancel it.`);
    if (!holding.device.present) throw new Failure('device-absent', `${code} is not on the link.`);
    if (row.discardedAt !== null)
      throw new Failure('invalid-request', 'This run is discarded. Put it back first.');
    // Taken before anything is waited for: a hand that presses twice means it once.
    const fetching = claim(holding, row);
    row.wanted = isEnd ? 'end' : 'go-on';
    try {
      await AwayRunModel.query().findById(id).patch({ wanted: row.wanted });
    } catch (error) {
      row.wanted = null;
      holding.fetching = null;
      throw error;
    }
    void this.run(holding, row, fetching);
  }

  /** Ends a fetch; what is here stays, and it can be gone on with. @throws Failure */
  async cancel(code: string, id: number): Promise<void> {
    const { holding, row } = this.found(code, id);
    row.wanted = null;
    // Before the database is asked, which may be away: it is just then that somebody cancels.
    if (holding.fetching?.id === id) {
      holding.fetching.isCancelled = true;
      holding.fetching.leave?.();
    }
    this.show(holding);
    await AwayRunModel.query().findById(id).patch({ wanted: null });
  }

  /** Throws away what a device keeps, or takes that back as long as the device was not prepared anew. @throws Failure */
  async discard(code: string, id: number, isDiscarded: boolean): Promise<void> {
    const { holding, row } = this.found(code, id);
    if (holding.fetching?.id === id)
      throw new Failure('already-recording', 'This run is being fetched. Cancel that first.');
    const kept = holding.said?.runs.find((run) => run.id === id);
    if (isDiscarded && kept !== undefined && goesOn(kept)) holding.device.send?.({ type: 'end', id });
    row.discardedAt = isDiscarded ? new Date() : null;
    await AwayRunModel.query().findById(id).patch({ discardedAt: row.discardedAt });
    this.show(holding);
  }

  /** @throws Failure where a device that is here keeps a run of an investigation: nobody would see it come in any more */
  checkIdle(investigationId: string): void {
    for (const { device, rows } of this.holdings.values())
      if (
        device.present &&
        rows.some((row) => row.investigationId === investigationId && row.discardedAt === null)
      )
        throw new Failure(
          'already-recording',
          `${device.code} keeps a run of this investigation. Fetch it or discard it before removing the investigation.`,
        );
  }

  close(): void {
    this.closed = true;
    for (const { fetching } of this.holdings.values()) if (fetching !== null) fetching.isCancelled = true;
  }

  /** However often a device tells what it keeps, one telling at a time is looked into, and then the last one. */
  private async hearLast(device: LinkedDevice, message: KeptMessage): Promise<void> {
    const isBusy = this.untold.has(device);
    this.untold.set(device, message);
    if (isBusy) return;
    for (let next: KeptMessage | null = message; next !== null; next = this.untold.get(device) ?? null) {
      this.untold.set(device, null);
      await this.hear(device, next).catch((error) => this.broken(error));
    }
    this.untold.delete(device);
  }

  private async hear(device: LinkedDevice, message: KeptMessage): Promise<void> {
    if (device.description.keeps === null || device.waiting) return;
    const { code } = device;
    let holding = this.holdings.get(code);
    if (holding === undefined) {
      const rows = await awayRunsOf(code);
      holding = this.holdings.get(code) ?? {
        device,
        said: null,
        at: 0,
        rows,
        stored: new Map(),
        fetching: null,
      };
      this.holdings.set(code, holding);
      for (const row of rows) holding.stored.set(row.id, await this.storedOf(row));
    }
    Object.assign(holding, { device, said: message, at: this.clock.date() });
    for (const row of holding.rows)
      if (!message.runs.some(({ id }) => id === row.id)) await this.lost(holding, row);
    // What it was asked to forget, and came back with a device that had not heard of it.
    for (const { id } of message.runs)
      if ((await AwayRunModel.query().findById(id).whereNotNull('storedAt')) !== undefined)
        device.send?.({ type: 'erase', id });
    this.show(holding);
    // A link that broke in the middle: it goes on where it was.
    const wanted = holding.rows.find(
      (row) => row.wanted !== null && message.runs.some(({ id }) => id === row.id),
    );
    if (wanted !== undefined && holding.fetching === null)
      void this.run(holding, wanted, claim(holding, wanted));
  }

  /** A run that the device does not hold any more: what is here of it is all there is. */
  private async lost(holding: Holding, row: AwayRunModel): Promise<void> {
    // What the device said before may be dealt with still.
    if (!holding.rows.includes(row)) return;
    // One that has only just been prepared is not known to the device yet.
    if (Date.now() - row.preparedAt.getTime() < answerMilliseconds || holding.fetching?.id === row.id) return;
    holding.rows = holding.rows.filter((other) => other !== row);
    if ((holding.stored.get(row.id) ?? 0) === 0) {
      await AwayRunModel.query().deleteById(row.id);
      return;
    }
    const run = await endFetched(row, {
      begunAt: null,
      notes: [`${row.code} did not hold the rest of this run any more.`],
      isWhole: true,
    });
    this.bus.emit('run', run);
  }

  private async run(holding: Holding, row: AwayRunModel, fetching: Fetching): Promise<void> {
    this.show(holding);
    try {
      await goingOn(
        () => this.bring(holding, row, fetching),
        () => holding.device.present && !fetching.isCancelled && !this.closed,
        (error, before) => {
          this.broken(error);
          if (before === 0) this.bus.emit('fault', row.investigationId, waiting);
        },
      );
    } catch (error) {
      // One that broke off is taken up again when the device is back.
      if (!(error instanceof Failure)) this.broken(error);
      if (holding.device.present && !fetching.isCancelled) {
        // A device that is there and does not give what it keeps is not asked again before somebody wants it.
        row.wanted = null;
        this.bus.emit('fault', row.investigationId, error instanceof Failure ? error.message : unstored);
        await AwayRunModel.query()
          .findById(row.id)
          .patch({ wanted: null })
          .catch((fault: unknown) => this.broken(fault));
      }
    } finally {
      holding.fetching = null;
      if (!this.closed) this.show(holding);
    }
  }

  private async bring(holding: Holding, row: AwayRunModel, fetching: Fetching): Promise<void> {
    const { device } = holding;
    await checkWanted(row);
    const isEnd = row.wanted === 'end';
    if (isEnd && holding.said?.runs.some((run) => run.id === row.id && goesOn(run)) === true) {
      device.send?.({ type: 'end', id: row.id });
      await this.until(holding, ({ runs }) => !runs.some((run) => run.id === row.id && goesOn(run)));
    }
    const kept = holding.said?.runs.find(({ id }) => id === row.id);
    if (kept === undefined) return;
    const streams = [...new Set(row.tracks.map(({ stream }) => stream))];
    for (const stream of streams) {
      const total = kept.counts[stream] ?? 0;
      let next = await storedOf(row, stream);
      let lastTime = -Infinity;
      while (next < total) {
        if (fetching.isCancelled) return;
        const count = Math.min(readingsAtOnce, total - next);
        const answer = this.nextFrame(fetching, device);
        device.send?.({ type: 'fetch', id: row.id, of: stream, from: next, count });
        const frame = await answer;
        checkKept(device, stream, frame, { id: row.id, from: next, count, lastTime });
        lastTime = frame.times?.at(-1) ?? lastTime;
        next = await storeFrame(row, stream, frame);
        holding.stored.set(row.id, await this.storedOf(row));
        this.show(holding);
      }
    }
    if (fetching.isCancelled) return;
    const now = holding.said?.runs.find(({ id }) => id === row.id) ?? kept;
    await this.end(holding, row, now, isEnd || !goesOn(now));
  }

  private async end(holding: Holding, row: AwayRunModel, kept: KeptRun, isWhole: boolean): Promise<void> {
    const { said, at, device } = holding;
    const { begunAt, sentence } = awayTiming(
      { clock: said?.clock ?? 0, now: at, begun: kept.begun },
      { clock: row.clockAtPreparation, at: row.preparedAt.getTime() },
    );
    const notes = [
      `Recorded by ${row.code} by itself.`,
      sentence,
      ...(kept.state === 'full' ? ['Its memory was full; the run ends there.'] : []),
      ...(kept.state === 'stopped' ? ['It stopped early, for example because its battery was empty.'] : []),
      ...(isWhole ? [] : ['It still records; fetch the rest later.']),
    ];
    // It may have been removed while the run came in.
    await checkWanted(row);
    const run = await endFetched(row, { begunAt, notes, isWhole });
    if (isWhole) {
      holding.rows = holding.rows.filter((other) => other !== row);
      // Only now: nothing is forgotten before it is stored.
      device.send?.({ type: 'erase', id: row.id });
    }
    this.bus.emit('run', run);
  }

  private nextFrame(fetching: Fetching, device: LinkedDevice): Promise<SampleFrame> {
    return new Promise((resolve, reject) => {
      const finish = () => {
        clearTimeout(patience);
        this.bus.off('gone', gone);
        fetching.take = null;
        fetching.leave = null;
      };
      const fail = (sentence: string) => {
        finish();
        reject(new Failure('device-absent', sentence));
      };
      const gone = (left: LinkedDevice) => {
        if (left === device) fail(`${device.code} left in the middle; it goes on when it is back.`);
      };
      const patience = setTimeout(
        () => fail(`${device.code} does not send what it keeps. What is here stays; fetch it again.`),
        frameMilliseconds,
      );
      this.bus.on('gone', gone);
      fetching.leave = () => fail('Cancelled.');
      fetching.take = (frame) => {
        finish();
        resolve(frame);
      };
    });
  }

  /** Waits until a device says something. @throws Failure where it does not */
  private async until(holding: Holding, isSo: (message: KeptMessage) => boolean): Promise<void> {
    const until = Date.now() + answerMilliseconds;
    while (Date.now() < until) {
      if (holding.said !== null && isSo(holding.said)) return;
      await new Promise((resolve) => setTimeout(resolve, 30));
    }
    throw new Failure('device-absent', `${holding.device.code} does not answer. Is it still on the link?`);
  }

  private async forget(holding: Holding, row: AwayRunModel): Promise<void> {
    holding.device.send?.({ type: 'erase', id: row.id });
    await AwayRunModel.query().deleteById(row.id);
    holding.rows = holding.rows.filter((other) => other !== row);
  }

  private async storedOf(row: AwayRunModel): Promise<number> {
    let sum = 0;
    for (const stream of new Set(row.tracks.map((track) => track.stream))) sum += await storedOf(row, stream);
    return sum;
  }

  private found(code: string, id: number): { holding: Holding; row: AwayRunModel } {
    const holding = this.holdings.get(code);
    const row = holding?.rows.find((candidate) => candidate.id === id);
    if (holding === undefined || row === undefined)
      throw new Failure('not-found', `${code} keeps no such run that this Heuristor knows.`);
    return { holding, row };
  }

  /** Tells the screens what a device keeps. */
  private show(holding: Holding): void {
    const { device } = holding;
    const away = presentHolding(holding);
    if (away === null) return;
    device.away = away;
    this.bus.emit('devices');
  }

  private broken(error: unknown): void {
    if (!this.closed) this.log.error({ error: String(error) }, 'What a device keeps could not be dealt with');
  }
}
