/** What the arrivals of a stream say about its clock. */
export type ClockVerdict =
  | { kind: 'fine' }
  /** One frame whose index lies where no reading can have been taken yet. */
  | { kind: 'impossible-index'; index: number }
  /** The device takes readings at another rate than it was asked for. */
  | { kind: 'wrong-rate'; measured: number };

/** A message may come so much earlier than its time by the rounding of timers and clocks. */
const earlySeconds = 0.4;
const earlyShare = 0.02;
/** Lateness is judged longer: a network may stand still for a moment. */
const lateSeconds = 0.5;
const lateShare = 0.03;
const lateForSeconds = 2;

/**
 * Holds the index of readings against the server's clock, and keeps when reading 0 was taken: the earliest moment that any
 * arrival allows, so that a late message does not shift a run. Times are in ms of the server's clock, rates in hertz.
 */
export class StreamClock {
  /** When reading 0 was taken. */
  epoch = Infinity;
  /** Index after the last reading that came. */
  next = 0;
  private first: { at: number; index: number } | null = null;
  private lateSince: number | null = null;

  constructor(readonly rate: number) {}

  /** Notes the arrival of readings `firstIndex` up to `firstIndex + count`. Readings that are judged impossible are not noted. */
  arrive(now: number, firstIndex: number, count: number): ClockVerdict {
    const last = firstIndex + count - 1;
    if (this.first === null) {
      // A stream begins at 0; what lies far ahead at once cannot have been taken since it was asked for.
      if (firstIndex / this.rate > earlySeconds + 5) return { kind: 'impossible-index', index: firstIndex };
      this.first = { at: now, index: last };
    }
    const elapsed = (now - this.first.at) / 1000;
    const ahead = (last - this.first.index) / this.rate - elapsed;
    const isEarly = ahead > earlySeconds + earlyShare * elapsed;
    if (isEarly && (firstIndex - this.next) / this.rate > earlySeconds)
      return { kind: 'impossible-index', index: firstIndex };
    this.epoch = Math.min(this.epoch, now - (last * 1000) / this.rate);
    this.next = last + 1;
    if (isEarly) return this.wrongRate(elapsed, last);
    if (-ahead > lateSeconds + lateShare * elapsed) {
      this.lateSince ??= now;
      if (now - this.lateSince > lateForSeconds * 1000) return this.wrongRate(elapsed, last);
    } else this.lateSince = null;
    return { kind: 'fine' };
  }

  /** When a reading was taken, in ms of the server's clock. */
  timeOf(index: number): number {
    return this.epoch + (index * 1000) / this.rate;
  }

  private wrongRate(elapsed: number, last: number): ClockVerdict {
    return {
      kind: 'wrong-rate',
      measured: (last - (this.first?.index ?? 0)) / Math.max(elapsed, 0.001),
    };
  }
}
