/** How many messages a connection may send: so many a second in the long run, and some more at once. */
export class Budget {
  private left: number;
  private at: number;

  constructor(
    private readonly perSecond: number,
    private readonly atOnce: number,
    private readonly now: () => number = () => performance.now(),
  ) {
    this.left = atOnce;
    this.at = now();
  }

  /** Spends one. @returns false where none is left */
  spend(): boolean {
    const now = this.now();
    this.left = Math.min(this.left + ((now - this.at) / 1000) * this.perSecond, this.atOnce);
    this.at = now;
    if (this.left < 1) return false;
    this.left--;
    return true;
  }
}
