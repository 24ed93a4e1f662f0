import { type LinkChannel } from '@heuristor/contracts';

/** What a sensor makes of a true value, besides the noise, the step and the limits of its range. */
export interface Flaws {
  /** Share of readings that come without an echo, and are shown as the far limit. */
  lostShare?: number;
  /** Time constant with which it follows, in seconds. */
  lagSeconds?: number;
  /** Slow wandering, in its unit per hour. */
  driftPerHour?: number;
  /** What it shows when there is nothing, in its unit. */
  offset?: number;
}

/** A channel of a simulated sensor: what it announces, what it looks at, and how it errs. */
export class SensorChannel {
  private range;
  private followed: { value: number; at: number } | null = null;

  constructor(
    readonly announced: LinkChannel,
    private readonly truth: () => number,
    private readonly flaws: Flaws,
    private readonly random: () => number,
  ) {
    this.range = announced.ranges[0];
  }

  choose(range: string | undefined): void {
    this.range = this.announced.ranges.find(({ key }) => key === range) ?? this.announced.ranges[0];
  }

  /** A reading at a moment, in seconds since the start. */
  read(moment: number): number {
    const { low, high, noise, resolution } = this.range;
    const { lostShare = 0, lagSeconds = 0, driftPerHour = 0, offset = 0 } = this.flaws;
    if (lostShare > 0 && this.random() < lostShare) return high;
    let value = this.truth();
    if (lagSeconds > 0) {
      const before = this.followed ?? { value, at: moment };
      value += (before.value - value) * Math.exp(-(moment - before.at) / lagSeconds);
      this.followed = { value, at: moment };
    }
    value += offset + (driftPerHour * moment) / 3600;
    if (noise > 0)
      value += noise * Math.sqrt(-2 * Math.log(1 - this.random())) * Math.cos(2 * Math.PI * this.random());
    if (resolution > 0) value = Math.round(value / resolution) * resolution;
    return Math.min(Math.max(value, low), high);
  }
}
