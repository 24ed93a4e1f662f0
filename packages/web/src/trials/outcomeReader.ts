import { type Plan, type Run, type WorkingsDocument, mostKeptAtOnce } from '@heuristor/contracts';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { type RunAnswer, outcomesOfRuns } from '../runs/outcomes';
import { askAgainMilliseconds, mayAnswerLater } from '../api/askAgain';
import { sentenceOf } from '../api/client';
import { type RunPool } from '../runs/pool';
import { type RunOutcome, runOutcome } from './rowOutcomes';

/**
 * What was kept of runs is asked for first, of many at once. What is left is worked out, of so few at once that what has come is shown
 * meanwhile.
 */
const runsAtOnce = 12;
const questionsAtOnce = 3;

/** What has come is shown so many milliseconds later; of many runs less often, since a long table takes its time to be made. */
const [soon, fewTimes, fewRuns] = [50, 500, 24];

interface Asked {
  runs: readonly Run[];
  workings: WorkingsDocument;
  plan: Pick<Plan, 'conditions'>;
}

/** What outcomes of a run depend on; as long as it is the same, nothing is asked again. */
interface Basis {
  workings: WorkingsDocument;
  /** A run that was interrupted may go on. */
  state: Run['state'];
  conditions: Run['conditions'];
  columns: Plan['conditions'];
  spot: Run['spot'];
}

/** Fetches what the workings say of every run, wherever its readings are, and keeps it until what it depends on has changed. */
export class OutcomeReader {
  readonly state: StoreApi<{ outcomes: ReadonlyMap<string, RunOutcome>; waiting: number }> = createStore(
    () => ({
      outcomes: new Map<string, RunOutcome>() as ReadonlyMap<string, RunOutcome>,
      waiting: 0,
    }),
  );
  private readonly basis = new Map<string, Basis>();
  private asked: Asked | null = null;
  private busy = new Set<string>();
  private ended = false;
  private onTheirWay = 0;
  private isStopped = false;
  private isFaultSaid = false;
  private again: ReturnType<typeof setTimeout> | undefined;
  /** Runs of which the server has kept nothing that stands. */
  private readonly notKept = new Set<string>();
  private readonly fresh = new Map<string, RunOutcome>();
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly investigation: string,
    private readonly pool: Pick<RunPool, 'holds' | 'demand'>,
    private readonly stored: () => Promise<void>,
    private readonly onFault: (sentence: string) => void,
  ) {}

  /** From now on these runs are wanted, by this sheet. */
  want(asked: Asked): void {
    this.asked = asked;
    this.isStopped = false;
    this.goOn();
  }

  dispose(): void {
    this.ended = true;
    clearTimeout(this.timer);
    clearTimeout(this.again);
  }

  private goOn(): void {
    if (this.ended || this.asked === null) return;
    const missing = this.asked.runs.filter((run) => !this.isKnown(run) && !this.busy.has(run.id));
    // What has been asked about before was of another sheet, or of another state of the run: nothing is kept of it.
    const isNew = ({ id }: Run) => !this.basis.has(id) && !this.notKept.has(id);
    const left = this.ask(missing.filter(isNew), mostKeptAtOnce, true);
    const others = this.ask(left > 0 ? [] : missing.filter((run) => !isNew(run)), runsAtOnce, false);
    this.tell(left + others);
  }

  private basisOf(run: Run): Basis {
    const { workings, plan } = this.asked as Asked;
    return {
      workings,
      state: run.state,
      conditions: run.conditions,
      columns: plan.conditions,
      spot: run.spot,
    };
  }

  private isKnown(run: Run): boolean {
    const known = this.basis.get(run.id);
    const wanted = this.basisOf(run);
    return (
      known !== undefined &&
      known.workings === wanted.workings &&
      known.state === wanted.state &&
      known.conditions === wanted.conditions &&
      known.columns === wanted.columns &&
      known.spot === wanted.spot
    );
  }

  /** Asks about runs, so many at once, as long as few questions are on their way. @returns how many are left */
  private ask(runs: readonly Run[], atOnce: number, onlyKept: boolean): number {
    let asked = 0;
    while (asked < runs.length && !this.isStopped && this.onTheirWay < questionsAtOnce) {
      void this.askAbout(runs.slice(asked, asked + atOnce), onlyKept);
      asked += atOnce;
    }
    return Math.max(runs.length - asked, 0);
  }

  private async askAbout(runs: readonly Run[], onlyKept: boolean): Promise<void> {
    const { workings, plan } = this.asked as Asked;
    const bases = runs.map((run) => this.basisOf(run));
    for (const { id } of runs) this.busy.add(id);
    this.onTheirWay++;
    const { investigation, stored } = this;
    const question = { investigation, runs, plan, workings, stored, onlyKept };
    const answers = await outcomesOfRuns(this.pool, question).catch((error: unknown) => {
      this.stop(error);
      return null;
    });
    this.onTheirWay--;
    if (answers !== null) {
      this.isFaultSaid = false;
      this.take(runs, bases, answers);
    }
    for (const { id } of runs) this.busy.delete(id);
    this.goOn();
  }

  /** Nothing more is asked now: the server did not answer. A fault is said once, however often it is asked again. */
  private stop(error: unknown): void {
    this.isStopped = true;
    if (this.ended) return;
    if (!this.isFaultSaid) this.onFault(`The runs could not be worked out. ${sentenceOf(error)}`);
    this.isFaultSaid = true;
    if (mayAnswerLater(error))
      this.again ??= setTimeout(() => {
        this.again = undefined;
        this.isStopped = false;
        this.goOn();
      }, askAgainMilliseconds);
  }

  private take(runs: readonly Run[], bases: readonly Basis[], answers: readonly RunAnswer[]): void {
    runs.forEach((run, i) => {
      const answer = answers.find(({ runId }) => runId === run.id);
      if (answer !== undefined && 'notKept' in answer) {
        this.notKept.add(run.id);
        return;
      }
      if (answer === undefined || 'failed' in answer) {
        const why = answer === undefined ? 'There is no answer.' : answer.failed;
        if (!this.ended) this.onFault(`${run.name} could not be worked out. ${why}`);
        this.fresh.set(run.id, { results: new Map(), outcomes: {}, repeats: new Map() });
      } else this.fresh.set(run.id, runOutcome(answer));
      this.basis.set(run.id, bases[i]);
    });
  }

  /** What has come is told together: a table over hundreds of runs is not made anew for each. */
  private tell(missing: number): void {
    const waiting = missing + this.busy.size;
    if (this.fresh.size === 0 || this.timer !== undefined) {
      if (this.state.getState().waiting !== waiting) this.state.setState({ waiting });
      return;
    }
    this.timer = setTimeout(
      () => {
        this.timer = undefined;
        const outcomes = new Map([...this.state.getState().outcomes, ...this.fresh]);
        this.fresh.clear();
        this.state.setState({ outcomes, waiting: this.busy.size });
        this.goOn();
      },
      waiting === 0 ? 0 : waiting > fewRuns ? fewTimes : soon,
    );
  }
}
