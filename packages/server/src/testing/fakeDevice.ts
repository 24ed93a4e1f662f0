import {
  type HelloInput,
  type ToDevice,
  encodeFrame,
  frameKinds,
  toDeviceSchema,
} from '@heuristor/contracts';
import WebSocket from 'ws';

export const helloOf = (code: string) =>
  ({
    type: 'hello' as const,
    protocol: 'heuristor-link' as const,
    version: 1 as const,
    device: { code, model: 'Motion sensor' },
    channels: [
      {
        key: 'x',
        quantity: 'position',
        symbol: 'x',
        unit: 'm',
        range: { low: 0.15, high: 6 },
        noise: 0.0003,
      },
    ],
    rates: { lowest: 1, highest: 100, usual: 50 },
  }) satisfies HelloInput;

const channelsIn = (hello: unknown): number =>
  typeof hello === 'object' && hello !== null && 'channels' in hello && Array.isArray(hello.channels)
    ? hello.channels.length
    : 1;

const isRegularIn = (hello: unknown): boolean => {
  const said = hello as { sampling?: string; streams?: { sampling?: string }[] };
  return [said, ...(said.streams ?? [])].every(({ sampling = 'regular' }) => sampling === 'regular');
};

/** A device on the link that does just what a test tells it. */
export class FakeDevice {
  readonly received: ToDevice[] = [];
  /** So many times faster than it was asked to. */
  pace = 1;
  /** Says that it is there, and sends nothing. */
  silent = false;
  /** Leaves the last reading of every frame out. */
  losing = false;
  private timer: NodeJS.Timeout | undefined;
  private stream: { number: number; rate: number; began: number; sent: number } | null = null;

  private constructor(
    private readonly socket: WebSocket,
    private readonly position: (seconds: number) => number,
    private readonly channels: number,
    private readonly isRegular: boolean,
  ) {}

  static async connect(
    /** Of the server on this machine, or the whole address of its link. */
    port: number | string,
    code: string,
    position: (seconds: number) => number,
    hello: unknown = helloOf(code),
  ): Promise<FakeDevice> {
    const socket = new WebSocket(typeof port === 'string' ? port : `ws://127.0.0.1:${port}/link`);
    const device = new FakeDevice(socket, position, channelsIn(hello), isRegularIn(hello));
    socket.on('error', () => undefined);
    socket.on('message', (data) => device.hear(toDeviceSchema.parse(JSON.parse(String(data)))));
    await new Promise((resolve) => socket.once('open', resolve));
    socket.send(JSON.stringify(hello));
    await device.heard(({ type }) => type === 'welcome' || type === 'refused' || type === 'waiting');
    return device;
  }

  private hear(message: ToDevice): void {
    this.received.push(message);
    if (message.type === 'stop') this.stream = null;
    if (message.type !== 'start') return;
    this.stream = { number: message.stream, rate: message.rate, began: performance.now(), sent: 0 };
    if (this.isRegular) this.timer ??= setInterval(() => this.tick(), 20);
  }

  private tick(): void {
    const { stream } = this;
    if (this.silent || stream === null || this.socket.readyState !== WebSocket.OPEN) return;
    const due = Math.floor(((performance.now() - stream.began) * stream.rate * this.pace) / 1000) + 1;
    if (due <= stream.sent) return;
    const values = Float64Array.from({ length: (due - stream.sent) * this.channels }, (_, i) =>
      this.position((stream.sent + Math.floor(i / this.channels)) / stream.rate),
    );
    this.socket.send(
      encodeFrame({
        kind: frameKinds.link,
        subject: stream.number,
        firstIndex: stream.sent,
        channels: this.channels,
        values,
        times: null,
      }),
    );
    stream.sent = due + Number(this.losing);
  }

  /** Time since the stream began, by the device's clock. */
  get seconds(): number {
    return (performance.now() - (this.stream?.began ?? NaN)) / 1000;
  }

  /** A frame with an index of its own. */
  sendFrame(firstIndex: number, count: number): void {
    this.socket.send(
      encodeFrame({
        kind: frameKinds.link,
        subject: this.stream?.number ?? 0,
        firstIndex,
        channels: this.channels,
        values: new Float64Array(count * this.channels).fill(5),
        times: null,
      }),
    );
  }

  /** Events at times since the stream began. */
  sendEvents(firstIndex: number, times: number[], states: number[]): void {
    const stream = this.received.findLast((message) => message.type === 'start');
    this.socket.send(
      encodeFrame({
        kind: frameKinds.link,
        subject: stream?.type === 'start' ? stream.stream : 0,
        firstIndex,
        channels: 1,
        values: Float64Array.from(states),
        times: Float64Array.from(times),
      }),
    );
  }

  sendRaw(data: string | Uint8Array): void {
    this.socket.send(data);
  }

  /** Waits for a message of the server. */
  async heard(wanted: (message: ToDevice) => boolean): Promise<ToDevice> {
    for (let tries = 0; tries < 200; tries++) {
      const found = this.received.find(wanted);
      if (found !== undefined) return found;
      await new Promise((resolve) => setTimeout(resolve, 25));
    }
    throw new Error(`the server did not say it; it said ${JSON.stringify(this.received)}`);
  }

  vanish(): void {
    clearInterval(this.timer);
    this.socket.terminate();
  }
}
