import {
  type HelloInput,
  LinkMemory,
  type SampleFrame,
  encodeFrame,
  frameKinds,
  keptAgainSeconds,
  linkProtocol,
  linkVersion,
  toDeviceSchema,
} from '@heuristor/contracts';
import WebSocket from 'ws';
import { Columns } from './columns';
import { LineCutter } from './lines';

const sendMilliseconds = 40;
const reconnectMilliseconds = 1000;
const remarkMilliseconds = 1000;
/** Where the lines come at a set rate: no faster and no slower than this, in hertz. */
const rates = { lowest: 0.1, highest: 1000 };

/**
 * A microcontroller that prints numbers, as a device on the link. Its lines carry their times of arrival; where a person sets
 * a rate, they are taken to follow each other at that rate.
 */
export class BridgeDevice {
  private readonly columns = new Columns();
  private readonly cutter = new LineCutter();
  private socket: WebSocket | null = null;
  private stream: { number: number; began: number; sent: number; last: number; memory: LinkMemory } | null =
    null;
  /** Since when the link is broken, and the server has not said that the stream goes on; null while it is whole. */
  private brokenAt: number | null = null;
  private times: number[] = [];
  private values: number[] = [];
  /** Lines a second, as a person has set it; 0 where they count when they come. */
  private rate = 0;
  private lastRemark = '';
  private closed = false;
  private readonly timers: NodeJS.Timeout[];

  constructor(
    private readonly url: string,
    private readonly code: string,
    private readonly model: string,
  ) {
    this.timers = [
      setInterval(() => this.send(), sendMilliseconds),
      setInterval(() => this.remark(), remarkMilliseconds),
    ];
  }

  /** Takes what the port has read. */
  take(chunk: string): void {
    const now = performance.now();
    for (const line of this.cutter.take(chunk)) {
      const found = this.columns.take(line);
      if (found === 'found') this.connect();
      else if (found !== null && this.stream !== null) this.keep(found, now);
    }
  }

  close(): void {
    this.closed = true;
    for (const timer of this.timers) clearInterval(timer);
    this.socket?.close();
  }

  private keep(values: readonly number[], now: number): void {
    const { stream } = this;
    if (stream === null) return;
    // Several lines of one chunk follow each other, however close.
    const time = Math.max((now - stream.began) / 1000, stream.last + 1e-6);
    stream.last = time;
    this.times.push(time);
    this.values.push(...values);
  }

  /** Says hello, anew where its columns or their rate are others. */
  private connect(): void {
    this.stream = null;
    const before = this.socket;
    this.socket = null;
    if (before !== null) {
      before.once('close', () => this.open());
      before.close();
    } else this.open();
  }

  private open(): void {
    if (this.closed || this.columns.names === null || this.socket !== null) return;
    const socket = new WebSocket(this.url);
    this.socket = socket;
    socket.on('open', () => socket.send(JSON.stringify(this.hello(this.columns.names ?? []))));
    socket.on('message', (data, isBinary) => {
      if (!isBinary && this.socket === socket) this.hear(String(data));
    });
    socket.on('error', () => undefined);
    socket.on('close', () => {
      if (this.socket !== socket) return;
      this.brokenAt ??= performance.now();
      this.socket = null;
      setTimeout(() => this.open(), reconnectMilliseconds);
    });
  }

  private hello(names: readonly string[]): HelloInput {
    const isRegular = this.rate > 0;
    return {
      type: 'hello',
      protocol: linkProtocol,
      version: linkVersion,
      device: { code: this.code, model: this.model },
      streams: [
        {
          key: 'lines',
          ...(isRegular
            ? {
                sampling: 'regular' as const,
                rates: { lowest: this.rate, highest: this.rate, usual: this.rate },
              }
            : { sampling: 'timed' as const }),
          channels: names.map((name, i) => ({
            key: `c${i + 1}`,
            quantity: name,
            symbol: name.replace(/[^\w]/g, '').slice(0, 8) || `c${i + 1}`,
            // Nobody but its owner knows the unit; it is given in the set-up.
            unit: '',
            ranges: [{ key: 'only', low: -1e15, high: 1e15, noise: 0 }],
          })),
        },
      ],
      numbers: [
        {
          key: 'rate',
          label: 'Lines a second; 0 for their times of arrival',
          unit: 'Hz',
          low: 0,
          high: rates.highest,
          step: 0.1,
          value: this.rate,
        },
      ],
      goesOn:
        this.stream === null
          ? []
          : [{ of: 'lines', stream: this.stream.number, from: this.stream.memory.from }],
    };
  }

  private hear(text: string): void {
    const parsed = toDeviceSchema.safeParse(JSON.parse(text));
    if (!parsed.success) return;
    const message = parsed.data;
    switch (message.type) {
      case 'start':
        this.stream = {
          number: message.stream,
          began: performance.now(),
          sent: 0,
          last: -1,
          memory: new LinkMemory(),
        };
        this.times = [];
        this.values = [];
        this.brokenAt = null;
        break;
      case 'go-on':
        if (this.stream?.number !== message.stream) break;
        this.gather(this.stream);
        for (const frame of this.stream.memory.since(message.from)) this.socket?.send(encodeFrame(frame));
        this.brokenAt = null;
        break;
      case 'stop':
        this.stream = null;
        break;
      case 'number': {
        const wanted = message.value < rates.lowest ? 0 : message.value;
        if (message.key !== 'rate' || wanted === this.rate) break;
        this.rate = wanted;
        this.connect();
        break;
      }
      case 'refused':
        process.stderr.write(`${this.code}: the server refused this device: ${message.message}\n`);
        break;
      default:
        break;
    }
  }

  private send(): void {
    const { stream, socket, brokenAt } = this;
    if (stream === null) return;
    if (brokenAt !== null && performance.now() - brokenAt > keptAgainSeconds * 1000) {
      this.stream = null;
      return;
    }
    const frame = this.gather(stream);
    if (frame !== null && brokenAt === null && socket?.readyState === WebSocket.OPEN)
      socket.send(encodeFrame(frame));
  }

  /** Takes the lines that have come since; they are kept for a while, since the link may break. */
  private gather(stream: NonNullable<BridgeDevice['stream']>): SampleFrame | null {
    const { times, values } = this;
    if (times.length === 0) return null;
    const frame = {
      kind: frameKinds.link,
      subject: stream.number,
      firstIndex: stream.sent,
      channels: values.length / times.length,
      values: Float64Array.from(values),
      times: this.rate > 0 ? null : Float64Array.from(times),
    };
    stream.sent += times.length;
    stream.memory.keep(frame, performance.now() / 1000);
    this.times = [];
    this.values = [];
    return frame;
  }

  private remark(): void {
    const { remark } = this.columns;
    if (remark === this.lastRemark || this.socket?.readyState !== WebSocket.OPEN) return;
    this.lastRemark = remark;
    this.socket.send(JSON.stringify({ type: 'state', remark }));
  }
}
