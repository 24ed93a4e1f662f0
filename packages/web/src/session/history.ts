import { type StoreApi, createStore } from 'zustand/vanilla';

/** One step that can be taken back and taken again. */
export interface HistoryStep {
  undo(): void;
  redo(): void;
}

interface HistoryState {
  canUndo: boolean;
  canRedo: boolean;
}

const mostSteps = 300;

/** What a person has done on a bench, over all its documents in one row: the sheet, runs, names, plan. */
export class History {
  readonly state: StoreApi<HistoryState> = createStore<HistoryState>(() => ({
    canUndo: false,
    canRedo: false,
  }));
  private done: HistoryStep[] = [];
  private undone: HistoryStep[] = [];
  private held: HistoryStep | null = null;
  private isHeld = false;

  /** Adds a step that has been done. While a hand holds on, further ones extend it. */
  push(step: HistoryStep): void {
    if (this.isHeld && this.held !== null) {
      const { undo } = this.held;
      this.held.redo = step.redo;
      this.held.undo = undo;
      return;
    }
    this.done.push(step);
    if (this.done.length > mostSteps) this.done.shift();
    this.undone = [];
    if (this.isHeld) this.held = step;
    this.tell();
  }

  /** From here to `release`, changes are one step: for something that is dragged. */
  hold(): void {
    this.isHeld = true;
  }

  release(): void {
    this.isHeld = false;
    this.held = null;
  }

  undo(): void {
    this.release();
    const step = this.done.pop();
    if (step === undefined) return;
    this.undone.push(step);
    this.tell();
    step.undo();
  }

  redo(): void {
    this.release();
    const step = this.undone.pop();
    if (step === undefined) return;
    this.done.push(step);
    this.tell();
    step.redo();
  }

  private tell(): void {
    this.state.setState({ canUndo: this.done.length > 0, canRedo: this.undone.length > 0 });
  }
}
