import { type Hello, type SampleFrame, type ToDevice } from '@heuristor/contracts';
import { performance } from 'node:perf_hooks';
import { type DeviceSettingModel } from '../models/deviceSetting';

/** One stream of samples of a device, from "start" to "stop" or the end of the connection. */
export interface Stream {
  readonly number: number;
  readonly rate: number;
  /** When sample 0 was taken, by the server's clock in ms: the earliest arrival that its samples allow. */
  epoch: number;
  /** Index after the last sample that came. */
  next: number;
}

export type Settings = Pick<DeviceSettingModel, 'connected' | 'rate' | 'reversed' | 'zeros'>;

/** A device that has said hello at least once since the server started. */
export class LinkedDevice {
  send: ((message: ToDevice) => void) | null = null;
  stream: Stream | null = null;
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
    return this.settings.rate ?? this.hello.rates.usual;
  }

  get present(): boolean {
    return this.send !== null;
  }

  /** Starts the stream anew, at the rate that is set. */
  restart(): void {
    this.streams = (this.streams + 1) % 65_536;
    this.stream = { number: this.streams, rate: this.rate, epoch: Infinity, next: 0 };
    this.send?.({ type: 'start', stream: this.stream.number, rate: this.stream.rate });
  }

  halt(): void {
    if (this.stream === null) return;
    this.stream = null;
    this.send?.({ type: 'stop' });
  }

  /** Notes the arrival of a frame; false where it belongs to a stream that has ended. */
  accept(frame: SampleFrame): boolean {
    const { stream } = this;
    if (stream === null || frame.subject !== stream.number || frame.channels !== this.hello.channels.length)
      return false;
    if (frame.firstIndex < stream.next) return false;
    const count = frame.values.length / frame.channels;
    const last = frame.firstIndex + count - 1;
    stream.epoch = Math.min(stream.epoch, performance.now() - (last * 1000) / stream.rate);
    stream.next = last + 1;
    return true;
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
