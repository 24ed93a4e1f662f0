/** A reading of a stream, all channels of it. */
export interface WatchedReading {
  index: number;
  own: Float64Array;
}

/**
 * Waits until the readings of a channel cross a level. Two in a row have to stand before it, and then two in a row beyond it,
 * since one alone may be a wrong echo; what follows begins with the first one beyond. A reading that says that nothing was seen is on
 * neither side: two lost echoes in a row are no motion.
 */
export class LevelWatch {
  private before = 0;
  private wasBefore = false;
  private candidate: WatchedReading | null = null;

  constructor(
    private readonly place: number,
    private readonly direction: 'rise' | 'fall',
    private readonly level: number,
    /** What it reads where it sees nothing; null where it always sees something. */
    private readonly nothing: number | null = null,
  ) {}

  /** @returns the two readings with which it crossed, or null while it has not */
  sees(reading: WatchedReading): [WatchedReading, WatchedReading] | null {
    const read = reading.own[this.place];
    const value = read === this.nothing ? NaN : read;
    const isBeyond = this.direction === 'rise' ? value >= this.level : value <= this.level;
    if (isBeyond && this.candidate !== null) return [this.candidate, reading];
    this.candidate = isBeyond && this.wasBefore ? reading : null;
    if (isBeyond) this.before = 0;
    else if (!Number.isNaN(value)) this.before += 1;
    this.wasBefore ||= this.before >= 2;
    return null;
  }
}
