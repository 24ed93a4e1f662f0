import { type SeriesRef } from '@heuristor/core';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { type RunPool } from '../workers/pool';
import { type CursorReading } from '../workers/protocol';
import { type Picture } from './picture';
import { RenderLoop } from './renderLoop';
import { frontRun, shownRuns } from './runs';
import { type Documents, type View } from './state';

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

/** The cursors over the traces, and what all shown runs are where they stand. */
export class CursorDesk {
  readonly state: StoreApi<CursorState> = createStore<CursorState>(() => none);
  private readonly loop = new RenderLoop(() => this.ask());
  private readonly unlisten: () => void;
  /** Readings by which it is still to be moved. */
  private toStep = 0;
  private isStepping = false;

  constructor(
    private readonly pool: Pick<RunPool, 'cursor' | 'stepped'>,
    private readonly documents: StoreApi<Documents>,
    private readonly view: StoreApi<View>,
    private readonly picture: StoreApi<Picture>,
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
    const from = this.place ?? (frame.sight.from + frame.sight.to) / 2;
    const at = await this.pool.stepped(front.id, workings, reference, from, by).catch(() => null);
    if (at !== null) this.put(at);
  }

  private references(): SeriesRef[] {
    return this.picture
      .getState()
      .traces.flatMap(({ quantities }) => quantities.map(({ reference }) => reference));
  }

  private async ask(): Promise<void> {
    const at = this.place;
    const { second, snap, tangentPoints, placed } = this.state.getState();
    const { runs, workings } = this.documents.getState();
    if (at === null) return;
    const runIds = shownRuns(runs).map(({ id }) => id);
    const question = { workings, references: [...new Set(this.references())], snap };
    try {
      const [read, secondRead] = await Promise.all([
        this.pool.cursor(runIds, {
          ...question,
          at,
          tangentPoints: placed === null ? null : tangentPoints,
        }),
        second === null ? null : this.pool.cursor(runIds, { ...question, at: second, tangentPoints: null }),
      ]);
      if (this.place === null) return;
      const stillSecond = this.state.getState().second !== null;
      this.state.setState({
        read: { at, runs: read },
        secondRead:
          secondRead === null || second === null || !stillSecond ? null : { at: second, runs: secondRead },
      });
    } catch {
      // The workers are gone with their bench; a picture that fails is told by the renderer.
    }
  }
}
