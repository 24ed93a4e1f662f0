import { type SeriesRef } from '@heuristor/core';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { type RunPool } from '../runs/pool';
import { type TablePart, type TableShape } from '../workers/protocol';
import { copyText } from '../ui/clipboard';
import { type CursorReader } from '../traces/cursor/cursor';
import { pageIn, panelsOf, seriesOn, sharedPanels } from '../traces/pages/pages';
import { type Picture } from '../traces/picture';
import { RenderLoop } from '../ui/renderLoop';
import { frontRun, shownRuns } from '../runs/runs';
import { type Documents, type View } from '../investigation/state';

export interface TableState {
  isOpen: boolean;
  /** The run whose numbers stand in it; null follows the one in front. */
  run: string | null;
  /** Its columns; null follows the traces of the page. */
  columns: readonly SeriesRef[] | null;
  /** Decimals of columns where a person has chosen them; the others are rounded by their noise. */
  decimals: Readonly<Partial<Record<SeriesRef, number>>>;
  /** What the workers said last; null before, and where the run has none of the columns. */
  shape: TableShape | null;
  /** What columns the shape speaks of. */
  shown: readonly SeriesRef[];
  parts: ReadonlyMap<number, TablePart>;
  /** The row in which the cursor stands. */
  cursorRow: number | null;
}

/** Rows that are fetched together. */
export const partRows = 250;
const liveMilliseconds = 250;
const mostKept = 40;

/** The table of numbers of one run beside the traces: fetched from the workers as it is looked at. */
export class TableReader {
  readonly state: StoreApi<TableState> = createStore<TableState>(() => ({
    isOpen: false,
    run: null,
    columns: null,
    decimals: {},
    shape: null,
    shown: [],
    parts: new Map(),
    cursorRow: null,
  }));
  private readonly loop = new RenderLoop(() => this.fetch());
  private readonly unlisten: (() => void)[];
  /** Rows in sight. */
  private seen: [first: number, past: number] = [0, partRows];
  /** What the parts that are held were made of. */
  private madeOf: unknown[] = [];

  constructor(
    private readonly pool: Pick<RunPool, 'ask' | 'holds'>,
    private readonly documents: StoreApi<Documents>,
    private readonly view: StoreApi<View>,
    picture: StoreApi<Picture>,
    private readonly cursor: Pick<CursorReader, 'state'>,
  ) {
    this.unlisten = [
      picture.subscribe(() => this.soon()),
      view.subscribe((now, before) => {
        if (now.frontRunId !== before.frontRunId || now.page !== before.page) this.soon();
      }),
      cursor.state.subscribe((now, before) => {
        if (now.placed !== before.placed) this.now();
      }),
    ];
  }

  dispose(): void {
    this.unlisten.forEach((stop) => stop());
    this.loop.dispose();
  }

  toggle(): void {
    this.state.setState(({ isOpen }) => ({ isOpen: !isOpen }));
    this.now();
  }

  choose(changes: Partial<Pick<TableState, 'run' | 'columns' | 'decimals'>>): void {
    this.state.setState(changes);
    this.now();
  }

  /** Rows have come into sight. */
  see(first: number, past: number): void {
    if (this.seen[0] === first && this.seen[1] === past) return;
    this.seen = [first, past];
    this.now();
  }

  /** The run whose numbers stand in the table. */
  get runId(): string | null {
    const { runs } = this.documents.getState();
    const { run } = this.state.getState();
    const chosen = run === null ? undefined : shownRuns(runs).find(({ id }) => id === run);
    return (chosen ?? frontRun(runs, this.view.getState().frontRunId))?.id ?? null;
  }

  /** The columns of the table: chosen ones, or those of the traces that are looked at. */
  get columns(): SeriesRef[] {
    const { columns } = this.state.getState();
    if (columns !== null) return [...columns];
    const { runs, workings } = this.documents.getState();
    const page = pageIn(workings, this.view.getState().page);
    const over = page.horizontal === 't' ? [] : [page.horizontal];
    return [...new Set([...over, ...seriesOn(sharedPanels(panelsOf(page, runs), workings))])];
  }

  /** What the table is of, as it is asked for. */
  private get table() {
    return { workings: this.documents.getState().workings, references: this.columns };
  }

  /** A column more, or one less; the last one stays. */
  toggleColumn(reference: SeriesRef): void {
    const before = this.columns;
    const columns = before.includes(reference)
      ? before.filter((one) => one !== reference)
      : [...before, reference];
    if (columns.length > 0) this.choose({ columns });
  }

  /** When a row was read. */
  async timeAt(row: number): Promise<number | null> {
    const part = this.state.getState().parts.get(Math.floor(row / partRows));
    if (part !== undefined) return part.times[row - part.first] ?? null;
    const { runId } = this;
    if (runId === null) return null;
    const found = await this.pool.ask(runId, 'tablePart', { ...this.table, first: row, count: 1 });
    return found?.times[0] ?? null;
  }

  /** The row nearest to a place on the abscissa. */
  async rowAt(at: number): Promise<number | null> {
    const { runId } = this;
    return runId === null ? null : this.pool.ask(runId, 'tableRow', { ...this.table, at });
  }

  /** Copies rows as columns; all of them where no stretch is told. */
  async copy(interval: { from: number; to: number } | null): Promise<void> {
    const { runId, table } = this;
    const { shape } = this.state.getState();
    if (runId === null || shape === null) return;
    const rows =
      interval === null ? null : await Promise.all([interval.from, interval.to].map((at) => this.rowAt(at)));
    const [first, last] = [rows?.[0] ?? 0, rows?.[1] ?? shape.count - 1];
    const text = await this.pool.ask(runId, 'tableText', { ...table, first, past: last + 1 });
    if (text === null) return;
    const count = last + 1 - first;
    await copyText(text, `A table of ${count} ${count === 1 ? 'row' : 'rows'}`);
  }

  private now(): void {
    if (this.state.getState().isOpen) this.loop.now();
  }

  private soon(): void {
    if (this.state.getState().isOpen) this.loop.soon(liveMilliseconds);
  }

  private async fetch(): Promise<void> {
    const { runId, table } = this;
    const { workings, references: columns } = table;
    if (runId === null || !this.pool.holds(runId)) {
      this.state.setState({ shape: null, shown: [], parts: new Map(), cursorRow: null });
      return;
    }
    try {
      const shape = await this.pool.ask(runId, 'tableShape', table);
      const { placed } = this.cursor.state.getState();
      const cursorRow =
        placed === null ? null : await this.pool.ask(runId, 'tableRow', { ...table, at: placed });
      // What stands is kept only while nothing that it is made of has changed.
      const madeOf = [runId, columns.join(), workings, shape?.count];
      const stands =
        madeOf.length === this.madeOf.length && madeOf.every((part, i) => part === this.madeOf[i]);
      this.madeOf = madeOf;
      const kept = stands ? this.state.getState().parts : new Map<number, TablePart>();
      const parts = new Map([...kept].slice(-mostKept));
      const [first, past] = this.seen;
      const wanted: number[] = [];
      for (
        let part = Math.floor(first / partRows);
        part * partRows < Math.min(past, shape?.count ?? 0);
        part++
      )
        if (!parts.has(part)) wanted.push(part);
      const found = await Promise.all(
        wanted.map((part) =>
          this.pool.ask(runId, 'tablePart', { ...table, first: part * partRows, count: partRows }),
        ),
      );
      found.forEach((part, i) => {
        if (part !== null) parts.set(wanted[i], part);
      });
      this.state.setState({ shape, shown: columns, parts, cursorRow });
    } catch {
      // The workers are gone with their bench.
    }
  }
}
