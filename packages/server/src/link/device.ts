import {
  type Away,
  type Calibration,
  type Clock,
  type DeviceDescription,
  type GoingOn,
  type LinkStream,
  type SampleFrame,
  type Setup,
  type ToDevice,
  type Timer,
  keptAgainSeconds,
  wallClock,
} from '@heuristor/contracts';
import { type ChannelView, viewOf } from './channelView';
import { EdgeWatch } from './edgeWatch';
import { ReadingRing } from './readingRing';
import { type ClockVerdict, StreamClock } from './streamClock';

/** Samples from one "start" to "stop" or the end of the connection. */
export interface Sending {
  readonly number: number;
  readonly rate: number;
  /** Range of each channel, by its key. */
  readonly ranges: Readonly<Record<string, string>>;
  readonly clock: StreamClock;
}

/** The investigation that uses a device, and how. */
export interface Use {
  investigation: string;
  name: string;
  setup: Setup;
}

/** What became of a frame. */
export type Acceptance =
  /** The frame is as runs take it: of events, only the edges. */
  { kind: 'taken'; frame: SampleFrame } | { kind: 'passed over' } | Exclude<ClockVerdict, { kind: 'fine' }>;

/** One of the streams of a device. */
export class LinkedStream {
  sending: Sending | null = null;
  /** What was being sent when the link broke; it may be gone on with. */
  private broken: Sending | null = null;
  /** Whether the present sending went on over a break of the link, and with every reading; null where it began anew. */
  wentOn: { isWhole: boolean } | null = null;
  readonly ring = new ReadingRing();
  readonly edges: EdgeWatch;
  private made: { setup: Setup; calibration: Calibration; views: ChannelView[] } | null = null;

  constructor(
    readonly device: LinkedDevice,
    readonly handle: number,
    readonly description: LinkStream,
  ) {
    this.edges = new EdgeWatch(description.channels.length);
  }

  /** The rate that is set, or the usual one where that cannot be. */
  get rate(): number {
    const { rates, key } = this.description;
    const wanted = this.device.setup.rates[key];
    return wanted !== undefined && canRun(this.description, wanted) ? wanted : rates.usual;
  }

  /** Channels as they are shown and recorded; asked with every frame, and made when something was set. */
  get views(): ChannelView[] {
    const { setup, calibration } = this.device;
    if (this.made?.setup !== setup || this.made.calibration !== calibration)
      this.made = {
        setup,
        calibration,
        views: this.description.channels.map((channel) => viewOf(channel, setup, calibration)),
      };
    return this.made.views;
  }

  get isOn(): boolean {
    return this.views.some(({ on }) => on);
  }

  get isSending(): boolean {
    return this.sending !== null && this.sending.clock.epoch < Infinity;
  }

  /** Notes the arrival of a frame at a moment of the server's clock, in ms. */
  accept(frame: SampleFrame, now: number): Acceptance {
    const { sending } = this;
    if (sending === null) return { kind: 'passed over' };
    const { clock } = sending;
    if (frame.firstIndex < clock.next) return { kind: 'passed over' };
    const verdict = clock.arrive(now, frame.firstIndex, frame.values.length / frame.channels, frame.times);
    if (verdict.kind === 'impossible') return verdict;
    const taken = this.description.sampling === 'events' ? this.edges.edgesIn(frame) : frame;
    this.ring.push({ frame: taken, at: now });
    return verdict.kind === 'fine' ? { kind: 'taken', frame: taken } : verdict;
  }

  begin(number: number, rate: number, now: number): void {
    this.broken = null;
    this.wentOn = null;
    this.ring.clear();
    this.edges.forget();
    const ranges = Object.fromEntries(this.views.map(({ key, range }) => [key, range.key]));
    this.sending = { number, rate, ranges, clock: new StreamClock(rate, now) };
  }

  end(): void {
    this.sending = null;
    this.broken = null;
    this.edges.forget();
    this.ring.clear();
  }

  /** The link broke: what has come stays, since the device may go on with it. */
  breakOff(): void {
    this.broken = this.sending;
    this.sending = null;
  }

  /**
   * A device that is back says that it went on with what it was sending.
   * @returns the index from which on readings are lacking here; null where it went on with something else
   */
  goOn({ stream, from }: GoingOn, rate: number): number | null {
    const { broken } = this;
    if (broken?.number !== stream || !this.isAsSet(broken, rate)) return null;
    this.sending = broken;
    this.broken = null;
    this.wentOn = { isWhole: from <= broken.clock.next };
    return broken.clock.next;
  }

  /** Whether what is or was sent has a rate, and the ranges that are set. */
  isAsSet(sending: Sending, rate: number): boolean {
    return sending.rate === rate && this.views.every(({ key, range }) => sending.ranges[key] === range.key);
  }
}

/** Whether a stream can run at a rate. */
export const canRun = ({ rates }: LinkStream, rate: number): boolean =>
  rates.only === undefined ? rate >= rates.lowest && rate <= rates.highest : rates.only.includes(rate);

/** A device that goes on with its streams keeps them for so long, and a little longer until it has said so. */
const keptMilliseconds = keptAgainSeconds * 1000 + 5000;
const unused: Setup = { rates: {}, channels: {} };
/** Numbers of streams fit into 16 bits. */
const mostStreams = 65_536;

/** A device that has said hello at least once since the server started. */
export class LinkedDevice {
  send: ((message: ToDevice) => void) | null = null;
  /** Ends its connection with a reason. */
  turnOut: ((code: string, message: string) => void) | null = null;
  /** Since when it waits to be let in. */
  waitsSince = 0;
  /** On another machine, and not let in yet. */
  waiting = false;
  use: Use | null = null;
  streams: LinkedStream[] = [];
  /** What it keeps by itself, as far as it has said. */
  away: Away | null = null;
  private starts = 0;
  private forgetting: Timer | null = null;

  constructor(
    public description: DeviceDescription,
    private readonly newHandle: () => number,
    public calibration: Calibration,
    /** Hash of the key that a device on another machine was let in with. */
    public keyHash: string | null,
    private readonly clock: Clock = wallClock,
  ) {
    this.describe(description);
  }

  get code(): string {
    return this.description.code;
  }

  get setup(): Setup {
    return this.use?.setup ?? unused;
  }

  get present(): boolean {
    return this.send !== null;
  }

  /** The present device says what it is; a stream that it had before keeps its number for the screens. */
  describe(description: DeviceDescription): void {
    this.forgetting?.cancel();
    const before = this.streams;
    this.description = description;
    this.streams = description.streams.map((stream) => {
      const known = before.find(({ description: { key } }) => key === stream.key);
      // One that is announced in the same words may be gone on with.
      if (known !== undefined && JSON.stringify(known.description) === JSON.stringify(stream)) return known;
      return new LinkedStream(this, known?.handle ?? this.newHandle(), stream);
    });
  }

  /** Its link broke. What its streams have sent is kept for a while, since it may go on with them. */
  breakOff(): void {
    this.send = null;
    this.turnOut = null;
    for (const stream of this.streams) stream.breakOff();
    this.forgetting?.cancel();
    this.forgetting = this.clock
      .after(keptMilliseconds, () => {
        for (const stream of this.streams) if (!this.present) stream.end();
      })
      .unref();
  }

  /** One of its numbers as it is set. */
  numberOf(key: string): number | null {
    const number = this.description.numbers.find((candidate) => candidate.key === key);
    return number === undefined ? null : (this.calibration.numbers[key] ?? number.value);
  }

  /** Tells the device all its numbers. */
  sendNumbers(): void {
    for (const { key } of this.description.numbers) {
      const value = this.numberOf(key);
      if (value !== null) this.send?.({ type: 'number', key, value });
    }
  }

  /** Starts a stream anew, at a rate or at the one that is set. */
  start(stream: LinkedStream, now: number, rate = stream.rate): void {
    if (this.waiting || !this.present) return;
    this.starts = (this.starts + 1) % mostStreams;
    stream.begin(this.starts, rate, now);
    this.send?.({
      type: 'start',
      stream: this.starts,
      rate,
      ...(this.description.version === 1
        ? {}
        : { of: stream.description.key, ranges: stream.sending?.ranges ?? {} }),
    });
  }

  /** Whether streams that are said to go on are among those that it was told to send. */
  sendsAs(goesOn: readonly GoingOn[]): boolean {
    return goesOn.some(({ of, stream }) =>
      this.streams.some(({ description, sending }) => description.key === of && sending?.number === stream),
    );
  }

  /** A device that is back goes on with a stream where it was left off, or begins it anew. */
  goOnOrStart(stream: LinkedStream, now: number, rate: number): void {
    const { key } = stream.description;
    const said = this.description.goesOn.find(({ of }) => of === key);
    const from = said === undefined ? null : stream.goOn(said, rate);
    if (from === null) this.start(stream, now, rate);
    else this.send?.({ type: 'go-on', of: key, stream: stream.sending?.number ?? 0, from });
  }

  /** Lets what it went on with while its link was broken end, where nobody wants it any more. */
  stopUnwanted(): void {
    for (const { of } of this.description.goesOn)
      if (this.streams.some(({ description, sending }) => description.key === of && sending === null))
        this.send?.({ type: 'stop', of });
  }

  stop(stream: LinkedStream): void {
    if (stream.sending === null) return;
    stream.end();
    this.send?.({ type: 'stop', ...(this.description.version === 1 ? {} : { of: stream.description.key }) });
  }

  /** Lets run what is to run and stops the rest; what runs as it should goes on undisturbed. */
  settle(now: number): void {
    for (const stream of this.streams) {
      const wanted = this.use !== null && stream.isOn;
      if (!wanted) this.stop(stream);
      else if (!runsAsSet(stream)) this.start(stream, now);
    }
  }
}

const runsAsSet = (stream: LinkedStream): boolean =>
  stream.sending !== null && stream.isAsSet(stream.sending, stream.rate);

/** Whether a device sends, when it is soon back, what it read while its link was broken. */
export const sendsAgain = ({ version }: DeviceDescription): boolean => version >= 3;

/** Whether two announcements of a stream mean the same readings. */
export const sameChannel = (a: LinkStream['channels'][number], b: LinkStream['channels'][number]): boolean =>
  a.key === b.key &&
  a.quantity === b.quantity &&
  a.unit === b.unit &&
  JSON.stringify(a.ranges.map(({ key, low, high }) => [key, low, high])) ===
    JSON.stringify(b.ranges.map(({ key, low, high }) => [key, low, high]));
