import { type ToDevice, encodeFrame, frameKinds, toDeviceSchema } from '@heuristor/contracts';
import WebSocket from 'ws';

type Fetch = Extract<ToDevice, { type: 'fetch' }>;

/** What a device has of one run: numbers of its only stream, two channels. */
interface Kept {
  id: number;
  state: 'waiting' | 'recording' | 'finished' | 'full' | 'stopped';
  begun: number | null;
  values: Float64Array;
}

export const keepingHello = (code: string) => ({
  type: 'hello',
  protocol: 'heuristor-link',
  version: 2,
  device: { code, model: 'Logger' },
  keeps: 50_000,
  streams: [
    {
      key: 'main',
      rates: { lowest: 1, highest: 1000, usual: 100 },
      channels: ['t', 'p'].map((key) => ({
        key,
        quantity: key === 't' ? 'temperature' : 'pressure',
        symbol: key,
        unit: key === 't' ? 'Cel' : 'hPa',
        ranges: [{ key: 'only', low: -1e6, high: 1e6, noise: 0.01 }],
      })),
    },
  ],
});

/** A device that keeps runs, with a memory that a test fills, and a link that a test cuts. */
export class KeepingDevice {
  readonly received: ToDevice[] = [];
  runs: Kept[] = [];
  /** Its clock, in seconds. */
  clock = 1000;
  room = 50_000;
  /** Cuts the link after so many frames of a fetch. */
  cutAfter = Infinity;
  /** Answers a fetch in its own way; undefined leaves it to the memory. */
  answer: ((message: Fetch) => Uint8Array | null) | undefined;
  private socket: WebSocket | null = null;
  private timer: NodeJS.Timeout | undefined;
  private stream: { number: number; sent: number; began: number } | null = null;

  constructor(
    private readonly port: number,
    readonly code: string,
  ) {}

  async connect(): Promise<void> {
    const socket = new WebSocket(`ws://127.0.0.1:${this.port}/link`);
    this.socket = socket;
    socket.on('error', () => undefined);
    socket.on('message', (data) => this.hear(toDeviceSchema.parse(JSON.parse(String(data)))));
    await new Promise((resolve) => socket.once('open', resolve));
    socket.send(JSON.stringify(keepingHello(this.code)));
    this.timer = setInterval(() => this.tick(), 50);
    for (let tries = 0; tries < 100 && !this.received.some(({ type }) => type === 'welcome'); tries++)
      await new Promise((resolve) => setTimeout(resolve, 20));
  }

  vanish(): void {
    clearInterval(this.timer);
    this.stream = null;
    this.socket?.terminate();
  }

  tell(): void {
    this.send({
      type: 'kept',
      clock: this.clock,
      room: this.room,
      runs: this.runs.map(({ id, state, begun, values }) => ({
        id,
        state,
        begun,
        counts: { main: values.length / 2 },
      })),
    });
  }

  send(message: object | Uint8Array): void {
    if (this.socket?.readyState !== WebSocket.OPEN) return;
    this.socket.send(message instanceof Uint8Array ? message : JSON.stringify(message));
  }

  frame(id: number, from: number, values: Float64Array, channels = 2): Uint8Array {
    return encodeFrame({
      kind: frameKinds.kept,
      subject: id,
      firstIndex: from,
      channels,
      values,
      times: null,
    });
  }

  private hear(message: ToDevice): void {
    this.received.push(message);
    switch (message.type) {
      case 'welcome':
        this.tell();
        break;
      case 'start':
        this.stream = { number: message.stream, sent: 0, began: performance.now() };
        break;
      case 'prepare':
        this.runs.push({ id: message.id, state: 'waiting', begun: null, values: new Float64Array(0) });
        this.tell();
        break;
      case 'end':
        for (const run of this.runs) if (run.id === message.id) run.state = 'finished';
        this.tell();
        break;
      case 'erase':
        this.runs = this.runs.filter(({ id }) => id !== message.id);
        this.tell();
        break;
      case 'fetch':
        this.give(message);
        break;
      default:
        break;
    }
  }

  private give(message: Fetch): void {
    const own = this.answer?.(message);
    if (own !== undefined) {
      if (own !== null) this.send(own);
      return;
    }
    const run = this.runs.find(({ id }) => id === message.id);
    if (run === undefined) return;
    if (this.cutAfter-- <= 0) {
      this.vanish();
      return;
    }
    this.send(
      this.frame(
        message.id,
        message.from,
        run.values.slice(2 * message.from, 2 * (message.from + message.count)),
      ),
    );
  }

  /** Its live readings, so that it takes part like any sensor. */
  private tick(): void {
    const { stream } = this;
    if (stream === null) return;
    const due = Math.floor((performance.now() - stream.began) / 10) + 1;
    if (due <= stream.sent) return;
    this.send(
      encodeFrame({
        kind: frameKinds.link,
        subject: stream.number,
        firstIndex: stream.sent,
        channels: 2,
        values: new Float64Array(2 * (due - stream.sent)).fill(20),
        times: null,
      }),
    );
    stream.sent = due;
  }
}
