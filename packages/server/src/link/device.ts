import { type Hello, type LinkChannel, type SampleFrame, type ToDevice } from '@heuristor/contracts';
import { type DeviceSettingModel } from '../models/deviceSetting';
import { ReadingRing } from './readingRing';
import { type ClockVerdict, StreamClock } from './streamClock';

/** One stream of samples of a device, from "start" to "stop" or the end of the connection. */
export interface Stream {
  readonly number: number;
  readonly rate: number;
  readonly clock: StreamClock;
}

export type Settings = Pick<DeviceSettingModel, 'connected' | 'rate' | 'reversed' | 'zeros' | 'keyHash'>;

/** What became of a frame. */
export type Acceptance =
  { kind: 'taken' } | { kind: 'passed over' } | Exclude<ClockVerdict, { kind: 'fine' }>;

/** A device that has said hello at least once since the server started. */
export class LinkedDevice {
  send: ((message: ToDevice) => void) | null = null;
  stream: Stream | null = null;
  /** On another machine, and not let in yet. */
  waiting = false;
  readonly ring = new ReadingRing();
  private streams = 0;

  constructor(
    readonly handle: number,
    public hello: Hello,
    public settings: Settings,
  ) {}

  get code(): string {
    return this.hello.device.code;
  }

  get rate(): number {
    const { usual, lowest, highest } = this.hello.rates;
    const wanted = this.settings.rate ?? usual;
    return wanted >= lowest && wanted <= highest ? wanted : usual;
  }

  get present(): boolean {
    return this.send !== null;
  }

  /** Starts the stream anew, at a rate or at the one that is set. */
  restart(rate = this.rate): void {
    if (this.waiting) return;
    this.streams = (this.streams + 1) % 65_536;
    this.ring.clear();
    this.stream = { number: this.streams, rate, clock: new StreamClock(rate, performance.now()) };
    this.send?.({ type: 'start', stream: this.streams, rate });
  }

  halt(): void {
    if (this.stream === null) return;
    this.stream = null;
    this.ring.clear();
    this.send?.({ type: 'stop' });
  }

  /** Notes the arrival of a frame at a moment of the server's clock, in ms. */
  accept(frame: SampleFrame, now: number): Acceptance {
    const { stream } = this;
    if (stream === null || frame.subject !== stream.number || frame.channels !== this.hello.channels.length)
      return { kind: 'passed over' };
    const { clock } = stream;
    if (frame.firstIndex < clock.next) return { kind: 'passed over' };
    const verdict = clock.arrive(now, frame.firstIndex, frame.values.length / frame.channels, frame.times);
    if (verdict.kind === 'impossible') return verdict;
    this.ring.push({ frame, at: now });
    return verdict.kind === 'fine' ? { kind: 'taken' } : verdict;
  }

  /** Raw readings as the bench shows them: zero taken off, sign turned where the teacher turned it. */
  calibrated(raw: number, channel: number): number {
    return (this.settings.reversed ? -1 : 1) * (raw - this.zeroOf(channel));
  }

  /** The limits of a channel after zero and sign. */
  calibratedRange(channel: number): { low: number; high: number } {
    const { low, high } = this.hello.channels[channel].range;
    const [a, b] = [this.calibrated(low, channel), this.calibrated(high, channel)];
    return { low: Math.min(a, b), high: Math.max(a, b) };
  }

  zeroOf(channel: number): number {
    return this.settings.zeros[this.hello.channels[channel].key]?.offset ?? 0;
  }
}

/** Whether two announcements of a channel mean the same readings. */
export const sameChannel = (a: LinkChannel, b: LinkChannel): boolean =>
  a.key === b.key &&
  a.quantity === b.quantity &&
  a.unit === b.unit &&
  a.range.low === b.range.low &&
  a.range.high === b.range.high;
