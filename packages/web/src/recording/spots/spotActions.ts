import {
  type GivenCell,
  type GivenCells,
  type GivenColumn,
  type Run,
  type SpotPatch,
  type SpotRow,
  type Sweep,
  type WorkingsDocument,
  runSchema,
} from '@heuristor/contracts';
import { parseUnit, typedQuantity } from '@heuristor/core';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { ApiError, request, sentenceOf } from '../../api/client';
import { inOrder } from '../../api/inOrder';
import { tell } from '../../ui/noticeStore';
import { attemptInOrder } from '../../api/attempt';
import { type History } from '../../investigation/history';
import { type OnPage } from '../../traces/pages/pages';
import { type PlanActions } from '../plan/planActions';
import { frontRun, presentRuns } from '../../runs/runs';
import { withSeriesLaidOut } from './spotLayout';
import { type Documents, type View } from '../../investigation/state';

/** The bench that a book of spot readings belongs to. */
interface Host {
  readonly documents: StoreApi<Documents>;
  readonly view: StoreApi<View>;
  readonly history: History;
  readonly plan: PlanActions;
  readonly runs: Run[];
  readonly onPage: OnPage;
  takeRun(run: Run): void;
  changeWorkings(change: (workings: WorkingsDocument) => WorkingsDocument): void;
}

/** What is typed for the next reading, and what was wrong with the last try. */
export interface SpotDraft {
  /** By column, as it was typed. */
  texts: Readonly<Record<string, string>>;
  /** By column: what would be right. */
  wrong: Readonly<Record<string, string>>;
  /** What has not rested yet; null where nothing was refused. */
  unsteady: string | null;
}

/** What was typed into a cell; nothing of an empty one. @throws Error that says what would be right */
export function cellOf(column: GivenColumn, text: string): GivenCell | undefined {
  if (text.trim() === '') return undefined;
  if (column.kind === 'word') return { word: text.trim().slice(0, 80) };
  return { typed: typedQuantity(text, parseUnit(column.unit)) };
}

/** The spot readings of an investigation: what is typed for the next one, and what people do to those that were taken. */
export class SpotActions {
  readonly draft: StoreApi<SpotDraft> = createStore<SpotDraft>(() => ({
    texts: {},
    wrong: {},
    unsteady: null,
  }));
  private isTaking = false;

  constructor(
    private readonly place: string,
    private readonly session: Host,
  ) {}

  /** The series that the next reading goes into; null where it begins a new one. */
  get series(): Run | null {
    const { runs } = this.session.documents.getState();
    const { frontRunId, isNewSeries } = this.session.view.getState();
    const front = frontRun(runs, frontRunId);
    return isNewSeries || front === undefined || front.spot === null || front.state === 'recording'
      ? null
      : front;
  }

  private allSeries(): Run[] {
    return presentRuns(this.session.runs).filter(({ spot }) => spot !== null);
  }

  /** The columns that are typed: those of the series, or of the plan where a new one begins. */
  get columns(): GivenColumn[] {
    return givenColumnsOf(this.series) ?? this.session.documents.getState().plan.spot.columns;
  }

  type(key: string, text: string): void {
    const { texts, wrong } = this.draft.getState();
    const others = Object.fromEntries(Object.entries(wrong).filter(([other]) => other !== key));
    this.draft.setState({ texts: { ...texts, [key]: text }, wrong: others, unsteady: null });
  }

  /** A reading that was not still is not taken. */
  leaveUntaken(): void {
    this.draft.setState({ unsteady: null });
  }

  /** Takes a reading beside what is typed; a hand that presses twice means it once. @returns whether it was taken */
  async takeTyped(anyway = false): Promise<boolean> {
    const { spots } = this.session.documents.getState();
    if (this.isTaking || spots.phase !== 'idle') return false;
    const cells = this.typedCells();
    if (cells === null) return false;
    this.isTaking = true;
    const before = this.allSeries();
    this.draft.setState({ unsteady: null });
    try {
      const run = runSchema.parse(
        await inOrder(() =>
          request('POST', `${this.place}/spots`, { run: this.series?.id ?? null, cells, anyway }),
        ),
      );
      this.came(run, before, run.spot?.rows.slice(-1) ?? []);
      return true;
    } catch (error) {
      if (error instanceof ApiError && error.code === 'not-still')
        this.draft.setState({ unsteady: error.message });
      else tell({ kind: 'fault', text: sentenceOf(error) });
      return false;
    } finally {
      this.isTaking = false;
    }
  }

  /** Adds rows in which nothing is read. */
  async addRows(rows: readonly GivenCells[]): Promise<boolean> {
    return attemptInOrder(async () => {
      const before = this.allSeries();
      const known = new Set(this.series?.spot?.rows.map(({ id }) => id));
      const run = runSchema.parse(
        await request('POST', `${this.place}/spots/rows`, { run: this.series?.id ?? null, rows }),
      );
      this.came(run, before, run.spot?.rows.filter(({ id }) => !known.has(id)) ?? []);
    });
  }

  /** Drops readings, or puts them back. */
  async drop(run: Run, rows: readonly SpotRow[]): Promise<void> {
    const send = (removed: boolean) =>
      this.sendAll(
        run,
        rows.map(({ id }) => [id, { removed }]),
      );
    if (await send(true))
      this.session.history.push({
        name: rows.length === 1 ? 'drop a reading' : `drop ${rows.length} readings`,
        undo: () => void send(false),
        redo: () => void send(true),
      });
  }

  /** Changes what was typed of a reading. */
  async change(run: Run, row: SpotRow, key: string, cell: GivenCell): Promise<void> {
    const before = row.cells[key];
    const send = (wanted: GivenCell) => this.sendAll(run, [[row.id, { cells: { [key]: wanted } }]]);
    if (!(await send(cell)) || before === undefined || 'value' in before) return;
    this.session.history.push({
      name: 'change what was typed of a reading',
      undo: () => void send(before),
      redo: () => void send(cell),
    });
  }

  /** Reads anew what belongs to the same typed values. */
  async retake(run: Run, row: SpotRow): Promise<void> {
    const known = new Set(run.spot?.rows.map(({ id }) => id));
    let fresh: number | undefined;
    const isDone = await attemptInOrder(async () => {
      const after = runSchema.parse(await request('POST', `/runs/${run.id}/spots/${row.id}/retake`, {}));
      fresh = after.spot?.rows.find(({ id }) => !known.has(id))?.id;
      this.session.takeRun(after);
    });
    if (!isDone || fresh === undefined) return;
    const id = fresh;
    const send = (isNew: boolean) =>
      void this.sendAll(run, [
        [id, { removed: !isNew }],
        [row.id, { removed: isNew }],
      ]);
    this.session.history.push({
      name: 'take a reading again',
      undo: () => send(false),
      redo: () => send(true),
    });
  }

  /** Other columns to be typed: of the series that goes on, and of those to come. */
  async setColumns(columns: GivenColumn[]): Promise<void> {
    const { series, session } = this;
    const before = this.columns;
    const send = async (wanted: GivenColumn[]) => {
      const isSet =
        series === null ||
        (await attemptInOrder(async () =>
          session.takeRun(
            runSchema.parse(await request('PUT', `/runs/${series.id}/columns`, { columns: wanted })),
          ),
        ));
      const { spot } = session.documents.getState().plan;
      return (
        isSet && session.plan.store({ plan: { spot: { ...spot, columns: wanted } } }, { plan: { spot } })
      );
    };
    if (await send(columns))
      session.history.push({
        name: 'change the columns',
        undo: () => void send(before),
        redo: () => void send(columns),
      });
  }

  async sweep(wanted: Omit<Sweep, 'run' | 'cells'>): Promise<boolean> {
    const cells = this.typedCells(wanted.column);
    if (cells === null) return false;
    return attemptInOrder(() =>
      request('POST', `${this.place}/spots/sweep`, { ...wanted, cells, run: this.series?.id ?? null }),
    );
  }

  async stopSweep(): Promise<void> {
    await attemptInOrder(() => request('DELETE', `${this.place}/spots/sweep`));
  }

  /**
   * A series has come, or has grown: the first one is laid out, and the new readings can be taken back.
   * @param before series that there were when it was asked for
   */
  private came(run: Run, before: readonly Run[], rows: readonly SpotRow[]): void {
    const { session } = this;
    session.takeRun(run);
    session.view.setState({ isNewSeries: false, frontRunId: run.id });
    const send = (removed: boolean) =>
      void this.sendAll(
        run,
        rows.map(({ id }) => [id, { removed }]),
      );
    session.history.push({
      name: rows.length === 1 ? 'take a reading' : 'add readings',
      undo: () => send(true),
      redo: () => send(false),
    });
    if (before.length === 0)
      session.changeWorkings((sheet) => withSeriesLaidOut(sheet, session.onPage.page, run));
  }

  private sendAll(
    run: Run,
    patches: readonly (readonly [row: number, patch: SpotPatch])[],
  ): Promise<boolean> {
    return attemptInOrder(async () => {
      for (const [row, patch] of patches)
        this.session.takeRun(runSchema.parse(await request('PATCH', `/runs/${run.id}/spots/${row}`, patch)));
    });
  }

  /** What is typed, by column; null where something is wrong or missing, which is then said beside it. */
  private typedCells(except?: string): GivenCells | null {
    const { texts } = this.draft.getState();
    const wrong: Record<string, string> = {};
    const cells: GivenCells = {};
    for (const column of this.columns) {
      if (column.key === except) continue;
      try {
        const cell = cellOf(column, texts[column.key] ?? '');
        if (cell !== undefined) cells[column.key] = cell;
        else if (column.kind === 'typed') wrong[column.key] = `Type ${column.name} first.`;
      } catch (error) {
        wrong[column.key] = error instanceof Error ? error.message : String(error);
      }
    }
    this.draft.setState({ wrong });
    return Object.keys(wrong).length === 0 ? cells : null;
  }
}

/** The columns of a series that are typed; null of no series. */
export const givenColumnsOf = (run: Run | null): GivenColumn[] | null =>
  run?.spot?.columns.filter((column) => column.kind !== 'measured') ?? null;
