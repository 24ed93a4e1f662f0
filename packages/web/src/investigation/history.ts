import { type KeptDocument, type KeptKind } from '@heuristor/contracts';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { withdrawOffers } from '../ui/noticeStore';
import { type DocumentSteps } from './stepMemory';

/** One step that can be taken back and taken again. */
export interface HistoryStep {
  /** What was done, as an order in lower case: “move region A”. It stands beside the button that takes it back. */
  readonly name: string;
  undo(): void;
  redo(): void;
  /** Of a step that changed one document and nothing else: what it was before and after; its undo and redo go by this. */
  document?: { kind: KeptKind; before: unknown; after: unknown };
}

interface HistoryState {
  /** The step that would be taken back next, and the one that would be taken again; null where there is none. */
  undo: string | null;
  redo: string | null;
}

const mostSteps = 300;
/** So many steps to either side outlast a reload. */
const keptSteps = 100;

/** The steps of one page. */
interface Row {
  done: HistoryStep[];
  undone: HistoryStep[];
}

/** The page that opens first; steps of the sheet that were done before a reload are its own. */
const firstPage = '';

/**
 * What a person has done in an investigation, a row for each of its pages over all documents: the sheet, runs, names, plan. What was
 * done on a page is taken back there, and never unseen on another; a step goes back beside what was done elsewhere since.
 */
export class History {
  readonly state: StoreApi<HistoryState> = createStore<HistoryState>(() => ({
    undo: null,
    redo: null,
  }));
  private readonly rows = new Map<string, Row>();
  private page = firstPage;
  private held: HistoryStep | null = null;
  private isHeld = false;

  /** From here on steps are those of another page. @param page its place under the address of the investigation */
  enter(page: string): void {
    if (page === this.page) return;
    this.release();
    this.page = page;
    this.tell();
  }

  /** Adds a step that has been done. While a hand holds on, further ones extend it. */
  push(step: HistoryStep): void {
    if (this.isHeld && this.held !== null) {
      // A step of a document goes by what it was before and after it.
      if (this.held.document !== undefined && step.document?.kind === this.held.document.kind)
        this.held.document = { ...this.held.document, after: step.document.after };
      else this.held.redo = step.redo;
      return;
    }
    const row = this.row();
    row.done.push(step);
    if (row.done.length > mostSteps) row.done.shift();
    row.undone = [];
    if (this.isHeld) this.held = step;
    this.tell();
  }

  /** From here to `release`, changes are one step: for something that is dragged. */
  hold(): void {
    this.isHeld = true;
  }

  release(): void {
    const wasHeld = this.held !== null;
    this.isHeld = false;
    this.held = null;
    // What a drag has become is named when it is over; while it goes on, every move would look for its name.
    if (wasHeld) this.tell();
  }

  undo(): void {
    this.release();
    const { done, undone } = this.row();
    const step = done.pop();
    if (step === undefined) return;
    undone.push(step);
    this.tell();
    // What still offers to take a step back would take another one now.
    withdrawOffers();
    step.undo();
  }

  redo(): void {
    this.release();
    const { done, undone } = this.row();
    const step = undone.pop();
    if (step === undefined) return;
    done.push(step);
    this.tell();
    step.redo();
  }

  /** The steps of a page on either side of now that changed one document only, in one chain; what else was done ends it. */
  stepsOf<K extends KeptKind>(
    kind: K,
    present: KeptDocument<K>,
    page = firstPage,
  ): DocumentSteps<KeptDocument<K>> {
    const { done, undone } = this.row(page);
    const before: KeptDocument<K>[] = [];
    let state = present;
    for (const { document } of done.slice(-keptSteps).reverse()) {
      if (document?.kind !== kind || document.after !== state) break;
      state = document.before as KeptDocument<K>;
      before.unshift(state);
    }
    const after: KeptDocument<K>[] = [];
    state = present;
    for (const { document } of undone.slice(-keptSteps).reverse()) {
      if (document?.kind !== kind || document.before !== state) break;
      state = document.after as KeptDocument<K>;
      after.push(state);
    }
    return { states: [...before, present, ...after], at: before.length };
  }

  /** Takes up steps that were done before the page was loaded. @param step one that leads from one state to the next */
  takeUp<T>(
    { states, at }: DocumentSteps<T>,
    step: (before: T, after: T) => HistoryStep,
    page = firstPage,
  ): void {
    const steps = states.slice(1).map((after, i) => step(states[i], after));
    this.rows.set(page, { done: steps.slice(0, at), undone: steps.slice(at).reverse() });
    this.tell();
  }

  private row(page = this.page): Row {
    const known = this.rows.get(page);
    if (known !== undefined) return known;
    const row: Row = { done: [], undone: [] };
    this.rows.set(page, row);
    return row;
  }

  private tell(): void {
    const { done, undone } = this.row();
    const [undo, redo] = [done, undone].map((steps) => steps.at(-1)?.name ?? null);
    const noted = this.state.getState();
    // A drag is many changes of one step.
    if (noted.undo !== undo || noted.redo !== redo) this.state.setState({ undo, redo });
  }
}
