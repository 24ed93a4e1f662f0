import {
  type HelloInput,
  type ToDevice,
  encodeFrame,
  frameKinds,
  linkProtocol,
  linkVersion,
  toDeviceSchema,
} from '@heuristor/contracts';
import { performance } from 'node:perf_hooks';
import WebSocket from 'ws';
import { motionChannel } from './devices/motionSensor';
import { type SampledApparatus } from './devices/sampledApparatus';

const tickMilliseconds = 20;
const sceneMilliseconds = 33;
const reconnectMilliseconds = 500;
const flashSeconds = 3;

/** A simulated motion sensor on the device link: says hello, streams when told to, comes back when the link breaks. */
export class LinkClient {
  private socket: WebSocket | null = null;
  private readonly began = performance.now();
  private stream: { number: number; rate: number; began: number; sent: number } | null = null;
  private watched = false;
  private sceneSent = 0;
  private flashUntil = 0;
  private readonly timer: NodeJS.Timeout;
  private closed = false;

  constructor(
    private readonly url: string,
    private readonly code: string,
    private readonly rig: SampledApparatus,
  ) {
    this.timer = setInterval(() => this.tick(), tickMilliseconds);
    this.connect();
  }

  close(): void {
    this.closed = true;
    clearInterval(this.timer);
    this.socket?.close();
  }

  private seconds(): number {
    return (performance.now() - this.began) / 1000;
  }

  /** The lamp: blinking twice a second while it flashes. */
  private blinking(now: number): number {
    return now < this.flashUntil && Math.floor(now * 4) % 2 === 0 ? 1 : 0;
  }

  private connect(): void {
    const socket = new WebSocket(this.url);
    this.socket = socket;
    socket.on('open', () => {
      const hello: HelloInput = {
        type: 'hello',
        protocol: linkProtocol,
        version: linkVersion,
        device: { code: this.code, model: 'Motion sensor' },
        channels: [motionChannel],
        rates: { lowest: 1, highest: 100, usual: 50 },
        stage: this.rig.apparatus.stage,
      };
      socket.send(JSON.stringify(hello));
    });
    socket.on('message', (data, isBinary) => {
      if (!isBinary) this.receive(toDeviceSchema.parse(JSON.parse(String(data))));
    });
    socket.on('error', () => undefined);
    socket.on('close', () => {
      this.stream = null;
      if (!this.closed) setTimeout(() => this.connect(), reconnectMilliseconds);
    });
  }

  private receive(message: ToDevice): void {
    switch (message.type) {
      case 'start':
        this.stream = { number: message.stream, rate: message.rate, began: this.seconds(), sent: 0 };
        break;
      case 'stop':
        this.stream = null;
        break;
      case 'watched':
        this.watched = message.watched;
        break;
      case 'control':
        this.rig.apparatus.control(message.control);
        break;
      case 'refused':
        process.stderr.write(`${this.code}: the server refused this device: ${message.message}\n`);
        break;
      case 'flash':
        this.flashUntil = this.seconds() + flashSeconds;
        break;
      case 'welcome':
      case 'waiting':
      case 'admitted':
        break;
    }
  }

  private tick(): void {
    const now = this.seconds();
    const { socket, stream } = this;
    if (stream !== null && socket?.readyState === WebSocket.OPEN) {
      const values: number[] = [];
      const firstIndex = stream.sent;
      for (;;) {
        const moment = stream.began + stream.sent / stream.rate;
        if (moment > now) break;
        values.push(this.rig.readAt(moment));
        stream.sent++;
      }
      if (values.length > 0)
        socket.send(
          encodeFrame({
            kind: frameKinds.link,
            subject: stream.number,
            firstIndex,
            channels: 1,
            values: Float64Array.from(values),
            times: null,
          }),
        );
    }
    this.rig.advanceTo(now);
    if (
      this.watched &&
      socket?.readyState === WebSocket.OPEN &&
      now - this.sceneSent > sceneMilliseconds / 1000
    ) {
      this.sceneSent = now;
      const controls = Object.fromEntries(
        this.rig.apparatus.stage.controls.map(({ key, value }) => [key, value]),
      );
      socket.send(
        JSON.stringify({
          type: 'scene',
          values: { ...this.rig.apparatus.scene(), ...controls, flash: this.blinking(now) },
        }),
      );
    }
  }
}
