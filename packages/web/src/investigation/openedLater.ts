import { type ToScreen } from '@heuristor/contracts';

/** A part of an investigation that is fetched when somebody first needs it. */
export interface Part {
  /** The live stream says something. */
  hear(message: ToScreen): void;
  /** The page may go away in this very moment. */
  keep(): void;
  /** The live stream stands again: what was missed is fetched. */
  catchUp?(): void;
  dispose(): void;
}

/** Opens a part once, however many ask for it; where that fails, the next one tries again. */
export class OpenedLater<T extends Part> {
  /** It, once it is open. */
  now: T | null = null;
  private opening: Promise<T> | null = null;
  private isOver = false;

  constructor(private readonly open: () => Promise<T>) {}

  get(): Promise<T> {
    this.opening ??= this.open().then(
      (opened) => {
        if (this.isOver) opened.dispose();
        return (this.now = opened);
      },
      (error: unknown) => {
        this.opening = null;
        throw error;
      },
    );
    return this.opening;
  }

  dispose(): void {
    this.isOver = true;
    this.now?.dispose();
  }
}
