/** What the arrivals of a stream say about its clock. */
export type ClockVerdict =
  | { kind: 'fine' }
  /** One frame that lies where no reading can have been taken yet, in seconds since the stream began. */
  | { kind: 'impossible'; index: number; seconds: number }
  /** The device's clock runs at another pace than the server's; 2 is twice as fast. */
  | { kind: 'wrong-pace'; pace: number };

/** A message may come so much earlier than its time by the rounding of timers and clocks. */
const earlySeconds = 0.4;
const earlyShare = 0.02;
/** Lateness is judged longer: a network may stand still for a moment. */
const lateSeconds = 0.5;
const lateShare = 0.03;
const lateForSeconds = 2;
/** A device may keep so much from before it was asked. */
const headStartSeconds = 5;
/** The relation of the two clocks is that of the punctual arrivals of the last intervals of this length. */
const windowSeconds = 10;
/** A slow stream needs more time for an interval: so many readings. */
const windowReadings = 10;
/** Over less than this, the drift of a clock drowns in the scatter of arrivals. */
const driftSeconds = 60;

/** An interval of arrivals, and when the stream seemed to have begun by the most punctual of them, in ms. */
interface ArrivalWindow {
  from: number;
  epoch: number;
}

/**
 * Holds the index of readings, or their own times where they have such, against the server's clock, and keeps when the stream
 * began: the earliest moment that any arrival of the last seconds allows, so that a late message does not shift a run, and a
 * clock that runs a little fast or slow does not either. Moments are in ms of the
 * server's clock, rates in hertz, times in seconds since the stream began.
 */
export class StreamClock {
  /** How much faster than the server's the clock of the device runs, as a share; null while that is not known. */
  drift: number | null = null;
  /** Index after the last reading that came. */
  next = 0;
  private first: { at: number; seconds: number } | null = null;
  private reached = 0;
  private lateSince: number | null = null;
  private earliest: ArrivalWindow | null = null;
  private before: ArrivalWindow | null = null;
  private present: ArrivalWindow | null = null;

  constructor(
    readonly rate: number,
    /** When the device was asked for the stream. */
    readonly asked: number,
  ) {}

  /**
   * Notes the arrival of readings `firstIndex` up to `firstIndex + count`, with their times where they have some of their own.
   * Readings that are judged impossible are not noted.
   */
  arrive(now: number, firstIndex: number, count: number, times: Float64Array | null = null): ClockVerdict {
    const next = firstIndex + count;
    const from = times?.[0] ?? firstIndex / this.rate;
    const last = times?.[count - 1] ?? (next - 1) / this.rate;
    const impossible = { kind: 'impossible', index: firstIndex, seconds: from } as const;
    const sinceAsked = (now - this.asked) / 1000;
    if (this.first === null) {
      // What lies far ahead at once cannot have been taken since it was asked for.
      if (from - sinceAsked > earlySeconds + headStartSeconds) return impossible;
      this.first = { at: now, seconds: last };
    }
    const elapsed = (now - this.first.at) / 1000;
    const ahead = last - this.first.seconds - elapsed;
    // A first message that was long on its way makes all that follow look early; what can have been taken since the device was
    // asked is no fault.
    const isEarly =
      ahead > earlySeconds + earlyShare * elapsed &&
      last > sinceAsked + earlySeconds + earlyShare * sinceAsked;
    if (isEarly && from - this.reached > earlySeconds) return impossible;
    this.relate(now, now - last * 1000);
    this.next = next;
    this.reached = last;
    if (isEarly) return this.wrongPace(elapsed, last);
    if (-ahead > lateSeconds + lateShare * elapsed) {
      this.lateSince ??= now;
      if (now - this.lateSince > lateForSeconds * 1000) return this.wrongPace(elapsed, last);
    } else this.lateSince = null;
    return { kind: 'fine' };
  }

  /** When reading 0 was taken, as the present relation of the clocks has it; Infinity before the first arrival. */
  get epoch(): number {
    return Math.min(this.present?.epoch ?? Infinity, this.before?.epoch ?? Infinity);
  }

  private relate(now: number, epoch: number): void {
    const { present } = this;
    const length = Math.max(windowSeconds, windowReadings / this.rate) * 1000;
    if (present === null) this.present = { from: now, epoch };
    else if (now - present.from < length) present.epoch = Math.min(present.epoch, epoch);
    else {
      this.earliest ??= present;
      const seconds = (present.from - this.earliest.from) / 1000;
      if (seconds >= driftSeconds) this.drift = (this.earliest.epoch - present.epoch) / (seconds * 1000);
      this.before = present;
      this.present = { from: now, epoch };
    }
  }

  private wrongPace(elapsed: number, last: number): ClockVerdict {
    return { kind: 'wrong-pace', pace: (last - (this.first?.seconds ?? 0)) / Math.max(elapsed, 0.001) };
  }
}
