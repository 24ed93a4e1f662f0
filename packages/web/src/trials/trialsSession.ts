import {
  type KeptDocument,
  type Run,
  type ToScreen,
  type TrialColumn,
  type TrialTable,
  type TrialsDocument,
  type WorkingsDocument,
  panelOf,
  storedKeptSchema,
} from '@heuristor/contracts';
import { type Condition, type SeriesRef, channelRef } from '@heuristor/core';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { getJson } from '../api/client';
import { type TrialsHost } from './host';
import { KeptOnPage } from '../investigation/kept/keptOnPage';
import { SheetSession } from '../investigation/sheetSession';
import { type Documents } from '../investigation/state';
import { presentRuns } from '../runs/runs';
import { seenBy } from '../runs/seenRun';
import { tabMemory } from '../traces/pages/lookMemory';
import { pageIn, panelsOf } from '../traces/pages/pages';
import { withEntry } from '../workings/edits';
import { tell } from '../ui/noticeStore';
import { type DerivedRun, derivedRun, numberColumns } from './derivedRun';
import { givenOf } from './given';
import { OutcomeReader } from './outcomeReader';
import { pastedRows } from './pastedRows';
import { type TableInputs, type TableView, type TrialRow, tableView } from './tableView';
import { type Straightening } from './straightenings';
import { newColumn, tableIn, withColumn, withTable, withTableAdded, withTypedRow } from './trialsDocument';

export interface TrialsState {
  trials: TrialsDocument;
  /** The table that is looked at. */
  open: string | null;
  view: TableView | null;
  /** The row that is marked in table and plots. */
  marked: string | null;
  /** What fills the page: the table or the plot alone; null for both. */
  fills: 'table' | 'plot' | null;
}

/** Runs that are rows: what was rehearsed, removed, or is not over yet, is none. */
export const countedRuns = <R extends Run>(runs: readonly R[]): R[] =>
  presentRuns(runs).filter(
    ({ practice, state }) => !practice && (state === 'ended' || state === 'interrupted'),
  );

const noWorkings = { format: 6, aside: [], shifts: [], runs: [] } as const;

/** The sheet of a table, as workings over the run that the table is. */
const workingsOf = (table: TrialTable | undefined, aside: WorkingsDocument['aside']): WorkingsDocument => ({
  ...noWorkings,
  shifts: [],
  runs: [],
  entries: table?.sheet.entries ?? [],
  pages: table?.sheet.pages ?? [{ id: 'page-1', name: '', horizontal: 't', panels: [], labels: [] }],
  aside,
});

/** The run that a table is has no id of a stored one. */
const runIdOf = (table: string) => `trials-${table}`;

/** The trials of an investigation: its tables, kept and filled, and the sheet of the one that is looked at. */
export class TrialsSession extends SheetSession {
  override readonly isOfTables = true;
  override readonly whole = 'all rows';
  readonly state: StoreApi<TrialsState>;
  private readonly kept: KeptOnPage<'trials'>;
  private readonly reader: OutcomeReader;
  private derived: DerivedRun | null = null;
  private isWatched = false;
  private scheduled = false;
  /** What the run of the table was, to see where it is another one. */
  private derivedText = '';

  static async open(investigation: TrialsHost): Promise<TrialsSession> {
    const { version, document } = await getJson(
      `/investigations/${investigation.id}/trials`,
      storedKeptSchema('trials'),
    );
    return new TrialsSession(investigation, document, version);
  }

  private constructor(
    readonly investigation: TrialsHost,
    trials: KeptDocument<'trials'>,
    version: number,
  ) {
    const first = trials.tables[0];
    super(investigation.id, {
      documents: documentsOf(investigation.documents.getState(), workingsOf(first, []), []),
      pool: investigation.pool,
      history: investigation.history,
      memory: tabMemory(`${investigation.id}/trials`),
    });
    this.state = createStore<TrialsState>(() => ({
      trials,
      open: first?.id ?? null,
      view: null,
      marked: null,
      fills: null,
    }));
    this.reader = new OutcomeReader(
      investigation.id,
      this.pool,
      () => investigation.stored(),
      (run, sentence) => tell({ kind: 'fault', text: `${run.name} could not be worked out. ${sentence}` }),
    );
    this.kept = new KeptOnPage('trials', version, investigation.owner, {
      id: investigation.id,
      history: this.history,
      present: () => this.state.getState().trials,
      lay: (document) => this.lay(document),
      isMoving: () => this.view.getState().moving,
    });
    this.view.setState({ withZero: true });
    this.unlisten.push(
      investigation.documents.subscribe((now, before) => {
        if (now.runs !== before.runs || now.plan !== before.plan || now.workings !== before.workings)
          this.ask();
        if (now.name !== before.name) this.documents.setState({ name: now.name });
      }),
      this.reader.state.subscribe(() => this.refreshSoon()),
    );
    this.refresh();
  }

  get saver() {
    return this.kept.saver;
  }

  get shownTable(): TrialTable | undefined {
    const { trials, open } = this.state.getState();
    return tableIn(trials, open);
  }

  /** The page is looked at: rows are worked out from now on. */
  enter(): void {
    this.isWatched = true;
    this.ask();
  }

  leave(): void {
    this.isWatched = false;
  }

  override dispose(): void {
    if (this.disposed) return;
    super.dispose();
    this.reader.dispose();
    this.kept.leave();
  }

  hear(message: ToScreen): void {
    void this.kept.hear(message);
  }

  /** The page may go away in this moment. */
  keep(): void {
    this.looking.keep();
    this.kept.keep();
  }

  /** Changes the trials; every call is one step of undo. */
  change(change: (trials: TrialsDocument) => TrialsDocument): void {
    const before = this.state.getState().trials;
    const after = change(before);
    if (after !== before) this.kept.change(before, after);
  }

  /** Changes the table that is looked at. */
  changeTable(change: (table: TrialTable) => TrialTable): void {
    const table = this.shownTable;
    if (table === undefined) return;
    this.change((trials) => withTable(trials, table.id, change));
  }

  /** One more table, which is looked at. */
  addTable(parts: Partial<TrialTable>): void {
    const { trials, id } = withTableAdded(this.state.getState().trials, parts);
    this.change(() => trials);
    this.openTable(id);
  }

  fill(fills: TrialsState['fills']): void {
    this.state.setState({ fills });
  }

  openTable(open: string): void {
    this.state.setState({ open, marked: null });
    this.viewing.selectRegion(null);
    this.view.setState({ sight: null, scales: {}, page: this.shownTable?.sheet.pages[0]?.id ?? null });
    this.refresh();
  }

  /** Marks a row in the table and in the plots; null of none. */
  mark(marked: string | null): void {
    this.state.setState({ marked });
  }

  /** What the columns of the table can be of. */
  get inputs(): TableInputs | null {
    const table = this.shownTable;
    if (table === undefined) return null;
    const { runs, plan, workings } = this.investigation.documents.getState();
    return {
      table,
      runs: countedRuns(runs),
      conditions: plan.conditions,
      workings,
      outcomes: this.reader.state.getState().outcomes,
    };
  }

  get outcomes() {
    return this.reader.state;
  }

  /** The column that is drawn upright; null where another series of the sheet is. */
  get uprightColumn(): string | null {
    const { page } = this.onPage;
    const [panel] = panelsOf(pageIn(this.workings, page), this.runs);
    const reference = panel?.series[0] ?? '';
    return reference.startsWith('channel:') ? reference.slice('channel:'.length) : null;
  }

  /** What stands along the horizontal axis. */
  get across(): SeriesRef {
    return pageIn(this.workings, this.onPage.page).horizontal;
  }

  /** Rows that were copied elsewhere, as typed rows; what of them was not understood is said. */
  paste(text: string): void {
    const { inputs } = this;
    const { view } = this.state.getState();
    if (inputs === null || view === null) return;
    const { rows, unknown, faults } = pastedRows(text, view, inputs);
    if (rows.length > 0)
      this.changeTable((table) =>
        rows.reduce((all, { name, cells }) => withTypedRow(all, name, cells), table),
      );
    const left = [
      ...faults,
      ...(unknown.length === 0 ? [] : [`No column here is called ${unknown.join(', ')}.`]),
    ];
    const count = rows.length === 1 ? 'One row was' : `${rows.length === 0 ? 'No' : rows.length} rows were`;
    tell({
      kind: left.length === 0 && rows.length > 0 ? 'news' : 'fault',
      text: `${count} pasted. ${left.join(' ')}`.trim(),
    });
  }

  /** What is a row: a run, or each value of a series, which becomes a column. */
  chooseRows(of: SeriesRef | null): void {
    const isThere = this.shownTable?.columns.some((column) => column.kind === 'value' && column.of === of);
    this.changeTable((table) => ({
      ...table,
      rows: of === null ? { kind: 'runs' } : { kind: 'values', of },
    }));
    if (of !== null && isThere !== true) this.addColumn(newColumn({ kind: 'value', of }));
  }

  plotAcross(key: string | null): void {
    this.drawn({});
    this.changePage((page) => ({ ...page, horizontal: key === null ? 't' : channelRef(key) }));
    this.viewing.leaveInterval();
  }

  plotUpright(key: string): void {
    this.drawn({});
    this.changePage((page) => ({ ...page, panels: [panelOf(channelRef(key))], labels: [] }));
    this.view.setState({ scales: {} });
  }

  /** Points are drawn, whatever was before. */
  private drawn(plot: Partial<TrialTable['plot']>): void {
    if (this.shownTable?.plot.kind === 'points') return;
    this.changeTable((table) => ({ ...table, plot: { ...table.plot, ...plot, kind: 'points' } }));
  }

  /** A column more; the first two of numbers are drawn against each other. */
  addColumn(column: TrialColumn): void {
    this.changeTable((table) => withColumn(table, column));
    const view = this.state.getState().view;
    const numbers = numberColumns(view?.columns ?? []);
    const isNew = numbers.some(({ key }) => key === column.key);
    const known = new Set(numbers.map(({ key }) => key));
    if (!isNew) return;
    const { horizontal, panels } = pageIn(this.workings, this.onPage.page);
    if (panels.length === 0)
      this.changePage((page) => ({ ...page, panels: [panelOf(channelRef(column.key))] }));
    else if (horizontal === 't' && known.size === 2) {
      // What is typed of runs is what was changed; what follows stands upright.
      const other = numbers.find(({ key }) => key !== column.key);
      const isCause = column.kind === 'condition' && other?.column.kind !== 'condition';
      const [across, upright] =
        isCause || other === undefined ? [column.key, other?.key] : [other.key, column.key];
      this.changePage((page) => ({
        ...page,
        horizontal: channelRef(across),
        panels: upright === undefined ? page.panels : [panelOf(channelRef(upright))],
      }));
    }
    this.viewing.leaveInterval();
  }

  /** Draws formulas of the two columns against each other, and a line through them. */
  straighten({ upright, across }: Straightening): void {
    const made: TrialColumn[] = [];
    const columnFor = (formula: string | null, present: string | null): string | null => {
      if (formula === null) return present;
      const known = this.shownTable?.columns.find(
        (column) => column.kind === 'formula' && column.formula === formula,
      );
      if (known !== undefined) return known.key;
      const column = newColumn({ kind: 'formula', formula });
      made.push(column);
      return column.key;
    };
    const { across: along } = this;
    const x = columnFor(across, along.startsWith('channel:') ? along.slice('channel:'.length) : null);
    const y = columnFor(upright, this.uprightColumn);
    if (x === null || y === null) return;
    this.history.hold();
    this.changeTable((table) => made.reduce(withColumn, table));
    this.changePage((page) => ({
      ...page,
      horizontal: channelRef(x),
      panels: [panelOf(channelRef(y))],
      labels: [],
    }));
    this.changeWorkings(
      (workings) =>
        withEntry(workings, this.onPage, {
          kind: 'fit',
          preset: { relation: 'line', against: channelRef(x) },
          of: channelRef(y),
          region: null,
        }).workings,
    );
    this.history.release();
    this.viewing.leaveInterval();
    this.view.setState({ scales: {} });
  }

  protected store(before: WorkingsDocument, after: WorkingsDocument): void {
    const table = this.shownTable;
    if (table === undefined) return;
    const { entries, pages, aside } = after;
    this.changeTable((own) => ({
      ...own,
      sheet: { entries: this.weighted(before, entries), pages },
      leftOut: aside === before.aside ? own.leftOut : this.leftOutBy(own, aside),
    }));
  }

  /** A new fit counts points by their uncertainties where all of them have some. */
  private weighted(
    before: WorkingsDocument,
    entries: WorkingsDocument['entries'],
  ): WorkingsDocument['entries'] {
    const known = new Set(before.entries.map(({ id }) => id));
    return entries.map((entry) => {
      if (known.has(entry.id) || (entry.kind !== 'fit' && entry.kind !== 'formulaFit')) return entry;
      const { of } = entry as { of?: string };
      const rows = this.derived?.rows.filter(({ leftOut }) => leftOut === null) ?? [];
      const key = of?.startsWith('channel:') === true ? of.slice('channel:'.length) : null;
      const isUncertain =
        key !== null &&
        rows.every(({ cells }) => {
          const cell = cells[key];
          return cell.kind !== 'number' || cell.quantity.standardUncertainty !== null;
        });
      return isUncertain && 'weights' in entry ? { ...entry, weights: 'own' as const } : entry;
    });
  }

  /** Readings that a hand has set aside in a plot are rows that do not count. */
  private leftOutBy(table: TrialTable, aside: WorkingsDocument['aside']): TrialTable['leftOut'] {
    const rows = this.derived?.rows ?? [];
    const before = this.workings.aside;
    const has = (all: WorkingsDocument['aside'], i: number) =>
      all.some(({ ranges }) => ranges.some(([first, past]) => i >= first && i < past));
    const wholly = (i: number) =>
      aside.length > 0 &&
      numberColumns(this.state.getState().view?.columns ?? []).every(({ key }) =>
        aside.some(
          ({ channel, ranges }) => channel === key && ranges.some(([first, past]) => i >= first && i < past),
        ),
      );
    let leftOut = table.leftOut;
    rows.forEach(({ id }, i) => {
      const was = has(before, i);
      // It counts again as soon as one of its numbers was taken back.
      const is = was ? wholly(i) : has(aside, i);
      if (was === is) return;
      leftOut = is ? [...leftOut, { row: id, why: '' }] : leftOut.filter(({ row }) => row !== id);
    });
    return leftOut;
  }

  private lay(trials: TrialsDocument): void {
    const { open } = this.state.getState();
    const isThere = trials.tables.some(({ id }) => id === open);
    this.state.setState({ trials, open: isThere ? open : (trials.tables.at(-1)?.id ?? null) });
    this.refresh();
  }

  private ask(): void {
    if (!this.isWatched) return;
    const { runs, plan, workings } = this.investigation.documents.getState();
    this.reader.want({ runs: countedRuns(runs), workings, plan });
    this.refreshSoon();
  }

  private refreshSoon(): void {
    if (this.scheduled) return;
    this.scheduled = true;
    queueMicrotask(() => {
      this.scheduled = false;
      if (!this.disposed) this.refresh();
    });
  }

  /** Lays the table out anew, and the run that it is. */
  private refresh(): void {
    const { inputs } = this;
    const own = this.investigation.documents.getState();
    if (inputs === null) {
      this.derived = null;
      this.state.setState({ view: null });
      this.documents.setState(documentsOf(own, workingsOf(undefined, []), []));
      this.renderer.now();
      return;
    }
    const view = tableView(inputs);
    const { table } = inputs;
    this.state.setState({ view });
    const id = runIdOf(table.id);
    const derived = derivedRun(view, id, isCountedIn(table));
    const workings = workingsOf(table, derived.aside);
    const given = givenOf(
      inputs.workings,
      inputs.outcomes,
      view.columns.map(({ title }) => title),
    );
    const { page } = this.view.getState();
    if (pageIn(workings, page).id !== page) this.view.setState({ page: workings.pages[0].id });
    const text = id + textOfRun(derived);
    if (text === this.derivedText) {
      this.documents.setState({ ...documentsOf(own, workings, this.runs, given), runs: this.runs });
      this.renderer.now();
      return;
    }
    this.derivedText = text;
    this.derived = derived;
    this.documents.setState(documentsOf(own, workings, [derived.run], given));
    void this.pool.put(derived.run, derived.readings()).then(() => {
      if (!this.disposed) this.renderer.readingsCame();
    });
    this.renderer.now();
  }

  /** The rows that are readings of the plots, in their order. */
  get plotted(): readonly TrialRow[] {
    return this.derived?.rows ?? [];
  }
}

/** All that the evaluation of a table sees of it. */
const textOfRun = (derived: DerivedRun): string =>
  JSON.stringify(
    [derived.readings(), derived.run.channels.map(({ key, symbol, unit }) => [key, symbol, unit])],
    plain,
  );

const plain = (_key: string, value: unknown): unknown =>
  value instanceof Float64Array || value instanceof Uint8Array ? [...value].map(String) : value;

/** Whether a row is looked at, as the table is filtered. */
export function isCountedIn({ only }: TrialTable): (row: TrialRow) => boolean {
  if (only === null) return () => true;
  return ({ cells }) => {
    const cell = cells[only.column];
    return only.words.includes(
      cell?.kind === 'word' ? cell.text : cell?.kind === 'number' ? String(cell.quantity.value) : '',
    );
  };
}

function documentsOf(
  { name, plan }: Documents,
  workings: WorkingsDocument,
  runs: readonly Run[],
  given: readonly Condition[] = [],
): Documents {
  return {
    name,
    plan: {
      ...plan,
      conditions: given.map(({ name: called, unit }) => ({
        key: called,
        name: called,
        kind: 'number',
        unit,
      })),
      way: 'spot',
    },
    given,
    runs: seenBy(runs, []),
    workings,
    recorder: { phase: 'idle' },
    spots: { phase: 'idle' },
    sensors: [],
  };
}
