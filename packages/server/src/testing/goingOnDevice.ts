import { LinkMemory, type ToDevice, encodeFrame, frameKinds, toDeviceSchema } from '@heuristor/contracts';
import WebSocket from 'ws';

const rate = 200;

const helloOf = (code: string) => ({
  type: 'hello',
  protocol: 'heuristor-link',
  version: 3,
  device: { code, model: 'Counter' },
  streams: [
    {
      key: 'main',
      rates: { lowest: 1, highest: 1000, usual: rate },
      channels: [
        {
          key: 'n',
          quantity: 'number',
          symbol: 'n',
          unit: '1',
          ranges: ['wide', 'fine'].map((key) => ({ key, label: key, low: -1e9, high: 1e9, noise: 0 })),
        },
      ],
    },
  ],
});

/** A device of version 3 that goes on while its link is broken; every reading is its own number, times a thousandth. */
export class GoingOnDevice {
  readonly received: ToDevice[] = [];
  /** What it says in its hello about streams that go on, where it does not say what is so. */
  lies: object[] | null = null;
  /** So many readings it has lost of those that it should have kept. */
  forgets = 0;
  /** What it reads, by the number of the reading. */
  reads = (n: number): number => n / 1000;
  private socket: WebSocket | null = null;
  private readonly former: (WebSocket | null)[] = [];
  private stream: { number: number; rate: number; began: number; next: number } | null = null;
  private memory = new LinkMemory();
  private isHeld = false;
  private readonly timer = setInterval(() => this.tick(), 20);

  constructor(
    private readonly port: number,
    readonly code: string,
  ) {}

  async connect(): Promise<this> {
    const socket = new WebSocket(`ws://127.0.0.1:${this.port}/link`);
    this.socket = socket;
    const before = this.received.length;
    socket.on('error', () => undefined);
    socket.on('message', (data) => this.hear(toDeviceSchema.parse(JSON.parse(String(data)))));
    await new Promise((resolve) => socket.once('open', resolve));
    const goesOn =
      this.stream === null
        ? []
        : [{ of: 'main', stream: this.stream.number, from: this.memory.from + this.forgets }];
    socket.send(JSON.stringify({ ...helloOf(this.code), goesOn: this.lies ?? goesOn }));
    for (let tries = 0; tries < 200; tries++) {
      if (this.received.slice(before).some(({ type }) => type === 'welcome')) return this;
      await new Promise((resolve) => setTimeout(resolve, 10));
    }
    throw new Error('the server did not welcome it');
  }

  /** The link breaks for so long. */
  async breakFor(milliseconds: number): Promise<void> {
    this.isHeld = true;
    this.socket?.terminate();
    await new Promise((resolve) => setTimeout(resolve, milliseconds));
    await this.connect();
  }

  /** Its network changes: the former connection hangs, and it comes on another one after so long. */
  async comeOtherwise(milliseconds: number): Promise<void> {
    this.isHeld = true;
    this.former.push(this.socket);
    await new Promise((resolve) => setTimeout(resolve, milliseconds));
    await this.connect();
  }

  /** Its power is gone for good. */
  vanish(): void {
    clearInterval(this.timer);
    this.stream = null;
    for (const socket of [...this.former, this.socket]) socket?.terminate();
  }

  private hear(message: ToDevice): void {
    this.received.push(message);
    if (message.type === 'stop') this.stream = null;
    if (message.type === 'start') {
      this.stream = { number: message.stream, rate: message.rate, began: performance.now(), next: 0 };
      this.memory = new LinkMemory();
      this.isHeld = false;
    }
    if (message.type !== 'go-on' || message.stream !== this.stream?.number) return;
    this.read();
    for (const frame of this.memory.since(Math.max(message.from, this.memory.from + this.forgets)))
      this.socket?.send(encodeFrame(frame));
    this.isHeld = false;
  }

  private tick(): void {
    const frame = this.read();
    if (frame !== null && !this.isHeld && this.socket?.readyState === WebSocket.OPEN)
      this.socket.send(encodeFrame(frame));
  }

  private read() {
    const { stream } = this;
    if (stream === null) return null;
    const due = Math.floor(((performance.now() - stream.began) * stream.rate) / 1000) + 1;
    if (due <= stream.next) return null;
    const frame = {
      kind: frameKinds.link,
      subject: stream.number,
      firstIndex: stream.next,
      channels: 1,
      values: Float64Array.from({ length: due - stream.next }, (_, i) => this.reads(stream.next + i)),
      times: null,
    };
    stream.next = due;
    this.memory.keep(frame, performance.now() / 1000);
    return frame;
  }
}
