import { type Plan, type Run, type WorkingsDocument, mostOutcomesAtOnce } from '@heuristor/contracts';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { type RunAnswer, outcomesOfRuns } from '../runs/outcomes';
import { sentenceOf } from '../api/client';
import { type RunPool } from '../runs/pool';
import { type RunOutcome, runOutcome } from './rowOutcomes';

/** So many runs are asked about at once, and so many questions are on their way: what has come is shown meanwhile. */
const runsAtOnce = 12;
/** Where answers come so quickly, since they were kept, more runs are asked about at once. */
const quickMilliseconds = 800;
const questionsAtOnce = 3;

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
  /** The server did not answer: nothing more is asked until somebody wants it again. */
  private isStopped = false;
  private atOnce: number = runsAtOnce;
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
  }

  private goOn(): void {
    if (this.ended || this.asked === null) return;
    let missing = this.asked.runs.filter((run) => !this.isKnown(run) && !this.busy.has(run.id));
    while (missing.length > 0 && !this.isStopped && this.onTheirWay < questionsAtOnce) {
      void this.ask(missing.slice(0, this.atOnce));
      missing = missing.slice(this.atOnce);
    }
    this.tell(missing.length);
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

  private async ask(runs: readonly Run[]): Promise<void> {
    const { workings, plan } = this.asked as Asked;
    const bases = runs.map((run) => this.basisOf(run));
    for (const { id } of runs) this.busy.add(id);
    this.onTheirWay++;
    const began = performance.now();
    const { investigation, stored } = this;
    const answers = await outcomesOfRuns(this.pool, { investigation, runs, plan, workings, stored }).catch(
      (error: unknown) => {
        this.isStopped = true;
        if (!this.ended) this.onFault(`The runs could not be worked out. ${sentenceOf(error)}`);
        return null;
      },
    );
    this.onTheirWay--;
    this.atOnce = performance.now() - began < quickMilliseconds ? mostOutcomesAtOnce : runsAtOnce;
    if (answers !== null) this.take(runs, bases, answers);
    for (const { id } of runs) this.busy.delete(id);
    this.goOn();
  }

  private take(runs: readonly Run[], bases: readonly Basis[], answers: readonly RunAnswer[]): void {
    runs.forEach((run, i) => {
      const answer = answers.find(({ runId }) => runId === run.id);
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
      waiting === 0 ? 0 : 50,
    );
  }
}
