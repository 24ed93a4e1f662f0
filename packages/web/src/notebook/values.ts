import { type Run } from '@heuristor/contracts';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { tell } from '../ui/noticeStore';
import { OutcomeReader } from '../trials/outcomeReader';
import { type RunOutcome } from '../trials/rowOutcomes';
import { type NotebookHost } from './host';

/** A notebook is written down after so long, whatever is still being worked out. */
const longestWait = 30_000;

/** Whether anything can be worked out of a run as a whole. */
const isAnswered = ({ state, removed }: Run) => (state === 'ended' || state === 'interrupted') && !removed;

/** What the workings say of the runs that a notebook speaks of, as long as somebody looks. */
export class NotebookValues {
  readonly state: StoreApi<{ outcomes: ReadonlyMap<string, RunOutcome>; waiting: number }>;
  private readonly reader: OutcomeReader;
  private readonly wanted = new Map<string, number>();
  private readonly unlisten: () => void;
  private isScheduled = false;

  constructor(private readonly host: NotebookHost) {
    this.reader = new OutcomeReader(
      host.id,
      host.pool,
      () => host.stored(),
      (text) => tell({ kind: 'fault', text }),
    );
    this.state = createStore(() => this.reader.state.getState());
    const stops = [
      this.reader.state.subscribe((now) => this.state.setState(now, true)),
      host.documents.subscribe((now, before) => {
        if (now.runs !== before.runs || now.workings !== before.workings || now.plan !== before.plan)
          this.askSoon();
      }),
    ];
    this.unlisten = () => stops.forEach((stop) => stop());
  }

  dispose(): void {
    this.unlisten();
    this.reader.dispose();
  }

  /** Somebody shows values of a run. @returns called when he does so no more */
  need(run: string): () => void {
    this.wanted.set(run, (this.wanted.get(run) ?? 0) + 1);
    this.askSoon();
    return () => {
      const left = (this.wanted.get(run) ?? 1) - 1;
      if (left === 0) this.wanted.delete(run);
      else this.wanted.set(run, left);
    };
  }

  /** Resolves when what the workings say of these runs is known, or cannot be worked out; or after half a minute. */
  async settled(runs: readonly string[]): Promise<void> {
    const present = new Set(
      this.host.documents
        .getState()
        .runs.filter(isAnswered)
        .map(({ id }) => id),
    );
    const wanted = runs.filter((run) => present.has(run));
    const stops = wanted.map((run) => this.need(run));
    const isKnown = () => wanted.every((run) => this.state.getState().outcomes.has(run));
    await new Promise<void>((resolve) => {
      const end = () => {
        clearTimeout(timer);
        stop();
        resolve();
      };
      const stop = this.state.subscribe(() => isKnown() && end());
      const timer = setTimeout(end, longestWait);
      if (isKnown()) end();
    });
    stops.forEach((stop) => stop());
  }

  /** Many are shown at once, and asked about together. */
  private askSoon(): void {
    if (this.isScheduled) return;
    this.isScheduled = true;
    queueMicrotask(() => {
      this.isScheduled = false;
      const { runs, workings, plan } = this.host.documents.getState();
      const asked = runs.filter((run) => this.wanted.has(run.id) && isAnswered(run));
      if (asked.length > 0) this.reader.want({ runs: asked, workings, plan });
    });
  }
}
