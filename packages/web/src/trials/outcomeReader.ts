import { type Plan, type Run, type WorkingsDocument } from '@heuristor/contracts';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { outcomesOfRun } from '../runs/outcomes';
import { type RunPool } from '../runs/pool';
import { type RunOutcome, runOutcome } from './rowOutcomes';

/** So many runs are asked at once: as many as workers and threads can be at. */
const atOnce = 6;

interface Asked {
  runs: readonly Run[];
  workings: WorkingsDocument;
  plan: Pick<Plan, 'conditions'>;
}

/** What outcomes of a run depend on; as long as it is the same, nothing is asked again. */
interface Basis {
  workings: WorkingsDocument;
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
  private readonly fresh = new Map<string, RunOutcome>();
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly pool: Pick<RunPool, 'holds' | 'demand'>,
    private readonly stored: () => Promise<void>,
    private readonly onFault: (run: Run, error: unknown) => void,
  ) {}

  /** From now on these runs are wanted, by this sheet. */
  want(asked: Asked): void {
    this.asked = asked;
    this.goOn();
  }

  dispose(): void {
    this.ended = true;
    clearTimeout(this.timer);
  }

  private goOn(): void {
    if (this.ended || this.asked === null) return;
    const missing = this.asked.runs.filter((run) => !this.isKnown(run) && !this.busy.has(run.id));
    for (const run of missing.slice(0, Math.max(atOnce - this.busy.size, 0))) void this.ask(run);
    this.tell(missing.length);
  }

  private basisOf(run: Run): Basis {
    const { workings, plan } = this.asked as Asked;
    return { workings, conditions: run.conditions, columns: plan.conditions, spot: run.spot };
  }

  private isKnown(run: Run): boolean {
    const known = this.basis.get(run.id);
    const wanted = this.basisOf(run);
    return (
      known !== undefined &&
      known.workings === wanted.workings &&
      known.conditions === wanted.conditions &&
      known.columns === wanted.columns &&
      known.spot === wanted.spot
    );
  }

  private async ask(run: Run): Promise<void> {
    const { workings, plan } = this.asked as Asked;
    const basis = this.basisOf(run);
    this.busy.add(run.id);
    try {
      const found = await outcomesOfRun(this.pool, { run, plan, workings, stored: this.stored });
      this.fresh.set(run.id, runOutcome(found));
    } catch (error) {
      if (!this.ended) this.onFault(run, error);
      this.fresh.set(run.id, { results: new Map(), outcomes: {} });
    }
    this.basis.set(run.id, basis);
    this.busy.delete(run.id);
    this.goOn();
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
