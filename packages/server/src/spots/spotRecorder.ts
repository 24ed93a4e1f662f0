import {
  type Clock,
  type GivenCells,
  type MeasuredCell,
  type Plan,
  type Run,
  type Spot,
  type SpotColumn,
  type SpotStatus,
  type Sweep,
} from '@heuristor/contracts';
import { type Logger } from 'pino';
import { type Bus } from '../bus';
import { Failure } from '../failure';
import { type Presence } from '../presence/presence';
import { type Outputs } from '../sensors/outputs';
import { findInvestigation, keepBindings } from '../services/investigations';
import { addRun } from '../services/runs';
import { addRows, changeRow, findSeries, givenFor } from '../services/spots';
import { type Readable, channelsOf, columnsOf, readables } from './columns';
import { measure } from './measure';
import { givenWords, haveSettled, restWords, withRest } from './settling';
import { coarseSteps, finerSteps, mostInSweep } from './sweepSteps';

interface Parts {
  presence: Presence;
  outputs: Outputs;
  bus: Bus;
  clock: Clock;
  log: Logger;
}

/** What has not settled after so many waits is taken as it is. */
const mostWaits = 8;

/** What one investigation is reading, and whether a person wants it stopped. */
interface Work {
  status: SpotStatus;
  isStopped: boolean;
  /** Ends a wait at once. */
  wake: () => void;
}

/** Takes spot readings: one at a time, each a second of a sensor's readings beside what a person has typed. */
export class SpotRecorder {
  private readonly presence: Presence;
  private readonly outputs: Outputs;
  private readonly bus: Bus;
  private readonly clock: Clock;
  private readonly log: Logger;
  private readonly works = new Map<string, Work>();

  constructor({ presence, outputs, bus, clock, log }: Parts) {
    this.presence = presence;
    this.outputs = outputs;
    this.bus = bus;
    this.clock = clock;
    this.log = log;
  }

  status(investigationId: string): SpotStatus {
    return this.works.get(investigationId)?.status ?? { phase: 'idle' };
  }

  /** @throws Failure where an investigation is being read, which nobody would see any more if it were removed */
  checkIdle(investigationId: string): void {
    if (this.works.has(investigationId))
      throw new Failure(
        'already-recording',
        'A reading is being taken. Wait for it, or stop the sweep first.',
      );
  }

  /** Takes one reading into a series, or into a new one. @throws Failure */
  async take(
    investigationId: string,
    runId: string | null,
    cells: GivenCells,
    anyway: boolean,
  ): Promise<Run> {
    return this.work(investigationId, async (work) => {
      const series = await this.series(investigationId, runId);
      return this.read(investigationId, work, series, cells, anyway);
    });
  }

  /** Reads anew what belongs to the same typed values; the old reading is dropped, and can be put back. @throws Failure */
  async retake(runId: string, rowId: number, anyway: boolean): Promise<Run> {
    const { spot, investigationId } = await findSeries(runId);
    const row = spot.rows.find(({ id }) => id === rowId);
    if (row === undefined) throw new Failure('not-found', 'There is no such reading in this series.');
    const given = Object.fromEntries(
      Object.entries(row.cells).filter(([, cell]) => 'typed' in cell || 'word' in cell),
    ) as GivenCells;
    return this.work(investigationId, async (work) => {
      const series = await this.series(investigationId, runId);
      await this.read(investigationId, work, series, given, anyway);
      const run = await changeRow(runId, rowId, { removed: true });
      this.bus.emit('run', run);
      return run;
    });
  }

  /** Adds rows in which nothing is read: a table that is typed or pasted. @throws Failure */
  async addRows(investigationId: string, runId: string | null, rows: readonly GivenCells[]): Promise<Run> {
    const series = await this.series(investigationId, runId);
    const given = rows.map((cells) => givenFor(series.spot.columns, cells));
    const run = await addRows(await this.idOf(series), given);
    this.bus.emit('run', run);
    return run;
  }

  /**
   * Steps an output from one end to the other, waits each time until it has settled, and reads; then more finely about the
   * largest reading. Goes on by itself until it is through or stopped.
   * @returns when the first output is set; what goes wrong later is sent to the screens
   * @throws Failure
   */
  async sweep(investigationId: string, wanted: Sweep): Promise<void> {
    const work = this.begin(investigationId);
    try {
      const series = await this.series(investigationId, wanted.run);
      const column = series.spot.columns.find(({ key }) => key === wanted.column);
      if (column?.kind !== 'typed' || column.output === null)
        throw new Failure(
          'invalid-request',
          'A sweep steps an output: choose a column whose number is set by Heuristor.',
        );
      const coarse = coarseSteps(wanted.from, wanted.to, wanted.step);
      if (coarse.length > mostInSweep)
        throw new Failure(
          'invalid-request',
          `That would be ${coarse.length} readings; a sweep takes at most ${mostInSweep}. Make the step larger.`,
        );
      for (const end of [wanted.from, wanted.to])
        this.outputs.check(column.output.code, column.output.key, end);
      void this.run(investigationId, work, series, column, wanted, coarse);
    } catch (error) {
      this.end(investigationId, work);
      throw error;
    }
  }

  /** Ends a sweep after the reading that is being taken. @throws Failure */
  stop(investigationId: string): void {
    const work = this.works.get(investigationId);
    if (work?.status.phase !== 'sweeping') throw new Failure('not-recording', 'No sweep is under way.');
    work.isStopped = true;
    work.wake();
  }

  close(): void {
    for (const work of this.works.values()) {
      work.isStopped = true;
      work.wake();
    }
  }

  private async run(
    investigationId: string,
    work: Work,
    series: Series,
    column: Typed,
    { step, finest, cells }: Sweep,
    coarse: readonly number[],
  ): Promise<void> {
    const taken: { at: number; value: number }[] = [];
    const measured = series.spot.columns.find(({ kind }) => kind === 'measured')?.key;
    let steps = [...coarse];
    let width = step;
    try {
      while (steps.length > 0 && taken.length < mostInSweep) {
        const planned = taken.length + steps.length;
        for (const value of steps) {
          if (work.isStopped || taken.length >= mostInSweep) return;
          const say = (doing: 'settling' | 'reading') =>
            this.tell(investigationId, work, {
              phase: 'sweeping',
              doing,
              value,
              unit: column.unit,
              taken: taken.length,
              planned,
            });
          const given = { ...cells, [column.key]: { typed: value } };
          const run = await this.settled(investigationId, work, series, given, say);
          if (run === null) return;
          // Another screen may have typed a row in the meantime.
          const row = run.spot?.rows.findLast(({ cells: own }) => {
            const set = own[column.key];
            return set !== undefined && 'typed' in set && set.typed === value;
          });
          const cell = row?.cells[measured ?? ''];
          taken.push({ at: value, value: cell !== undefined && 'value' in cell ? cell.value : NaN });
        }
        ({ steps, step: width } = finerSteps(taken, width, finest));
      }
    } catch (error) {
      const sentence =
        error instanceof Failure
          ? error.message
          : 'The sweep ended because of an error of the server. What was read is kept.';
      if (!(error instanceof Failure))
        this.log.error({ investigationId, error: String(error) }, 'A sweep failed');
      this.bus.emit('fault', investigationId, sentence);
    } finally {
      this.end(investigationId, work);
    }
  }

  /**
   * Waits and reads until two readings in a row agree within their uncertainties; what is still on its way after so many tries is
   * taken, its uncertainty widened by what it still changed, and that is said.
   * @returns null where it was stopped before anything was read
   */
  private async settled(
    investigationId: string,
    work: Work,
    series: Series,
    given: GivenCells,
    say: (doing: 'settling' | 'reading') => void,
  ): Promise<Run | null> {
    const { spot, plan, found, units } = series;
    this.setOutputs(spot.columns, given);
    let before: Record<string, MeasuredCell> | null = null;
    for (let wait = 1; ; wait++) {
      say('settling');
      await this.pause(work, plan.spot.settleSeconds);
      if (work.isStopped) return null;
      say('reading');
      const isLast = wait > mostWaits;
      try {
        const here = await measure(this.bus, spot.columns, found, {
          seconds: spot.seconds,
          anyway: isLast,
          units,
        });
        if (work.isStopped || (before !== null && haveSettled(before, here)))
          return await this.keep(series, given, here);
        if (isLast) {
          const kept = before === null ? here : withRest(before, here);
          if (before !== null)
            this.bus.emit(
              'fault',
              investigationId,
              restWords(givenWords(spot.columns, given), mostWaits + 1),
            );
          return await this.keep(series, given, kept);
        }
        before = here;
      } catch (error) {
        if (!(error instanceof Failure) || error.code !== 'not-still') throw error;
        before = null;
      }
    }
  }

  /** Stores a row with what was typed and what was read. */
  private async keep(series: Series, given: GivenCells, read: Record<string, MeasuredCell>): Promise<Run> {
    const run = await addRows(await this.idOf(series), [
      { ...givenFor(series.spot.columns, given), ...read },
    ]);
    this.bus.emit('run', run);
    return run;
  }

  private async read(
    investigationId: string,
    work: Work,
    series: Series,
    cells: GivenCells,
    anyway: boolean,
  ): Promise<Run> {
    const { spot, plan, found, units } = series;
    const given = givenFor(spot.columns, cells);
    this.tell(investigationId, work, { phase: 'taking', seconds: spot.seconds });
    if (this.setOutputs(spot.columns, given)) await this.pause(work, plan.spot.settleSeconds);
    const read = await measure(this.bus, spot.columns, found, { seconds: spot.seconds, anyway, units });
    return this.keep(series, cells, read);
  }

  /** A series as it is, or a new one as the plan has it, which is entered with its first reading. @throws Failure */
  private async series(investigationId: string, runId: string | null): Promise<Series> {
    const { plan } = await findInvestigation(investigationId);
    const { found, plan: bound } = readables(this.presence, investigationId, plan);
    if (runId === null) {
      const columns = columnsOf(bound, found);
      return {
        id: null,
        investigationId,
        spot: { seconds: bound.spot.seconds, columns },
        plan: bound,
        found,
        units: new Map(),
      };
    }
    const run = await findSeries(runId);
    if (run.investigationId !== investigationId || run.removed)
      throw new Failure('not-found', 'This series was removed. Put it back, or begin a new one.');
    return {
      id: runId,
      investigationId,
      // How long is listened may be changed at any time.
      spot: { ...run.spot, seconds: bound.spot.seconds },
      plan: bound,
      found,
      units: new Map(run.channels.map(({ key, unit }) => [key, unit])),
    };
  }

  private async idOf(series: Series): Promise<string> {
    if (series.id !== null) return series.id;
    const { investigationId, plan, spot, found } = series;
    await keepBindings(investigationId, plan.bindings);
    const run = await addRun({
      investigationId,
      origin: 'recorded',
      state: 'ended',
      plan,
      spot,
      channels: channelsOf(spot.columns, found),
    });
    series.id = run.id;
    return run.id;
  }

  /** @returns whether any was set to another value than it had */
  private setOutputs(columns: readonly SpotColumn[], given: GivenCells): boolean {
    let isSet = false;
    for (const column of columns) {
      if (column.kind !== 'typed' || column.output === null) continue;
      const cell = given[column.key];
      if (cell === undefined || !('typed' in cell)) continue;
      const { code, key } = column.output;
      if (this.outputs.standing(code, key) === cell.typed) continue;
      this.outputs.set(code, key, cell.typed);
      isSet = true;
    }
    return isSet;
  }

  private async work(investigationId: string, does: (work: Work) => Promise<Run>): Promise<Run> {
    const work = this.begin(investigationId);
    try {
      return await does(work);
    } finally {
      this.end(investigationId, work);
    }
  }

  /** @throws Failure where a reading is being taken */
  private begin(investigationId: string): Work {
    this.checkIdle(investigationId);
    const work: Work = { status: { phase: 'idle' }, isStopped: false, wake: () => undefined };
    this.works.set(investigationId, work);
    return work;
  }

  private end(investigationId: string, work: Work): void {
    if (this.works.get(investigationId) !== work) return;
    this.works.delete(investigationId);
    this.bus.emit('spots', investigationId, { phase: 'idle' });
  }

  private tell(investigationId: string, work: Work, status: SpotStatus): void {
    work.status = status;
    this.bus.emit('spots', investigationId, status);
  }

  private pause(work: Work, seconds: number): Promise<void> {
    // Stopped while it was read, and not to be waited for any more.
    if (work.isStopped) return Promise.resolve();
    return new Promise((resolve) => {
      const timer = this.clock.after(seconds * 1000, resolve);
      work.wake = () => {
        timer.cancel();
        resolve();
      };
    });
  }
}

type Typed = Extract<SpotColumn, { kind: 'typed' }>;

/** A series that readings go into, and what they are read from. */
interface Series {
  /** Null until its first reading enters it. */
  id: string | null;
  investigationId: string;
  spot: Omit<Spot, 'rows'>;
  plan: Plan;
  found: ReadonlyMap<string, Readable>;
  /** Units of its columns, as they stand in the series. */
  units: ReadonlyMap<string, string>;
}
