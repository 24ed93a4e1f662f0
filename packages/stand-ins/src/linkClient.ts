import {
  type Clock,
  type ControlAction,
  type HelloInput,
  LinkMemory,
  type SampleFrame,
  type StateMessage,
  type Timer,
  type ToDevice,
  encodeFrame,
  frameKinds,
  keptAgainSeconds,
  linkProtocol,
  linkVersion,
  toDeviceSchema,
} from '@heuristor/contracts';
import WebSocket from 'ws';
import { AwayMemory } from './devices/awayMemory';
import { type DevicePlan } from './devices/device';
import { type RigClock, type RunningStream } from './devices/rigClock';
import { SensorErrors } from './devices/sensorErrors';

const sceneSeconds = 0.033;
const reconnectMilliseconds = 500;
const flashSeconds = 3;
const restMilliseconds = 600;
/** What lets its sensors err again as they do when it starts. */
const usualKey = 'itsUsual';
/** How long a plug that was pulled stays out, and how long a device that was carried off is away. */
const unpluggedMilliseconds = 3000;
const carriedMilliseconds = 10_000;
/** What is done to a device that records by itself, on the Stage. */
const carries: ReadonlySet<string> = new Set(['carry', 'carryAndPress', 'carryAndDrop', 'button']);

/** A stream that is running, with what of it may have to be sent again. */
interface SentStream {
  stream: RunningStream;
  memory: LinkMemory;
  /** Its link broke, and the server has not said yet that it goes on. */
  isHeld: boolean;
}

interface Surroundings {
  url: string;
  clock: RigClock;
  /** That passes for the device. */
  time: Clock;
  /** With which what chance does begins. */
  seed: number;
  /** Something happened that lets the apparatus move again, or sends what it has gathered. */
  catchUp: () => void;
}

/** A simulated device on the link: says hello, streams when asked to, comes back when the link breaks. */
export class LinkClient {
  private socket: WebSocket | null = null;
  private readonly running = new Map<string, SentStream>();
  private readonly outputs: Record<string, number>;
  private flashUntil = 0;
  private sceneSent = 0;
  private closed = false;
  private isPulled = false;
  /** The second in which it last reported what it keeps. */
  private keptSentAt = -1;
  private readonly errors: SensorErrors;
  private changing: Timer | null = null;
  private readonly memory: AwayMemory | null;
  private awayMilliseconds = unpluggedMilliseconds;
  /** When its link broke, in seconds of the rig; null while it is whole. */
  private brokenAt: number | null = null;
  watched = false;

  constructor(
    private readonly device: DevicePlan,
    private readonly around: Surroundings,
  ) {
    this.errors = new SensorErrors(device, around.seed);
    const { keeps } = device;
    this.memory =
      keeps === undefined
        ? null
        : new AwayMemory({
            clock: around.clock,
            planOf: (key) => {
              const plan = device.streams.find((stream) => stream.key === key);
              return plan === undefined ? undefined : this.errors.with(plan);
            },
            random: () => this.errors.random(),
            keeps,
            // A quartz of its own: some tens of millionths off, each device otherwise.
            drift: ((around.seed % 101) - 50) * 1e-6,
          });
    this.outputs = Object.fromEntries((device.outputs ?? []).map(({ key, value }) => [key, value]));
    for (const [key, value] of Object.entries(this.outputs)) around.clock.apparatus.drive?.(key, value);
    this.connect();
  }

  close(): void {
    this.closed = true;
    this.changing?.cancel();
    this.socket?.close();
  }

  get isBusy(): boolean {
    return this.running.size > 0 || this.watched || this.memory?.isActive === true;
  }

  /** Somebody pulls the plug, or carries the device off, and is back after a while; what it reads meanwhile is lost. */
  unplug(milliseconds = unpluggedMilliseconds): void {
    this.forgetStreams();
    this.outOfReach(milliseconds);
  }

  /** Its radio does not reach the server for a while; it goes on reading. */
  outOfReach(milliseconds = unpluggedMilliseconds): void {
    this.isPulled = true;
    this.awayMilliseconds = milliseconds;
    this.socket?.terminate();
  }

  private forgetStreams(): void {
    for (const { stream } of this.running.values()) this.around.clock.running.delete(stream);
    this.running.clear();
  }

  private get isOpen(): boolean {
    return this.socket?.readyState === WebSocket.OPEN;
  }

  private connect(): void {
    const socket = new WebSocket(this.around.url);
    this.socket = socket;
    socket.on('open', () => socket.send(JSON.stringify(this.hello())));
    socket.on('message', (data, isBinary) => {
      if (!isBinary) this.receive(toDeviceSchema.parse(JSON.parse(String(data))));
    });
    socket.on('error', () => undefined);
    socket.on('close', () => {
      this.brokenAt ??= this.around.clock.seconds;
      for (const sent of this.running.values()) sent.isHeld = true;
      this.watched = false;
      const pause = this.isPulled ? this.awayMilliseconds : reconnectMilliseconds;
      this.isPulled = false;
      if (!this.closed) this.around.time.after(pause, () => this.connect());
    });
  }

  private hello(): HelloInput {
    const { device, around } = this;
    return {
      type: 'hello',
      protocol: linkProtocol,
      version: linkVersion,
      device: { code: device.code, model: device.model },
      streams: device.streams.map((stream) => this.errors.announced(stream)),
      numbers: device.numbers ?? [],
      outputs: device.outputs ?? [],
      state: { battery: device.battery, outputs: this.outputs },
      keeps: device.keeps,
      goesOn: [...this.running].map(([of, { stream, memory }]) => ({
        of,
        stream: stream.number,
        from: memory.from,
      })),
      stage: { ...around.clock.apparatus.stage, sensor: this.errors.list },
    };
  }

  private receive(message: ToDevice): void {
    const { clock } = this.around;
    switch (message.type) {
      case 'start': {
        const plan = this.device.streams.find(({ key }) => key === message.of);
        if (plan === undefined) return;
        this.stop(plan.key);
        this.around.catchUp();
        const { stream, rate, ranges = {} } = message;
        this.running.set(plan.key, {
          stream: clock.start(this.errors.with(plan), stream, rate, ranges, this.errors.random),
          memory: new LinkMemory(),
          isHeld: false,
        });
        break;
      }
      case 'go-on':
        this.goOn(message);
        break;
      case 'stop':
        if (message.of !== undefined) this.stop(message.of);
        break;
      case 'watched':
        this.watched = message.watched;
        break;
      case 'control':
        this.act(message.control);
        break;
      case 'number':
        this.device.number?.(message.key, message.value);
        break;
      case 'output':
        this.outputs[message.key] = message.value;
        clock.apparatus.drive?.(message.key, message.value);
        break;
      case 'refused':
        process.stderr.write(`${this.device.code}: the server refused this device: ${message.message}\n`);
        break;
      case 'flash':
        this.flashUntil = clock.seconds + flashSeconds;
        this.around.catchUp();
        break;
      case 'prepare':
      case 'end':
      case 'fetch':
      case 'erase':
        this.around.catchUp();
        this.keep(message);
        break;
      case 'welcome':
        this.brokenAt = null;
        this.tellKept();
        break;
      case 'waiting':
      case 'admitted':
        break;
    }
  }

  private act(action: ControlAction): void {
    if (action.action === 'do' && action.key === 'unplug') {
      this.unplug();
      return;
    }
    if (action.action === 'do' && action.key === 'outOfReach') {
      this.outOfReach();
      return;
    }
    if (action.action === 'do' && this.memory !== null && carries.has(action.key)) {
      this.carry(action.key);
      return;
    }
    if (action.action === 'do' && action.key === usualKey) {
      if (this.errors.reset()) this.helloAnew();
      return;
    }
    // The apparatus stands where it is now, not where it was at the last tick.
    this.around.catchUp();
    if (action.action === 'set' && this.err(action.key, action.value)) return;
    const { apparatus } = this.around.clock;
    const output =
      action.action === 'set' ? this.device.outputs?.find(({ key }) => key === action.key) : undefined;
    if (action.action !== 'set' || output === undefined) {
      apparatus.control(action);
      return;
    }
    // The knob of an output, turned by hand: the server hears of it.
    this.outputs[action.key] = Math.min(Math.max(action.value, output.low), output.high);
    apparatus.drive?.(action.key, this.outputs[action.key]);
    const state: StateMessage = { type: 'state', outputs: this.outputs };
    if (this.isOpen) this.socket?.send(JSON.stringify(state));
  }

  /** Lets its sensors err otherwise. A device with other limits says hello anew when the hand has come to rest. */
  private err(key: string, value: number): boolean {
    const what = this.errors.set(key, value);
    if (what === 'other') this.helloAnew();
    return what !== 'unknown';
  }

  private helloAnew(): void {
    this.changing?.cancel();
    this.changing = this.around.time.after(restMilliseconds, () => {
      this.forgetStreams();
      this.socket?.terminate();
    });
  }

  private stop(key: string): void {
    const sent = this.running.get(key);
    if (sent === undefined) return;
    this.around.clock.running.delete(sent.stream);
    this.running.delete(key);
  }

  /** The server wants what it lacks of a stream, and all that follows. */
  private goOn({ of, stream, from }: Extract<ToDevice, { type: 'go-on' }>): void {
    const sent = this.running.get(of);
    if (sent?.stream.number !== stream) return;
    this.around.catchUp();
    this.gather(sent);
    for (const frame of sent.memory.since(from)) this.socket?.send(encodeFrame(frame));
    sent.isHeld = false;
  }

  /** Takes what a stream has read since; it is kept for a while, since the link may break. */
  private gather({ stream, memory }: SentStream): SampleFrame | null {
    const taken = stream.take();
    if (taken === null) return null;
    const frame = { kind: frameKinds.link, subject: stream.number, channels: stream.channels, ...taken };
    memory.keep(frame, this.around.clock.seconds);
    return frame;
  }

  /** What is to be done with what it keeps by itself. */
  private keep(message: Extract<ToDevice, { type: 'prepare' | 'end' | 'fetch' | 'erase' }>): void {
    const { memory } = this;
    if (memory === null) return;
    switch (message.type) {
      case 'prepare':
        memory.prepare(message);
        break;
      case 'end':
        memory.end(message.id);
        break;
      case 'erase':
        memory.erase(message.id);
        break;
      case 'fetch': {
        const frame = memory.fetch(message);
        if (frame !== null && this.isOpen) this.socket?.send(frame);
      }
    }
    this.tellKept();
  }

  private tellKept(): void {
    if (this.memory !== null && this.isOpen) this.socket?.send(JSON.stringify(this.memory.message));
  }

  /** Somebody carries it off, presses its button there, or drops it so that its battery falls out. */
  private carry(key: string): void {
    if (key === 'button') {
      this.around.catchUp();
      this.memory?.button();
      return;
    }
    this.unplug(carriedMilliseconds);
    const { time } = this.around;
    if (key === 'carryAndPress') time.after(carriedMilliseconds / 10, () => this.memory?.button());
    if (key === 'carryAndDrop') time.after(carriedMilliseconds / 2, () => this.memory?.losePower());
  }

  /** Sends what was gathered, and the scene where somebody looks. */
  send(): void {
    this.memory?.gather();
    if (this.brokenAt !== null && this.around.clock.seconds - this.brokenAt > keptAgainSeconds)
      this.forgetStreams();
    for (const sent of this.running.values()) {
      const frame = this.gather(sent);
      if (frame !== null && !sent.isHeld && this.isOpen) this.socket?.send(encodeFrame(frame));
    }
    if (!this.isOpen) return;
    const second = Math.floor(this.around.clock.seconds);
    // While it records, it reports what it has every second.
    if (this.memory?.takeNews() === true || (this.memory?.isActive === true && second !== this.keptSentAt)) {
      this.keptSentAt = second;
      this.tellKept();
    }
    const now = this.around.clock.seconds;
    if (!this.watched || now - this.sceneSent < sceneSeconds) return;
    this.sceneSent = now;
    const { apparatus } = this.around.clock;
    const settables = [...apparatus.stage.controls, ...this.errors.list];
    const controls = Object.fromEntries(settables.map(({ key, value }) => [key, value]));
    const values = { ...apparatus.scene(), ...controls, ...this.outputs, flash: this.blinking(now) };
    this.socket?.send(JSON.stringify({ type: 'scene', values }));
  }

  /** The lamp: blinking twice a second while it flashes. */
  private blinking(now: number): number {
    return now < this.flashUntil && Math.floor(now * 4) % 2 === 0 ? 1 : 0;
  }
}
