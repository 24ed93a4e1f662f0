import {
  type Investigation,
  type Run,
  type ToScreen,
  type TrialTable,
  type WorkingsDocument,
  frameKinds,
  investigationSchema,
  runSchema,
} from '@heuristor/contracts';
import { getJson, getNumbers, request, sentenceOf } from '../api/client';
import { live } from '../api/live';
import { tell } from '../ui/noticeStore';
import { RunPool } from '../runs/pool';
import { attempt, attemptInOrder } from '../api/attempt';
import { AwayActions } from '../recording/away/awayActions';
import { endedMeanwhile } from '../recording/endedMeanwhile';
import { History } from './history';
import { type Host } from './host';
import { SheetSession } from './sheetSession';
import { KeptOnPage } from './kept/keptOnPage';
import { type GuideSession } from '../guide/guideSession';
import { type NotebookSession } from '../notebook/notebookSession';
import { type Part, OpenedLater } from './openedLater';
import { tabMemory } from '../traces/pages/lookMemory';
import { PlanActions } from '../recording/plan/planActions';
import { PinAgainState } from '../runs/pinAgain';
import { RunActions } from '../runs/runActions';
import { RunFeed } from '../runs/runFeed';
import { RunsSeen } from '../runs/runsSeen';
import { shownRuns } from '../runs/runs';
import { seenBy } from '../runs/seenRun';
import { withTaken } from '../runs/taking';
import { SensorActions } from '../sensors/sensorActions';
import { SpotActions } from '../recording/spots/spotActions';
import { TrialsSession } from '../trials/trialsSession';
import { TemplateActions } from '../workings/templates/templateActions';
import { wayOf } from '../recording/ways';

/** So long an investigation waits for the live stream before it opens; what is missed until the stream stands is fetched then. */
const longestWait = 500;
const passed = (milliseconds: number) =>
  new Promise<false>((resolve) => setTimeout(() => resolve(false), milliseconds));

/**
 * One investigation that is open, on whichever of its pages: made by their layout, disposed of when all of them are left. It holds
 * the documents and what the workers make of them, keeps them stored, and remembers what was done.
 */
export class InvestigationSession extends SheetSession implements Host {
  readonly runActions: RunActions;
  readonly templates: TemplateActions = new TemplateActions(this);
  readonly plan: PlanActions;
  /** The sheet, as it is changed, stored and taken back; everybody else reads it off the documents. */
  private readonly sheet: KeptOnPage<'workings'>;
  readonly sensors: SensorActions;
  readonly spots: SpotActions;
  readonly away: AwayActions;
  readonly pinAgain = new PinAgainState();
  readonly seen = new RunsSeen(async (runId) => (await this.pool.ask(runId, 'seen')) ?? []);
  /** Whose documents these are. */
  readonly owner: string;
  private readonly feed: RunFeed;
  private readonly openedTrials = new OpenedLater(() => TrialsSession.open(this));
  /** Its program is fetched with it. */
  private readonly openedNotebook = new OpenedLater(async () => {
    const { NotebookSession } = await import('../notebook/notebookSession');
    return NotebookSession.open(this);
  });
  private readonly openedGuide = new OpenedLater(async () => {
    const { GuideSession } = await import('../guide/guideSession');
    return GuideSession.open(this);
  });
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
    super(id, {
      documents: { ...documents, runs: seenBy(documents.runs, workings.runs) },
      pool: RunPool.take(),
      history: new History(),
      memory: tabMemory(id),
    });
    this.owner = workingsOwner;
    this.plan = new PlanActions(this.path(''), this.history, this.documents);
    this.away = new AwayActions(this.path(''), this.history);
    this.spots = new SpotActions(this.path(''), this);
    this.sensors = new SensorActions(this.path(''), this.history, this.documents, this.view);
    this.runActions = new RunActions(this);
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

  private get parts(): readonly OpenedLater<Part>[] {
    return [this.openedTrials, this.openedNotebook, this.openedGuide];
  }

  /** How far the storing of the sheet is. */
  get saver() {
    return this.sheet.saver;
  }

  /** Resolves when the sheet is stored as it stands. */
  stored(): Promise<void> {
    return this.saver.settled();
  }

  /** Ends the session; what is not stored yet is stored. */
  override dispose(): void {
    if (this.disposed) return;
    super.dispose();
    for (const part of this.parts) part.dispose();
    this.sheet.leave();
    this.feed.dispose();
    this.pool.dispose();
  }

  /** The trials, which are fetched when somebody first looks at them. */
  trials(): Promise<TrialsSession> {
    return this.openedTrials.get();
  }

  async tables(): Promise<readonly TrialTable[]> {
    return (await this.trials()).state.getState().trials.tables;
  }

  /** The notebook, which is fetched when somebody first looks at it, or pins something to it. */
  notebook(): Promise<NotebookSession> {
    return this.openedNotebook.get();
  }

  /** The guide, which is fetched when somebody first looks at it. */
  guide(): Promise<GuideSession> {
    return this.openedGuide.get();
  }

  protected store(before: WorkingsDocument, after: WorkingsDocument): void {
    this.sheet.change(before, after);
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
      // The run is to fill the row that was planned a moment ago; it does not wait for one that cannot be stored.
      if (!isRunning) await this.openedTrials.now?.saver.storeWithin(500);
      const answer = await request(isRunning ? 'DELETE' : 'POST', this.path('/recording'));
      // Null: it waits, or was cancelled while it waited.
      if (answer !== null) this.takeRun(runSchema.parse(answer));
      if (!isRunning) this.view.setState({ sight: null, setUp: null, isLive: false });
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
    );
    const onHide = () => {
      this.looking.keep();
      this.sheet.keep();
      for (const { now } of this.parts) now?.keep();
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
    const isOfAnother = 'investigation' in message && message.investigation !== this.id;
    if (!isOfAnother) for (const { now } of this.parts) now?.hear(message);
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
      for (const { now: part } of this.parts) part?.catchUp?.();
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
