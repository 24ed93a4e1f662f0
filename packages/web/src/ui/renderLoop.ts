/** A hidden page draws no frames; it goes on all the same. */
const longestFrame = 250;

/** Resolves when the page draws its next frame: late where it has much to draw. */
function nextFrame(): Promise<void> {
  return new Promise((resolve) => {
    const timer = setTimeout(resolve, longestFrame);
    requestAnimationFrame(() => {
      clearTimeout(timer);
      resolve();
    });
  });
}

/** Runs work again and again on demand: never two at once, wishes in between gathered into one, at most so often. */
export class RenderLoop {
  private running = false;
  private again = false;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private ended = false;

  constructor(
    private readonly work: () => Promise<void>,
    private readonly frame: () => Promise<void> = nextFrame,
  ) {}

  /** As soon as possible: a hand is waiting. */
  now(): void {
    if (this.ended) return;
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    if (this.running) {
      this.again = true;
      return;
    }
    this.running = true;
    void this.work().finally(() => {
      this.running = false;
      if (!this.again) return;
      this.again = false;
      this.now();
    });
  }

  /**
   * Within a time, together with others that want it: readings that come live. A page that cannot keep up with drawing draws
   * less often, rather than ever later.
   */
  soon(milliseconds: number): void {
    if (this.ended || this.timer !== null || this.again) return;
    const timer = setTimeout(() => {
      void this.frame().then(() => {
        if (this.timer !== timer) return;
        this.timer = null;
        this.now();
      });
    }, milliseconds);
    this.timer = timer;
  }

  dispose(): void {
    this.ended = true;
    if (this.timer !== null) clearTimeout(this.timer);
  }
}
