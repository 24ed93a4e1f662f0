import { type Label, type Page, type Run, type WorkingsDocument } from '@heuristor/contracts';
import { type Entry, type SeriesRef } from '@heuristor/core';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { withShifts } from '../runs/aligning';
import { type RunPool } from '../runs/pool';
import { frontRun } from '../runs/runs';
import { type SeenRun } from '../runs/seenRun';
import { TableReader } from '../table/tableReader';
import { CursorReader } from '../traces/cursor/cursor';
import { type GivenLabel, LabelReader } from '../traces/labels/labelReader';
import { mostLabels, withLabel, withRenamed } from '../traces/labels/labels';
import { type LookMemory } from '../traces/pages/lookMemory';
import { Looking, usualLook, usualView } from '../traces/pages/looking';
import { type OnPage, pageIn, withPage, withPageAdded, withoutPage } from '../traces/pages/pages';
import { type Picture } from '../traces/picture';
import { Renderer } from '../traces/renderer';
import { unitSeen, withUnitsSeen } from '../traces/unitSeen';
import { tell } from '../ui/noticeStore';
import { type Sight } from '../workers/protocol';
import { AsideActions } from '../workings/asides/asideActions';
import { withFormulasRenamed } from '../workings/formulas/formulas';
import { InSight } from '../workings/inSight';
import { RegionActions } from '../workings/regions/regionActions';
import { Dialogs } from './dialogs';
import { type History } from './history';
import { type Documents, type View } from './state';
import { Viewing } from './viewing';

/** What a sheet stands over, and where its steps are kept. */
interface Over {
  documents: Documents;
  pool: RunPool;
  history: History;
  memory: LookMemory;
}

/**
 * A sheet of entries over runs, as a page draws it, works on it and asks about it: that of an investigation over its runs, or that
 * of a table of trials over its rows. Where it is stored, and what its runs are, others say.
 */
export abstract class SheetSession {
  /** Whether its runs are tables, which are no recorded runs. */
  readonly isOfTables: boolean = false;
  /** What an entry is on that has no region. */
  readonly whole: string = 'the whole run';
  readonly documents: StoreApi<Documents>;
  readonly view: StoreApi<View>;
  readonly history: History;
  readonly viewing: Viewing;
  readonly looking: Looking;
  readonly inSight = new InSight();
  readonly dialogs = new Dialogs();
  readonly cursor: CursorReader;
  readonly labels: LabelReader;
  readonly table: TableReader;
  readonly asides: AsideActions = new AsideActions(this);
  readonly regions: RegionActions = new RegionActions(this);
  readonly pool: RunPool;
  protected readonly renderer: Renderer;
  protected readonly unlisten: (() => void)[] = [];
  protected disposed = false;

  protected constructor(
    readonly id: string,
    { documents, pool, history, memory }: Over,
  ) {
    this.documents = createStore<Documents>(() => documents);
    this.view = createStore<View>(() => ({ ...usualView, page: documents.workings.pages[0].id }));
    this.pool = pool;
    this.history = history;
    this.viewing = new Viewing(this.view);
    this.looking = new Looking(this.view, memory);
    this.renderer = new Renderer(this.pool, this.documents, this.view, this.inSight);
    this.cursor = new CursorReader(
      this.pool,
      this.documents,
      this.view,
      this.renderer.picture,
      () => this.isOfTables,
    );
    this.table = new TableReader(this.pool, this.documents, this.view, this.renderer.picture, this.cursor);
    this.labels = new LabelReader(this.pool, this.documents, this.view, this.renderer.picture, () =>
      this.givenLabels(),
    );
    this.unlisten.push(
      this.view.subscribe((now, before) => {
        const parts = ['page', 'sight', 'scales', 'reach', 'plotWidth', 'withZero'] as const;
        if (parts.some((part) => now[part] !== before[part])) this.renderer.now();
      }),
    );
  }

  /** Keeps the sheet as it was changed, as a step that can be taken back. */
  protected abstract store(before: WorkingsDocument, after: WorkingsDocument): void;

  /** Ends the session; what is not stored yet is stored. */
  dispose(): void {
    this.disposed = true;
    this.looking.keep();
    this.unlisten.forEach((stop) => stop());
    this.cursor.dispose();
    this.table.dispose();
    this.labels.dispose();
    this.renderer.dispose();
  }

  /** Labels on the page that is looked at which nobody has typed. */
  protected givenLabels(): readonly GivenLabel[] {
    return [];
  }

  get picture(): StoreApi<Picture> {
    return this.renderer.picture;
  }

  get workings(): WorkingsDocument {
    return this.documents.getState().workings;
  }

  /** The run whose results stand in front. */
  get front(): SeenRun | undefined {
    return frontRun(this.runs, this.view.getState().frontRunId);
  }

  /** The page that is looked at. */
  get onPage(): OnPage {
    return { page: this.view.getState().page, runs: this.runs };
  }

  get runs(): SeenRun[] {
    return this.documents.getState().runs;
  }

  // The sheet

  /** Changes the sheet; every call is one step of undo, but for those of one drag. */
  changeWorkings(change: (workings: WorkingsDocument) => WorkingsDocument): void {
    const before = this.workings;
    const changed = change(before);
    if (changed === before) return;
    const after = withUnitsSeen(before, changed, (of) => this.unitSeenOf(of));
    this.store(before, after);
  }

  /** The unit in which a person sees a series; null where nobody knows. */
  unitSeenOf(of: SeriesRef): string | null {
    const { horizontal } = pageIn(this.workings, this.onPage.page);
    return unitSeen(of, { picture: this.picture.getState(), runs: this.runs, front: this.front, horizontal });
  }

  /** Changes how the traces of the page that is looked at are laid out. */
  changePage(change: (page: Page, runs: readonly Run[]) => Page): void {
    const { page, runs } = this.onPage;
    this.changeWorkings((workings) => withPage(workings, page, (shown) => change(shown, runs)));
  }

  /** Puts words on a trace, and opens them to be written. */
  addLabel(panel: string, at: Label['at'], text: string): void {
    let added: string | null = null;
    this.changePage((page) => {
      const made = withLabel(page, { panel, at, text });
      added = made?.id ?? null;
      return made?.page ?? page;
    });
    if (added === null)
      tell({ kind: 'news', text: `A page holds ${mostLabels} labels. Remove one, or begin a new page.` });
    this.viewing.openEntry(added);
  }

  changeEntry(id: string, patch: Partial<Entry>): void {
    this.changeWorkings((workings) => {
      const before = workings.entries.find((entry) => entry.id === id);
      const changed = {
        ...workings,
        entries: workings.entries.map((entry) =>
          entry === before ? ({ ...entry, ...patch } as Entry) : entry,
        ),
      };
      return before === undefined || patch.name === undefined
        ? changed
        : withFormulasRenamed(withRenamed(changed, before.name, patch.name), id, before.name, patch.name);
    });
  }

  /** From here to `settle`, a hand moves something: one step of undo, and numbers follow at once rather than in full. */
  move(): void {
    this.history.hold();
    if (!this.view.getState().moving) this.view.setState({ moving: true });
  }

  settle(): void {
    this.history.release();
    this.looking.settle();
    if (!this.view.getState().moving) return;
    this.view.setState({ moving: false });
    this.renderer.now();
  }

  look(sight: Sight | null): void {
    this.looking.change({ sight });
  }

  /** Sets a vertical axis; null makes it follow the data again. */
  scale(axis: string, range: Sight | null): void {
    const scales = { ...this.view.getState().scales };
    if (range === null) delete scales[axis];
    else scales[axis] = range;
    this.looking.change({ scales });
  }

  /** Everything, and axes that follow the data. */
  frameAll(): void {
    const { enlarged } = this.view.getState();
    this.looking.change({ ...usualLook, enlarged });
  }

  /** A page goes; the one before it is looked at. */
  removePage(id: string): void {
    const { pages } = this.workings;
    const place = pages.findIndex((page) => page.id === id);
    this.changeWorkings((workings) => withoutPage(workings, id));
    if (pageIn(this.workings, this.onPage.page).id !== this.onPage.page)
      this.looking.open(this.workings.pages[Math.max(place - 1, 0)].id);
  }

  /** Lays runs where they were recorded, or so much later. */
  shiftRuns(moved: ReadonlyMap<string, number>): void {
    this.changeWorkings((workings) => withShifts(workings, moved));
  }

  /** One more page, which begins as the one that is looked at. */
  addPage(): void {
    const { workings, id } = withPageAdded(this.workings, this.onPage.page);
    this.changeWorkings(() => workings);
    this.looking.open(id);
  }
}
