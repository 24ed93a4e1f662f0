import { type SeriesRef } from '@heuristor/core';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { type RunPool } from '../../runs/pool';
import { type CursorReading, type PointQuestion } from '../../workers/protocol';
import { pageIn } from '../pages/pages';
import { type Picture } from '../picture';
import { RenderLoop } from '../../ui/renderLoop';
import { frontRun, shownRuns } from '../../runs/runs';
import { type Documents, type View } from '../../investigation/state';

/** Where a cursor stands, with what the runs are there. */
export interface Read {
  at: number;
  runs: CursorReading[];
}

export interface CursorState {
  /** Under the pointer; null where it is elsewhere. */
  hover: number | null;
  /** Put down, and left there. */
  placed: number | null;
  /** From which the first one is measured. */
  second: number | null;
  /** Whether readings are read, or also what lies between them. */
  snap: boolean;
  /** Readings over which a tangent is laid at the cursor that was put down; null where none is wanted. */
  tangentPoints: number | null;
  read: Read | null;
  secondRead: Read | null;
}

const none: CursorState = {
  hover: null,
  placed: null,
  second: null,
  snap: true,
  tangentPoints: null,
  read: null,
  secondRead: null,
};

export const usualTangent = 9;
/** Along another quantity the second cursor begins so many readings after the first. */
const apartReadings = 10;

/** The cursors over the traces, and what all shown runs are where they stand. */
export class CursorReader {
  readonly state: StoreApi<CursorState> = createStore<CursorState>(() => none);
  private readonly loop = new RenderLoop(() => this.ask());
  private readonly unlisten: () => void;
  /** Readings by which it is still to be moved. */
  private toStep = 0;
  private isStepping = false;
  /** Questions for the nearest point so far. */
  private asked = 0;

  constructor(
    private readonly pool: Pick<RunPool, 'ask' | 'askAll'>,
    private readonly documents: StoreApi<Documents>,
    private readonly view: StoreApi<View>,
    private readonly picture: StoreApi<Picture>,
    /** Whether runs have nothing in common but where both have a reading: rows of different groups. */
    private readonly areApart: () => boolean = () => false,
  ) {
    // What is worked out, or which runs are shown, may change under a cursor that stands.
    this.unlisten = picture.subscribe(() => {
      if (this.place !== null) this.loop.now();
    });
  }

  dispose(): void {
    this.unlisten();
    this.loop.dispose();
  }

  /** Where values are read: under the pointer, or else where a cursor was put. */
  private get place(): number | null {
    const { hover, placed } = this.state.getState();
    return placed ?? hover;
  }

  hover(at: number | null): void {
    if (at === this.state.getState().hover) return;
    this.state.setState({ hover: at });
    if (this.place === null) this.state.setState({ read: null });
    else if (this.state.getState().placed === null) this.loop.now();
  }

  /**
   * The reading whose point stands nearest to a place of a plot of one quantity against another, with its run: one of the run in
   * front where one is near, else, where these are meant too, of another that is shown; null where none is near.
   */
  async near(question: PointQuestion, withOthers: boolean): Promise<{ run: string; at: number } | null> {
    const { runs, workings } = this.documents.getState();
    const front = frontRun(runs, this.view.getState().frontRunId);
    if (front === undefined) return null;
    const asked = ++this.asked;
    const others = withOthers ? shownRuns(runs).filter((run) => run !== front) : [];
    for (const { id } of [front, ...others]) {
      const at = await this.pool.ask(id, 'nearPoint', { workings, question }).catch(() => null);
      // The pointer may be elsewhere by now.
      if (asked !== this.asked) return null;
      if (at !== null) return { run: id, at };
    }
    return null;
  }

  /** Puts the cursor down. */
  put(at: number): void {
    this.state.setState({ placed: at });
    this.loop.now();
  }

  /** Puts the second cursor down; the first one stands where it stood, or where the pointer was. */
  putSecond(at: number): void {
    const { placed } = this.state.getState();
    this.state.setState(placed === null ? { placed: at, second: at } : { second: at });
    this.loop.now();
  }

  /** Puts the second cursor some readings after the first one. */
  async putSecondBeside(): Promise<void> {
    const { placed } = this.state.getState();
    const { runs, workings } = this.documents.getState();
    const front = frontRun(runs, this.view.getState().frontRunId);
    const reference = this.references()[0];
    if (placed === null || front === undefined || reference === undefined) return;
    const { frame } = this.picture.getState();
    const { horizontal } = pageIn(workings, this.view.getState().page);
    const by =
      horizontal === 't' && frame !== null
        ? (0.1 * (frame.sight.to - frame.sight.from)) / Math.max(frame.step, Number.MIN_VALUE)
        : apartReadings;
    const at = await this.pool
      .ask(front.id, 'stepped', { workings, reference, at: placed, by: Math.max(Math.round(by), 1) })
      .catch(() => null);
    if (at !== null) this.putSecond(at);
  }

  set(changes: Partial<Pick<CursorState, 'snap' | 'tangentPoints' | 'second'>>): void {
    this.state.setState(changes);
    if (changes.second === null) this.state.setState({ secondRead: null });
    this.loop.now();
  }

  /** Takes the second cursor away, then the first. @returns whether there was one */
  lift(): boolean {
    const { placed, second } = this.state.getState();
    if (second !== null) this.state.setState({ second: null, secondRead: null });
    else if (placed !== null) this.state.setState({ placed: null, read: null, tangentPoints: null });
    else return false;
    this.loop.now();
    return true;
  }

  /** Moves the cursor by readings of the run in front; one that stands nowhere begins in the middle of what is seen. */
  async step(by: number): Promise<void> {
    this.toStep += by;
    // A key that is held down comes again before the last step is done.
    if (this.isStepping) return;
    this.isStepping = true;
    while (this.toStep !== 0) {
      const steps = this.toStep;
      this.toStep = 0;
      await this.stepOnce(steps);
    }
    this.isStepping = false;
  }

  private async stepOnce(by: number): Promise<void> {
    const { frame } = this.picture.getState();
    const reference = this.references()[0];
    const { runs, workings } = this.documents.getState();
    const front = frontRun(runs, this.view.getState().frontRunId);
    if (frame === null || front === undefined || reference === undefined) return;
    const { horizontal } = pageIn(workings, this.view.getState().page);
    // Along another quantity the middle of what is seen is no time: there it begins with the first reading.
    const middle = horizontal === 't' ? (frame.sight.from + frame.sight.to) / 2 : -Infinity;
    const from = this.place ?? middle;
    const at = await this.pool
      .ask(front.id, 'stepped', { workings, reference, at: from, by })
      .catch(() => null);
    if (at !== null) this.put(at);
  }

  private references(): SeriesRef[] {
    const drawn = this.picture
      .getState()
      .traces.flatMap(({ quantities }) => quantities.map(({ reference }) => reference));
    const { horizontal } = pageIn(this.documents.getState().workings, this.view.getState().page);
    return horizontal === 't' ? drawn : [...drawn, horizontal];
  }

  private async ask(): Promise<void> {
    const at = this.place;
    const { second, snap, tangentPoints, placed } = this.state.getState();
    const { runs, workings } = this.documents.getState();
    if (at === null) return;
    const runIds = shownRuns(runs).map(({ id }) => id);
    const question = { workings, references: [...new Set(this.references())], snap, withNoise: false };
    try {
      const [read, secondRead] = await Promise.all([
        this.pool.askAll(runIds, 'cursor', {
          ...question,
          at,
          tangentPoints: placed === null ? null : tangentPoints,
        }),
        second === null
          ? null
          : this.pool.askAll(runIds, 'cursor', { ...question, at: second, tangentPoints: null }),
      ]);
      if (this.place === null) return;
      const stillSecond = this.state.getState().second !== null;
      this.state.setState({
        read: { at, runs: this.areApart() ? read.map((one) => onlyAt(one, at)) : read },
        secondRead:
          secondRead === null || second === null || !stillSecond ? null : { at: second, runs: secondRead },
      });
    } catch {
      // The workers are gone with their bench; the renderer says when a picture fails.
    }
  }
}

/** What a run has exactly there. */
const onlyAt = (reading: CursorReading, at: number): CursorReading => ({
  ...reading,
  values: Object.fromEntries(Object.entries(reading.values).filter(([, value]) => value?.x === at)),
});
