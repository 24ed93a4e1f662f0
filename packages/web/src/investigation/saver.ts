import { type StoreApi, createStore } from 'zustand/vanilla';
import { type SavingEffect, type SavingEvent, type SavingState, documentIn, savingStep } from './saving';

const pauseMilliseconds = 350;
const retryMilliseconds = 2000;

/** What came of sending a document. */
export type Sent<T> =
  | { kind: 'stored'; version: number }
  | { kind: 'stale'; theirs: T; theirVersion: number }
  | { kind: 'failed'; sentence: string }
  | { kind: 'refused'; sentence: string };

/** Keeps a document stored while it is changed, until everything is stored, also after the page has turned to something else. */
export class Saver<T> {
  readonly state: StoreApi<SavingState<T>>;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private leaving = false;

  constructor(
    stored: T,
    version: number,
    private readonly send: (version: number, document: T) => Promise<Sent<T>>,
    private readonly layOut: (document: T, isChosen: boolean) => void,
  ) {
    this.state = createStore<SavingState<T>>(() => ({ phase: 'clean', version, stored }));
  }

  tell(event: SavingEvent<T>): void {
    const [state, effects] = savingStep(this.state.getState(), event);
    this.state.setState(state, true);
    for (const effect of effects) this.carryOut(effect);
  }

  /** What is not stored yet, for the moment in which the page goes away. */
  unsaved(): { version: number; document: T } | null {
    const state = this.state.getState();
    return state.phase === 'dirty' || state.phase === 'offline' || state.phase === 'refused'
      ? { version: state.version, document: documentIn(state) }
      : null;
  }

  /** Resolves when everything is stored as it stands. */
  settled(): Promise<void> {
    return new Promise((resolve) => {
      if (this.state.getState().phase === 'clean') {
        resolve();
        return;
      }
      const stop = this.state.subscribe(({ phase }) => {
        if (phase !== 'clean') return;
        stop();
        resolve();
      });
    });
  }

  /** Stores at once what is not stored yet. @returns when it is, or after so long */
  async storeWithin(milliseconds: number): Promise<void> {
    if (this.state.getState().phase === 'clean') return;
    clearTimeout(this.timer);
    this.tell({ kind: 'time' });
    let timer: ReturnType<typeof setTimeout> | undefined;
    const over = new Promise<void>((resolve) => {
      timer = setTimeout(resolve, milliseconds);
    });
    await Promise.race([this.settled(), over]);
    clearTimeout(timer);
  }

  /** Stores at once what is not stored yet, and goes on trying until it is. */
  leave(): void {
    this.leaving = true;
    clearTimeout(this.timer);
    this.tell({ kind: 'time' });
  }

  private carryOut(effect: SavingEffect<T>): void {
    switch (effect.kind) {
      case 'wait':
        clearTimeout(this.timer);
        this.timer = setTimeout(
          () => this.tell({ kind: 'time' }),
          effect.why === 'retry' ? retryMilliseconds : this.leaving ? 0 : pauseMilliseconds,
        );
        break;
      case 'send':
        this.send(effect.version, effect.document).then(
          (sent) => this.tell(sent),
          (error: unknown) => this.tell({ kind: 'failed', sentence: String(error) }),
        );
        break;
      case 'lay-out':
        if (!this.leaving) this.layOut(effect.document, effect.isChosen === true);
        break;
    }
  }
}
