/** How quickly a held thing follows the hand, per second: within about a tenth of a second. */
const quickness = 40;

/** A hand that holds something: it takes it where it is, carries it smoothly, and lets it go with the speed that it has then. */
export class Hand {
  private target: number | null = null;

  get holds(): boolean {
    return this.target !== null;
  }

  /** Takes hold, or moves on; kept between two ends. */
  hold(at: number, low: number, high: number): void {
    this.target = Math.min(Math.max(at, low), high);
  }

  letGo(): void {
    this.target = null;
  }

  /** A state that follows the hand: a critically damped pull towards it, in its exact solution. */
  follow([x, v]: readonly [number, number], seconds: number): [number, number] {
    if (this.target === null) return [x, v];
    const d = x - this.target;
    const decay = Math.exp(-quickness * seconds);
    const b = v + quickness * d;
    return [this.target + (d + b * seconds) * decay, (v - quickness * b * seconds) * decay];
  }
}
