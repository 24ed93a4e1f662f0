import { type StoreApi, createStore } from 'zustand/vanilla';

/** A block of the notebook that is to show what is seen now, in place of what was pinned before. */
export interface PinAgain {
  block: string;
  title: string;
  of: 'bench' | 'trials';
}

/** What the next press of Pin is for; null where it makes a block of its own. */
export class PinAgainState {
  readonly state: StoreApi<{ wanted: PinAgain | null }> = createStore<{ wanted: PinAgain | null }>(() => ({
    wanted: null,
  }));

  ask(wanted: PinAgain): void {
    this.state.setState({ wanted });
  }

  /** It was done, or is to stay as it was. */
  leave(): void {
    this.state.setState({ wanted: null });
  }
}
