import {
  type KeptDocument,
  type ToScreen,
  type TrialTable,
  type TrialsDocument,
  type WorkingsDocument,
  storedKeptSchema,
} from '@heuristor/contracts';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { getJson } from '../api/client';
import { KeptOnPage } from '../investigation/kept/keptOnPage';
import { SheetSession } from '../investigation/sheetSession';
import { tabMemory } from '../traces/pages/lookMemory';
import { type GivenLabel } from '../traces/labels/labelReader';
import { pageIn } from '../traces/pages/pages';
import { tell } from '../ui/noticeStore';
import { AcrossReader } from './acrossReader';
import { countedRuns, isCountedIn } from './counted';
import { type DerivedRun, derivedRuns } from './derivedRun';
import { givenOf } from './given';
import { spansOfPlot } from './holds';
import { type TrialsHost } from './host';
import { OutcomeReader } from './outcomeReader';
import { pointLabels } from './pointLabels';
import { pastedRows } from './pastedRows';
import { Plotting } from './plotting';
import { documentsOf, leftOutBy, runIdOf, textOfRun, withWeights, workingsOf } from './tableSheet';
import { RowMemory } from './rowMemory';
import { type TableInputs, type TableView, type TrialRow, tableView } from './tableView';
import { isZeroNear } from './zeroNear';
import { tableIn, withTable, withTableAdded, withTypedRow } from './trialsDocument';

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

/** The trials of an investigation: its tables, kept and filled, and the sheet of the one that is looked at. */
export class TrialsSession extends SheetSession {
  override readonly isOfTables = true;
  readonly plotting = new Plotting(this);
  override readonly whole = 'all rows';
  readonly state: StoreApi<TrialsState>;
  private readonly kept: KeptOnPage<'trials'>;
  private readonly reader: OutcomeReader;
  private readonly acrossReader: AcrossReader;
  private derived: readonly DerivedRun[] = [];
  private readonly memory = new RowMemory<TrialRow>();
  private isWatched = false;
  private scheduled = false;
  private isZeroChosen = false;
  /** What the runs of the table were, to see where one is another. */
  private derivedText = new Map<string, string>();

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
      (text) => tell({ kind: 'fault', text }),
    );
    this.acrossReader = new AcrossReader(
      this.pool,
      () => investigation.stored(),
      (text) => tell({ kind: 'fault', text }),
    );
    this.kept = new KeptOnPage('trials', version, investigation.owner, {
      id: investigation.id,
      history: this.history,
      present: () => this.state.getState().trials,
      lay: (document) => this.lay(document),
      isMoving: () => this.view.getState().moving,
    });
    this.unlisten.push(
      investigation.documents.subscribe((now, before) => {
        if (now.runs !== before.runs || now.plan !== before.plan || now.workings !== before.workings)
          this.ask();
        if (now.name !== before.name) this.documents.setState({ name: now.name });
      }),
      // A point that is pressed is a row.
      this.cursor.state.subscribe((now, before) => {
        if (now.placed === null || now.placed === before.placed) return;
        const row = this.rowAt(this.front?.id ?? '', now.placed);
        if (row !== undefined) this.mark(row.id);
      }),
      this.acrossReader.state.subscribe(() => this.refreshSoon()),
      this.reader.state.subscribe((now, before) => {
        if (now.outcomes !== before.outcomes) this.refreshSoon();
      }),
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
    this.acrossReader.dispose();
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

  /** Whether axes begin at zero; before somebody chooses, they do where zero is not far from the values. */
  showZero(withZero: boolean): void {
    this.isZeroChosen = true;
    this.viewing.showZero(withZero);
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
    if (marked === this.state.getState().marked) return;
    this.state.setState({ marked });
    this.labels.again();
  }

  get rowRuns(): number {
    return countedRuns(this.investigation.documents.getState().runs).length;
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
      ...this.acrossInputs,
    };
  }

  private get acrossInputs(): Pick<TableInputs, 'across'> {
    const { of, outcomes } = this.across.getState();
    const rows = this.shownTable?.rows;
    return rows?.kind === 'constant' && of?.entry === rows.entry
      ? { across: { count: of.values.length, outcomes } }
      : {};
  }

  get outcomes() {
    return this.reader.state;
  }

  /** What follows from values of a constant, where these are the rows. */
  get across() {
    return this.acrossReader.state;
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

  protected store(before: WorkingsDocument, after: WorkingsDocument): void {
    const table = this.shownTable;
    if (table === undefined) return;
    const { entries, pages, aside } = after;
    this.changeTable((own) => ({
      ...own,
      sheet: { entries: withWeights(before.entries, entries, this.plotted), pages },
      leftOut: aside === before.aside ? own.leftOut : leftOutBy(own, this.derived, before.aside, aside),
    }));
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
    this.askAcross();
    this.refreshSoon();
  }

  private askAcross(): void {
    if (!this.isWatched) return;
    const { runs, plan, workings } = this.investigation.documents.getState();
    this.acrossReader.want({ table: this.shownTable, runs: countedRuns(runs), workings, plan });
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
    this.askAcross();
    const { inputs } = this;
    const own = this.investigation.documents.getState();
    if (inputs === null) {
      this.derived = [];
      this.state.setState({ view: null });
      this.documents.setState(documentsOf(own, workingsOf(undefined, []), []));
      this.renderer.now();
      return;
    }
    const view = tableView(inputs, this.memory);
    const { table } = inputs;
    this.state.setState({ view });
    const id = runIdOf(table.id);
    const derived = derivedRuns(view, id, isCountedIn(table), table.plot.apart);
    const counted = derived.flatMap(({ rows }) => rows);
    if (!this.isZeroChosen) this.view.setState({ withZero: isZeroNear(counted, this.plotting.upright) });
    const workings = workingsOf(
      table,
      derived.flatMap(({ aside }) => aside),
    );
    const given = givenOf(
      inputs.workings,
      inputs.outcomes,
      view.columns.map(({ title }) => title),
    );
    const { page } = this.view.getState();
    if (pageIn(workings, page).id !== page) this.view.setState({ page: workings.pages[0].id });
    // A run that is as it was stays the one that the workers have.
    const texts = new Map(derived.map((one) => [one.run.id, textOfRun(one)]));
    const known = new Map(this.runs.map((run) => [run.id, run]));
    const isKnown = ({ run }: DerivedRun) =>
      known.has(run.id) && texts.get(run.id) === this.derivedText.get(run.id);
    const others = derived.filter((one) => !isKnown(one));
    const isAsBefore = others.length === 0 && derived.length === this.runs.length;
    this.derived = derived;
    this.derivedText = texts;
    const runs = derived.map(({ run }) =>
      others.some((one) => one.run === run) ? run : (known.get(run.id) ?? run),
    );
    const spans = spansOfPlot(table.plot, this.plotting.across, counted, this.documents.getState().spans);
    const documents = documentsOf(own, workings, runs, { given, spans });
    this.documents.setState(isAsBefore ? { ...documents, runs: this.runs } : documents);
    if (others.length > 0)
      void Promise.all(others.map((one) => this.pool.put(one.run, one.readings()))).then(() => {
        if (!this.disposed) this.renderer.readingsCame();
      });
    this.renderer.now();
  }

  /** Names beside the points, and the row that is marked. */
  protected override givenLabels(): readonly GivenLabel[] {
    const table = this.shownTable;
    const { view, marked } = this.state.getState();
    if (table?.plot.kind !== 'points' || view === null) return [];
    return pointLabels(this.derived, {
      names: table.plot.names,
      marked,
      page: pageIn(this.workings, this.onPage.page),
      runs: this.runs,
    });
  }

  /** The row at a place of the abscissa of a run that the table is; undefined where there is none. */
  rowAt(run: string, place: number): TrialRow | undefined {
    const found = this.derived.find((one) => one.run.id === run);
    return found?.rows[found.places.indexOf(place)];
  }

  /** The rows that are readings of the plots, in their order. */
  get plotted(): readonly TrialRow[] {
    return this.derived.flatMap(({ rows }) => rows);
  }
}
