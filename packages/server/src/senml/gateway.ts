import {
  type Clock,
  type HelloInput,
  type SampleFrame,
  type ToDevice,
  frameKinds,
  helloSchema,
  linkProtocol,
} from '@heuristor/contracts';
import { type SenmlRecord, relativeBelow, ucumOfSenml } from '@heuristor/core';
import { type Bus } from '../bus';
import { Failure } from '../failure';
import { type LinkedDevice } from '../link/device';
import { takeFrame } from '../link/reception';
import { type Presence } from '../presence/presence';

/** A device that brings nothing for so long, or three times as long as it usually does, is not on the link any more. */
const silentMilliseconds = 15_000;
const silentIntervals = 3;
const longestSilence = 3 * 3_600_000;
/** A device on the link has at most so many streams. */
const mostChannels = 8;
/** The sender's clock may be this far from ours before only the distances of its own times count, in seconds. */
const farSeconds = 2;

type NumberRecord = SenmlRecord & { value: number };

/**
 * One quantity that a device has brought: every name is a stream of its own, with times of its own. What comes under the same
 * name in another unit is another quantity, so that no number is ever taken for one of the former unit.
 */
interface Channel {
  name: string;
  key: string;
  unit: string;
}

const unitOf = ({ unit }: SenmlRecord) => ucumOfSenml(unit ?? '');
const isOf = (channel: Pick<Channel, 'name' | 'unit'>, record: SenmlRecord) =>
  channel.name === record.name && channel.unit === unitOf(record);

interface Sender {
  code: string;
  model: string;
  channels: Channel[];
  device: LinkedDevice | null;
  /** Streams that were asked for: number and beginning, by the key of the stream. */
  running: Map<string, { number: number; beganAt: number; next: number; last: number; skew: number | null }>;
  heardAt: number;
  /** The longest time between two packs of late, in ms. */
  every: number;
  queue: Promise<unknown>;
}

/** Lets devices that post SenML stand among the sensors: each is a device on the link that lives here. */
export class SenmlGateway {
  private readonly senders = new Map<string, Sender>();
  private readonly timer = setInterval(() => this.sweep(), 1000).unref();

  private readonly presence: Presence;
  private readonly bus: Bus;
  private readonly clock: Clock;

  constructor({ presence, bus, clock }: { presence: Presence; bus: Bus; clock: Clock }) {
    this.presence = presence;
    this.bus = bus;
    this.clock = clock;
  }

  /** Takes resolved records of one device, one pack after the other. @throws Failure where it has too many names */
  async take(code: string, model: string, records: readonly SenmlRecord[]): Promise<void> {
    const sender = this.senders.get(code) ?? {
      code,
      model,
      channels: [],
      device: null,
      running: new Map(),
      heardAt: 0,
      every: 0,
      queue: Promise.resolve(),
    };
    this.senders.set(code, sender);
    const work = sender.queue.then(() => this.takeNow(sender, records));
    sender.queue = work.catch(() => undefined);
    await work;
  }

  /** Shuts a device out. */
  forget(code: string): void {
    const sender = this.senders.get(code);
    this.senders.delete(code);
    if (sender?.device != null) this.presence.leave(sender.device);
  }

  close(): void {
    clearInterval(this.timer);
  }

  private async takeNow(sender: Sender, records: readonly SenmlRecord[]): Promise<void> {
    const now = Date.now();
    if (sender.heardAt > 0) sender.every = Math.max(now - sender.heardAt, 0.8 * sender.every);
    sender.heardAt = now;
    const numbers = records
      .filter((record): record is NumberRecord => typeof record.value === 'number')
      .map((record) => ({
        ...record,
        time: record.time < relativeBelow ? now / 1000 + record.time : record.time,
      }));
    const channels = [...sender.channels];
    for (const record of numbers)
      if (!channels.some((channel) => isOf(channel, record)))
        channels.push({ name: record.name, key: `c${channels.length + 1}`, unit: unitOf(record) });
    if (channels.length > mostChannels)
      throw new Failure(
        'invalid-request',
        `A device brings at most ${mostChannels} quantities here; “${channels[mostChannels].name}” would be one more.`,
      );
    const isFresh = channels.length > sender.channels.length;
    sender.channels = channels;
    if (isFresh || sender.device?.present !== true) await this.present(sender);
    for (const channel of channels) {
      // A pack is in the order of its times as they are written; relative ones have their place only now.
      const own = numbers.filter((record) => isOf(channel, record)).sort((a, b) => a.time - b.time);
      if (own.length > 0) this.bring(sender, channel.key, own, now);
    }
  }

  /** Says hello for a device, anew where it has begun to bring something else. */
  private async present(sender: Sender): Promise<void> {
    if (sender.channels.length === 0) return;
    if (sender.device !== null) this.presence.leave(sender.device);
    sender.running.clear();
    const arrival = await this.presence.arrive(
      helloSchema.parse(helloOf(sender)),
      (message) => this.hear(sender, message),
      true,
    );
    if (arrival.kind !== 'welcome')
      throw new Failure('device-absent', `A device with the code ${sender.code} is on the link already.`);
    sender.device = arrival.device;
  }

  private hear({ running }: Sender, message: ToDevice): void {
    if (message.type === 'start' && message.of !== undefined)
      running.set(message.of, {
        number: message.stream,
        beganAt: Date.now(),
        next: 0,
        last: -Infinity,
        skew: null,
      });
    if (message.type === 'stop' && message.of !== undefined) running.delete(message.of);
  }

  private bring(
    { device, running }: Sender,
    key: string,
    records: readonly NumberRecord[],
    now: number,
  ): void {
    const stream = running.get(key);
    const linked = device?.streams.find(({ description }) => description.key === key);
    if (stream === undefined || linked === undefined) return;
    // A clock that goes otherwise than ours is laid on ours once, by the newest reading of its first pack.
    const off = now / 1000 - records[records.length - 1].time;
    stream.skew ??= Math.abs(off) > farSeconds ? off : 0;
    const times: number[] = [];
    const values: number[] = [];
    records.forEach(({ value, time: own }) => {
      const time = own + (stream.skew ?? 0) - stream.beganAt / 1000;
      // What was brought before, or stands before the stream began, belongs to nothing.
      if (time <= stream.last) return;
      stream.last = time;
      times.push(time);
      values.push(value);
    });
    if (times.length === 0) return;
    const frame: SampleFrame = {
      kind: frameKinds.link,
      subject: stream.number,
      firstIndex: stream.next,
      channels: 1,
      values: Float64Array.from(values),
      times: Float64Array.from(times),
    };
    stream.next += times.length;
    takeFrame({ bus: this.bus, clock: this.clock }, linked, frame);
  }

  private sweep(): void {
    for (const sender of this.senders.values()) {
      const patience = Math.min(Math.max(silentMilliseconds, silentIntervals * sender.every), longestSilence);
      if (sender.device?.present === true && Date.now() - sender.heardAt > patience) {
        this.presence.leave(sender.device);
        sender.running.clear();
      }
    }
  }
}

/** The last part of a name, which says what it is of. */
function quantityOf(name: string): string {
  const parts = name.split(/[:/]/).filter((part) => part !== '');
  return (parts.at(-1) ?? name).slice(-40);
}

function helloOf({ code, model, channels }: Sender): HelloInput {
  return {
    type: 'hello',
    protocol: linkProtocol,
    version: 2,
    device: { code, model },
    // Each name has times of its own.
    streams: channels.map(({ key, name, unit }) => ({
      key,
      sampling: 'timed' as const,
      channels: [
        {
          key,
          quantity: quantityOf(name),
          symbol: symbolOf(name, key),
          unit: unit.slice(0, 20),
          ranges: [{ key: 'only', low: -1e15, high: 1e15, noise: 0 }],
        },
      ],
    })),
  };
}

/** A short symbol from a long name: its last part. */
function symbolOf(name: string, key: string): string {
  const last = quantityOf(name).replace(/[^A-Za-z0-9_]/g, '');
  return last === '' ? key : last.slice(0, 8);
}
