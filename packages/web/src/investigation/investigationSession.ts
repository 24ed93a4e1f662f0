import {
  type Label,
  type Investigation,
  type Page,
  type Run,
  type ToScreen,
  type WorkingsDocument,
  frameKinds,
  investigationSchema,
  runSchema,
} from '@heuristor/contracts';
import { type Entry, type SeriesRef } from '@heuristor/core';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { getJson, getNumbers, request, sentenceOf } from '../api/client';
import { live } from '../api/live';
import { tell } from '../ui/noticeStore';
import { RunPool } from '../runs/pool';
import { type Sight } from '../workers/protocol';
import { attempt, attemptInOrder } from '../api/attempt';
import { withShifts } from '../runs/aligning';
import { withFormulasRenamed } from '../workings/formulas/formulas';
import { AsideActions } from '../workings/asides/asideActions';
import { AwayActions } from '../recording/away/awayActions';
import { CursorReader } from '../traces/cursor/cursor';
import { Viewing } from './viewing';
import { Dialogs } from './dialogs';
import { endedMeanwhile } from '../recording/endedMeanwhile';
import { History } from './history';
import { type Host } from './host';
import { KeptOnPage } from './kept/keptOnPage';
import { InSight } from '../workings/inSight';
import { LabelReader } from '../traces/labels/labelReader';
import { mostLabels, withLabel, withRenamed } from '../traces/labels/labels';
import { tabMemory } from '../traces/pages/lookMemory';
import { Looking, usualLook, usualView } from '../traces/pages/looking';
import { type OnPage, pageIn, withPage, withPageAdded, withoutPage } from '../traces/pages/pages';
import { type Picture } from '../traces/picture';
import { PlanActions } from '../recording/plan/planActions';
import { Renderer } from '../traces/renderer';
import { RegionActions } from '../workings/regions/regionActions';
import { RunActions } from '../runs/runActions';
import { RunFeed } from '../runs/runFeed';
import { RunsSeen } from '../runs/runsSeen';
import { frontRun, shownRuns } from '../runs/runs';
import { type SeenRun, seenBy } from '../runs/seenRun';
import { withTaken } from '../runs/taking';
import { SensorActions } from '../sensors/sensorActions';
import { SpotActions } from '../recording/spots/spotActions';
import { type Documents, type View } from './state';
import { TemplateActions } from '../workings/templates/templateActions';
import { TableReader } from '../table/tableReader';
import { unitSeen, withUnitsSeen } from '../traces/unitSeen';
import { wayOf } from '../recording/ways';

/** So long an investigation waits for the live stream before it opens; what is missed until the stream stands is fetched then. */
const longestWait = 500;
const passed = (milliseconds: number) =>
  new Promise<false>((resolve) => setTimeout(() => resolve(false), milliseconds));

/**
 * One investigation that is open, on whichever of its pages: made by their layout, disposed of when all of them are left. It holds
 * the documents and what the workers make of them, keeps them stored, and remembers what was done.
 */
export class InvestigationSession implements Host {
  readonly documents: StoreApi<Documents>;
  readonly view: StoreApi<View>;
  readonly history = new History();
  readonly viewing: Viewing;
  readonly looking: Looking;
  readonly inSight = new InSight();
  readonly dialogs = new Dialogs();
  readonly cursor: CursorReader;
  readonly labels: LabelReader;
  readonly table: TableReader;
  readonly runActions: RunActions;
  readonly asides: AsideActions = new AsideActions(this);
  readonly regions: RegionActions = new RegionActions(this);
  readonly templates: TemplateActions = new TemplateActions(this);
  readonly plan: PlanActions;
  /** The sheet, as it is changed, stored and taken back; everybody else reads it off the documents. */
  private readonly sheet: KeptOnPage<'workings'>;
  readonly sensors: SensorActions;
  readonly spots: SpotActions;
  readonly away: AwayActions;
  readonly pool = RunPool.take();
  readonly seen = new RunsSeen(async (runId) => (await this.pool.ask(runId, 'seen')) ?? []);
  private readonly feed: RunFeed;
  private readonly renderer: Renderer;
  private readonly unlisten: (() => void)[] = [];
  private disposed = false;
  private wasOffline = false;
  private isToggling = false;

  static async open(id: string): Promise<InvestigationSession> {
    const watch = live.watchInvestigation(id);
    try {
      // What is fetched before the stream listens could be changed in between, and nobody would hear of it.
      const isHeard = await Promise.race([watch.heard.then(() => true), passed(longestWait)]);
      const { ended, ...investigation } = await getJson(`/investigations/${id}`, investigationSchema);
      const session = new InvestigationSession(investigation, watch.stop);
      if (!isHeard) void watch.heard.then(() => session.catchUp());
      session.tellEnded(ended);
      return session;
    } catch (error) {
      watch.stop();
      throw error;
    }
  }

  private constructor(
    { id, workingsVersion, workingsOwner, ...documents }: Omit<Investigation, 'ended'>,
    unwatch: () => void,
  ) {
    const { workings } = documents;
    this.id = id;
    this.documents = createStore<Documents>(() => ({
      ...documents,
      runs: seenBy(documents.runs, workings.runs),
    }));
    this.view = createStore<View>(() => ({ ...usualView, page: workings.pages[0].id }));
    this.viewing = new Viewing(this.view);
    this.looking = new Looking(this.view, tabMemory(id));
    this.plan = new PlanActions(this.path(''), this.history, this.documents);
    this.away = new AwayActions(this.path(''), this.history);
    this.spots = new SpotActions(this.path(''), this);
    this.sensors = new SensorActions(this.path(''), this.history, this.documents, this.view);
    this.renderer = new Renderer(this.pool, this.documents, this.view, this.inSight);
    this.cursor = new CursorReader(this.pool, this.documents, this.view, this.renderer.picture);
    this.runActions = new RunActions(this);
    this.table = new TableReader(this.pool, this.documents, this.view, this.renderer.picture, this.cursor);
    this.labels = new LabelReader(this.pool, this.documents, this.view, this.renderer.picture);
    this.feed = new RunFeed(
      this.pool,
      getNumbers,
      () => this.renderer.readingsCame(),
      (run, error) => tell({ kind: 'fault', text: `${run.name} could not be read. ${sentenceOf(error)}` }),
    );
    this.sheet = new KeptOnPage('workings', workingsVersion, workingsOwner, {
      id,
      history: this.history,
      present: () => this.workings,
      lay: (sheet) => this.layOut(sheet),
      isMoving: () => this.view.getState().moving,
    });
    this.unlisten.push(unwatch);
    this.listen();
    this.holdShown();
    this.renderer.now();
  }

  readonly id: string;

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

  /** How far the storing of the sheet is. */
  get saver() {
    return this.sheet.saver;
  }

  /** Ends the session; what is not stored yet is stored. */
  dispose(): void {
    if (this.disposed) return;
    this.disposed = true;
    this.looking.keep();
    this.unlisten.forEach((stop) => stop());
    this.sheet.leave();
    this.cursor.dispose();
    this.table.dispose();
    this.labels.dispose();
    this.renderer.dispose();
    this.feed.dispose();
    this.pool.dispose();
  }

  // The sheet

  /** Changes the sheet; every call is one step of undo, but for those of one drag. */
  changeWorkings(change: (workings: WorkingsDocument) => WorkingsDocument): void {
    const before = this.workings;
    const changed = change(before);
    if (changed === before) return;
    const after = withUnitsSeen(before, changed, (of) => this.unitSeenOf(of));
    this.sheet.change(before, after);
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

  private layOut(workings: WorkingsDocument): void {
    const { selectedRegion } = this.view.getState();
    const isSeenAsBefore = workings.runs === this.workings.runs;
    this.documents.setState({
      workings,
      ...(isSeenAsBefore ? {} : { runs: seenBy(this.runs, workings.runs) }),
    });
    if (!isSeenAsBefore) this.holdShown();
    if (selectedRegion !== null && !workings.entries.some(({ id }) => id === selectedRegion))
      this.viewing.selectRegion(null);
    this.renderer.now();
  }

  // Runs

  /** Begins a run, or ends the one that is recorded or waits; a hand that presses twice means it once. */
  async toggleRecording(): Promise<void> {
    const { takes } = wayOf(this.documents.getState().plan);
    if (takes === 'reading') await this.spots.takeTyped();
    if (takes === 'reading' || this.isToggling) return;
    const { runs, recorder } = this.documents.getState();
    const isRunning = recorder.phase !== 'idle' || runs.some(({ state }) => state === 'recording');
    // A device that records by itself is started on its own.
    if (takes === 'nothing' && !isRunning) return;
    this.isToggling = true;
    await attemptInOrder(async () => {
      const answer = await request(isRunning ? 'DELETE' : 'POST', this.path('/recording'));
      // Null: it waits, or was cancelled while it waited.
      if (answer !== null) this.takeRun(runSchema.parse(answer));
      if (!isRunning) this.view.setState({ sight: null, setUp: null });
    });
    this.isToggling = false;
  }

  /** Begins a run that waits, without what it waits for. */
  beginNow(): void {
    void attempt(() => request('POST', this.path('/recording/begin')));
  }

  // What comes

  private listen(): void {
    this.unlisten.push(
      live.onMessage((message) => this.hear(message)),
      live.onFrame((frame) => {
        if (frame.kind === frameKinds.run) this.feed.take(frame);
      }),
      live.onState((online) => {
        if (!online) this.wasOffline = true;
        else if (this.wasOffline) void this.catchUp();
      }),
      this.view.subscribe((now, before) => {
        const parts = ['page', 'sight', 'scales', 'reach', 'plotWidth', 'withZero'] as const;
        if (parts.some((part) => now[part] !== before[part])) this.renderer.now();
      }),
    );
    const onHide = () => {
      this.looking.keep();
      this.sheet.keep();
    };
    window.addEventListener('pagehide', onHide);
    this.unlisten.push(() => window.removeEventListener('pagehide', onHide));
  }

  private hear(message: ToScreen): void {
    if (message.type === 'run' && message.run.investigationId === this.id) this.takeRun(message.run, true);
    if (message.type === 'recorder' && message.investigation === this.id)
      this.documents.setState({ recorder: message.status });
    if (message.type === 'spots' && message.investigation === this.id)
      this.documents.setState({ spots: message.status });
    if (message.type === 'fault' && message.investigation === this.id)
      tell({ kind: 'fault', text: message.sentence });
    if (message.type === 'plan' && message.investigation === this.id)
      this.plan.hear({ name: message.name, plan: message.plan });
    if (message.type === 'document' && message.investigation === this.id) void this.sheet.hear(message);
  }

  /** The stream stands again: what was missed is fetched, and what was edited meanwhile stays. */
  private async catchUp(): Promise<void> {
    if (this.disposed) return;
    this.wasOffline = false;
    try {
      const now = await getJson(this.path(''), investigationSchema);
      const { name, plan, runs, recorder, spots, sensors, workings, workingsVersion } = now;
      const ended = now.ended ?? endedMeanwhile(this.documents.getState(), { runs, recorder, spots });
      this.documents.setState({
        name,
        plan,
        runs: seenBy(runs, this.workings.runs),
        recorder,
        spots,
        sensors,
      });
      this.tellEnded(ended);
      this.sheet.newer(workings, workingsVersion);
      this.holdShown();
      this.feed.completeAll();
      this.renderer.now();
    } catch {
      this.wasOffline = true;
    }
  }

  /** Takes a run as the server has it now. @param isHeard whether the live stream says so */
  takeRun(taken: Run, isHeard = false): void {
    const [run] = seenBy([taken], this.workings.runs);
    const known = this.runs.find(({ id }) => id === run.id);
    const runs = withTaken(this.runs, run, isHeard);
    if (runs === null) return;
    this.documents.setState({ runs });
    if (known === undefined && run.shown) this.viewing.bringToFront(run.id);
    const hasGrown = known?.state === 'recording' && run.state !== 'recording';
    // What a device still records is fetched again and again.
    if (hasGrown || (known !== undefined && run.origin === 'away')) void this.feed.complete(run.id);
    this.holdShown();
    this.renderer.now();
  }

  /** Says what ended while nobody looked, and that it was said. */
  private tellEnded(ended: string | null): void {
    if (ended === null) return;
    tell({ kind: 'fault', text: ended });
    request('DELETE', this.path('/ended')).catch(() => undefined);
  }

  private holdShown(): void {
    this.feed.holdOnly(shownRuns(this.runs), this.runs);
  }

  private path(rest: string): string {
    return `/investigations/${this.id}${rest}`;
  }
}
