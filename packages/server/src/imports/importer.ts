import {
  type Import,
  type ImportAnswer,
  type ImportNames,
  type Run,
  channelOf,
  importAnswerSchema,
  largestImportBytes,
  mostSpotRows,
} from '@heuristor/contracts';
import { randomUUID } from 'node:crypto';
import { closeSync, createWriteStream, existsSync, openSync } from 'node:fs';
import { mkdtemp, open, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { MessageChannel } from 'node:worker_threads';
import { type Logger } from 'pino';
import { Piscina } from 'piscina';
import { z } from 'zod';
import { type Actor } from '../auth/actor';
import { type Bus } from '../bus';
import { type DiskRoom } from '../diskRoom';
import { Failure } from '../failure';
import { RunModel } from '../models/run';
import { SpotModel } from '../models/spot';
import { findInvestigation } from '../services/investigations';
import { makePreview } from '../services/previews';
import { addRun, readRun } from '../services/runs';
import { writeSamples } from '../services/samples';
import {
  type NewFile,
  bytesOfFile,
  filesFor,
  findFile,
  receiveFile,
  removeFile,
  removeStaleFiles,
  touchFile,
} from '../services/storedFiles';
import { threadProgram } from '../threads';
import { mended } from './mended';
import { type Open, presented, readyState, scratchOf } from './open';
import { rowsOf, spotsOf } from './spotRows';
import { type FilePlace, numbersAt } from './numberFile';
import { type ReadAnswer, type ReadTask } from './task';

/** What the files are for that lie in the database until they are runs. */
const purpose = 'import';
const mostOpen = 8;
/** So much room is needed for each byte of a file: in the database and its log, as a copy, as numbers, as a run. */
const roomForBytes = 6;
const keptMinutes = 30;
/** A file in whose preview nobody has done anything for so long makes room where room is needed. */
const idleMilliseconds = 60_000;

/** What is kept of a file beside its bytes. */
const aboutSchema = z.object({ zone: z.string(), choices: importAnswerSchema });

/**
 * Files of columns on their way to become runs: received into the database, read on a worker's thread, shown before anything of them
 * becomes a run, then stored, or forgotten.
 */
export class Importer {
  private readonly bus: Bus;
  private readonly room: Pick<DiskRoom, 'free'>;
  private readonly log: Logger;
  private readonly open = new Map<string, Open>();
  private readonly pool = new Piscina({
    ...threadProgram('imports/worker'),
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: 5000,
    // What is read goes to a file as it comes; what is left over is cleared away soon.
    resourceLimits: { maxOldGenerationSizeMb: 256 },
  });
  private readonly timer = setInterval(() => void this.sweep(), 60_000).unref();
  private folder: Promise<string> | null = null;

  constructor({ bus, room, log }: { bus: Bus; room: Pick<DiskRoom, 'free'>; log: Logger }) {
    this.bus = bus;
    this.room = room;
    this.log = log;
  }

  /** Receives a file and begins to read it. @throws Failure where it is too large, or too many are open */
  async receive(
    actor: Actor,
    investigationId: string,
    name: string,
    zone: string,
    body: Readable,
  ): Promise<Import> {
    await findInvestigation(investigationId);
    await this.makeRoom();
    const folder = await this.place();
    const received = {
      id: randomUUID(),
      purpose,
      owner: actor.id,
      investigationId,
      name: name.trim() === '' ? 'file' : name.trim().slice(0, 100),
      about: { zone, choices: {} },
    };
    const file = join(folder, received.id);
    const copy = await open(file, 'w');
    try {
      await receiveFile(received, body, largestImportBytes, async (part, bytes) => {
        this.checkRoom(bytes);
        await copy.appendFile(part);
      });
    } catch (error) {
      await rm(file, { force: true });
      throw error;
    } finally {
      await copy.close();
    }
    return presented(this.begin(received, folder));
  }

  /** @throws Failure */
  async status(actor: Actor, id: string): Promise<Import> {
    return presented(await this.find(actor, id));
  }

  /** Decides how a file is to be understood; it is read again. @throws Failure */
  async answer(actor: Actor, id: string, choices: ImportAnswer): Promise<Import> {
    const entry = await this.find(actor, id);
    if (entry.state.kind === 'reading' || entry.state.kind === 'storing' || entry.state.kind === 'stored')
      throw new Failure('invalid-request', 'This file needs no answer now.');
    const all = { ...entry.choices, ...choices };
    await touchFile(id, { zone: entry.zone, choices: all });
    void this.read(entry, all);
    return presented(entry);
  }

  /** Stores the runs of a file that was read, under the names that were given them. @throws Failure */
  async keep(actor: Actor, id: string, names?: ImportNames): Promise<Import> {
    const entry = await this.find(actor, id);
    const { answer } = entry;
    if (answer === null || entry.state.kind !== 'ready')
      throw new Failure('invalid-request', 'This file has not been read to its end yet.');
    const wanted = mended(answer.runs, names);
    const { plan } = await findInvestigation(entry.investigationId);
    // Opened first: a file that cannot be opened leaves everything as it is.
    const descriptor = openSync(entry.numbers, 'r');
    this.change(entry, { kind: 'storing', share: 0 });
    const isSpots = answer.layout.axis.kind === 'spots';
    const total = wanted.reduce((sum, { channels }) => sum + channels.length, 0);
    let stored = 0;
    const numbers = (place: FilePlace) => numbersAt(descriptor, place);
    try {
      const runs = await RunModel.transaction(async (transaction) => {
        const added: Run[] = [];
        for (const { name, channels, begins } of wanted) {
          const run = await addRun(
            {
              investigationId: entry.investigationId,
              name: (name ?? entry.name).slice(0, 120),
              origin: 'imported',
              state: 'ended',
              plan,
              timeZone: begins === null ? null : entry.zone,
              ...(begins === null ? {} : { startedAt: new Date(begins) }),
              channels: channels.map(({ name: key, unit, timeUnit, sampling }) =>
                channelOf({ key, unit, timeUnit, sampling }),
              ),
              ...(isSpots ? { spot: spotsOf(channels) } : {}),
            },
            transaction,
          );
          if (isSpots) {
            await SpotModel.query(transaction).insert(
              rowsOf(channels, numbers).map((cells) => ({ runId: run.id, cells })),
            );
            added.push(await readRun(run.id, transaction));
            continue;
          }
          for (const [i, { values, times }] of channels.entries()) {
            if (entry.abort.signal.aborted) throw new Failure('invalid-request', 'This file was cancelled.');
            await writeSamples(
              run.channels[i].id,
              numbers(values),
              times === null ? null : numbers(times),
              transaction,
            );
            this.change(entry, { kind: 'storing', share: ++stored / total });
          }
          added.push(run);
        }
        return added;
      });
      this.change(entry, { kind: 'stored' });
      for (const run of runs) this.bus.emit('run', run);
      const state = presented(entry);
      // Its runs are there; a file that could not be removed is swept away later.
      await this.forget(entry).catch(() => undefined);
      for (const run of runs)
        makePreview(run.id).catch((error: unknown) =>
          this.log.warn({ error: String(error) }, 'no small picture'),
        );
      return state;
    } catch (error) {
      if (this.open.has(id)) this.change(entry, readyState(answer, entry.name));
      throw error;
    } finally {
      closeSync(descriptor);
    }
  }

  /** Gives a file up, whatever it is doing. @throws Failure */
  async cancel(actor: Actor, id: string): Promise<void> {
    await this.forget(await this.find(actor, id));
  }

  async close(): Promise<void> {
    clearInterval(this.timer);
    // The files stay in the database: whoever brings one in goes on when a server is there again.
    for (const { abort } of this.open.values()) abort.abort();
    this.open.clear();
    await this.pool.destroy();
    if (this.folder !== null) await rm(await this.folder, { recursive: true, force: true });
  }

  /** A file that somebody brings in: as it stands here, or, where another process has begun with it, read anew. @throws Failure */
  private async find(actor: Actor, id: string): Promise<Open> {
    const known = this.open.get(id);
    const stored = known?.owner === actor.id ? null : await findFile(purpose, actor.id, id);
    const folder = await this.place();
    const entry = this.open.get(id) ?? (stored == null ? null : this.begin(stored, folder));
    if (entry?.owner !== actor.id)
      throw new Failure('not-found', 'This file is not being brought in any more. Choose it again.');
    await touchFile(id);
    return entry;
  }

  /** Begins to read a file that was received, here or in another process. */
  private begin({ id, owner, investigationId, name, about }: Omit<NewFile, 'purpose'>, folder: string): Open {
    const file = join(folder, id);
    const { zone, choices } = aboutSchema.parse(about);
    const entry: Open = {
      id,
      owner,
      investigationId,
      name,
      file,
      numbers: `${file}.numbers`,
      zone,
      state: { kind: 'reading', share: 0 },
      answer: null,
      choices,
      abort: new AbortController(),
    };
    this.open.set(id, entry);
    void this.read(entry, choices);
    return entry;
  }

  /** A file must not take the room that is needed for recording. @throws Failure */
  private checkRoom(bytes: number): void {
    const { free } = this.room;
    if (free === null || bytes * roomForBytes < free) return;
    throw new Failure(
      'too-large',
      `There are ${Math.floor(free / 1e6)} MB left on the disk, too little for this file. Make room on the computer that Heuristor runs on, and choose it again.`,
    );
  }

  /** Where copies of files lie from which the thread reads. */
  private place(): Promise<string> {
    this.folder ??= mkdtemp(join(tmpdir(), 'heuristor-'));
    return this.folder;
  }

  private async read(entry: Open, choices: ImportAnswer): Promise<void> {
    entry.choices = choices;
    this.change(entry, { kind: 'reading', share: 0 });
    const { port1, port2 } = new MessageChannel();
    port1.on('message', (share: number) => {
      if (entry.state.kind === 'reading') this.change(entry, { kind: 'reading', share });
    });
    try {
      const { id, file, numbers, zone } = entry;
      if (!existsSync(file)) await pipeline(bytesOfFile(id), createWriteStream(file));
      const scratch = scratchOf(entry);
      const task: ReadTask = { file, scratch, numbers, zone, choices, mostSpotRows, port: port2 };
      const answer = (await this.pool.run(task, {
        transferList: [port2 as never],
        signal: entry.abort.signal,
      })) as ReadAnswer;
      port1.close();
      switch (answer.kind) {
        case 'refused':
          this.change(entry, answer);
          break;
        case 'question':
          this.change(entry, answer);
          break;
        case 'read':
          entry.answer = answer;
          this.change(entry, readyState(answer, entry.name));
          break;
      }
    } catch (error) {
      port1.close();
      if (entry.abort.signal.aborted) return;
      this.log.error({ error: String(error) }, 'A file could not be read');
      this.change(entry, {
        kind: 'refused',
        sentence: 'This file could not be read; it may be too large for the memory. Split it into several.',
      });
    }
  }

  private change(entry: Open, state: Import['state']): void {
    if (!this.open.has(entry.id)) return;
    entry.state = state;
    this.bus.emit('import', entry.owner, presented(entry));
  }

  private async forget(entry: Open): Promise<void> {
    this.letGo(entry);
    await removeFile(entry.id);
  }

  /** Gives up the copy of a file, and what was read of it. */
  private letGo(entry: Open): void {
    this.open.delete(entry.id);
    entry.abort.abort();
    for (const file of [entry.file, entry.numbers, scratchOf(entry)])
      rm(file, { force: true }).catch(() => undefined);
  }

  private async sweep(): Promise<void> {
    try {
      await removeStaleFiles(purpose, keptMinutes);
      const there = new Set((await filesFor(purpose)).map(({ id }) => id));
      for (const entry of this.open.values()) if (!there.has(entry.id)) this.letGo(entry);
    } catch (error) {
      this.log.warn({ error: String(error) }, 'files that nobody wants any more are looked for again');
    }
  }

  /**
   * Where there is no place left, the file that was touched longest ago gives its one: its page may be gone.
   * @throws Failure where all of them are in use
   */
  private async makeRoom(): Promise<void> {
    const files = await filesFor(purpose);
    if (files.length < mostOpen) return;
    const idle = files.find(
      ({ id, touchedAt }) =>
        this.open.get(id)?.state.kind !== 'storing' && Date.now() > touchedAt.getTime() + idleMilliseconds,
    );
    if (idle === undefined)
      throw new Failure(
        'too-many-requests',
        `${mostOpen} files are being brought in already. Finish one first.`,
      );
    const entry = this.open.get(idle.id);
    if (entry !== undefined) this.letGo(entry);
    await removeFile(idle.id);
  }
}
