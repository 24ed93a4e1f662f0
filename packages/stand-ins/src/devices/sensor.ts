import { type LinkChannel, type LinkRange } from '@heuristor/contracts';

/** What a sensor makes of a true value, besides the noise, the steps and the limits of its range. */
export interface Flaws {
  /** Share of readings that come without an echo, and are shown as the far limit. */
  lostShare?: number;
  /** Share of readings that are echoes of something else, anywhere between the limits. */
  strayShare?: number;
  /** Time constant with which it follows, in seconds. */
  lagSeconds?: number;
  /** Slow wandering, in its unit per hour. */
  driftPerHour?: number;
  /** What it shows when there is nothing, in its unit. */
  offset?: number;
  /** So many times the noise and the steps that it announces. */
  noiseFactor?: number;
  stepFactor?: number;
  /** The share of its usual limits at which it stops. */
  reach?: number;
}

/** A range of a sensor, with the limits that it really has. */
export const reachedBy = (range: LinkRange, { reach = 1 }: Flaws): LinkRange => ({
  ...range,
  low: range.low < 0 ? range.low * reach : range.low,
  high: range.high > 0 ? range.high * reach : range.high,
});

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
    const { flaws, random } = this;
    const { low, high, ...range } = reachedBy(this.range, flaws);
    const { lostShare = 0, strayShare = 0, lagSeconds = 0, driftPerHour = 0, offset = 0 } = flaws;
    const noise = range.noise * (flaws.noiseFactor ?? 1);
    const resolution = range.resolution * (flaws.stepFactor ?? 1);
    if (lostShare > 0 && random() < lostShare) return high;
    if (strayShare > 0 && random() < strayShare) return low + (high - low) * random();
    let value = this.truth();
    if (lagSeconds > 0) {
      const before = this.followed ?? { value, at: moment };
      value += (before.value - value) * Math.exp(-(moment - before.at) / lagSeconds);
      this.followed = { value, at: moment };
    }
    value += offset + (driftPerHour * moment) / 3600;
    if (noise > 0) value += noise * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    if (resolution > 0) value = Math.round(value / resolution) * resolution;
    return Math.min(Math.max(value, low), high);
  }
}
