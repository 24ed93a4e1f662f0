/** Runs work again and again on demand: never two at once, wishes in between gathered into one, at most so often. */
export class RenderLoop {
  private running = false;
  private again = false;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private ended = false;

  constructor(private readonly work: () => Promise<void>) {}

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

  /** Within a time, together with others that want it: readings that come live. */
  soon(milliseconds: number): void {
    if (this.ended || this.timer !== null || this.again) return;
    this.timer = setTimeout(() => {
      this.timer = null;
      this.now();
    }, milliseconds);
  }

  dispose(): void {
    this.ended = true;
    if (this.timer !== null) clearTimeout(this.timer);
  }
}
