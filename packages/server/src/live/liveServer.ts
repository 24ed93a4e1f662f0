import {
  type ScreenToServer,
  type ServerToScreen,
  type ToScreen,
  encodeFrame,
  frameKinds,
  fromScreenSchema,
  joinFrames,
  livePath,
} from '@heuristor/contracts';
import { type Server as HttpServer, type IncomingMessage } from 'node:http';
import { type Logger } from 'pino';
import { type Socket, Server } from 'socket.io';
import { cookieOf, isFromOwnPage } from '../auth/guard';
import { hashOf, teacherOfCookie } from '../auth/signIn';
import { type DatabaseHealth } from '../health';
import { type DeviceRegistry } from '../link/registry';
import { type Recorder } from '../recorder/recorder';

/** A screen that falls behind by this many bytes loses live frames; it sees the hole and fetches what it misses. */
const mostBuffered = 4 << 20;
/** Readings of a run go out together so often, those of devices outside runs less often. */
const runMilliseconds = 25;
const deviceMilliseconds = 150;

const allScreens = 'screens';
const stages = 'stages';
const roomOf = (investigation: string) => `investigation ${investigation}`;
const roomOfCookie = (cookie: string) => `cookie ${hashOf(cookie)}`;

type Screen = Socket<ScreenToServer, ServerToScreen>;

/** Gathers frames and sends them on together. */
class Gathered {
  private readonly waiting = new Map<string, Uint8Array[]>();
  private readonly timer: NodeJS.Timeout;

  constructor(
    milliseconds: number,
    private readonly send: (room: string, bytes: Uint8Array) => void,
  ) {
    this.timer = setInterval(() => this.flush(), milliseconds);
  }

  /** Sends what waits, at once. */
  flush(): void {
    for (const [room, frames] of this.waiting)
      this.send(room, frames.length === 1 ? frames[0] : joinFrames(frames));
    this.waiting.clear();
  }

  add(room: string, frame: Uint8Array): void {
    const frames = this.waiting.get(room);
    if (frames === undefined) this.waiting.set(room, [frame]);
    else frames.push(frame);
  }

  close(): void {
    clearInterval(this.timer);
  }
}

/** Pushes devices, readings and runs to every screen that watches: socket.io, a room for each investigation. */
export class LiveServer {
  private readonly io: Server<ScreenToServer, ServerToScreen>;
  private readonly runFrames = new Gathered(runMilliseconds, (room, bytes) => this.sendFrames(room, bytes));
  private readonly deviceFrames = new Gathered(deviceMilliseconds, (room, bytes) =>
    this.sendFrames(room, bytes),
  );

  constructor(
    private readonly registry: DeviceRegistry,
    private readonly recorder: Recorder,
    private readonly health: DatabaseHealth,
    private readonly log: Logger,
  ) {
    this.io = new Server({
      path: livePath,
      serveClient: false,
      transports: ['websocket'],
      maxHttpBufferSize: 16_384,
      perMessageDeflate: false,
      pingInterval: 5000,
      pingTimeout: 5000,
      allowRequest: (request, answer) => {
        this.mayListen(request).then(
          (may) => answer(may ? null : 'not signed in', may),
          () => answer('the database does not answer', false),
        );
      },
    });
    this.io.on('connection', (socket) => this.serve(socket));
    registry.on('changed', () => {
      // What was reckoned with the old zero and sign goes out before the new ones are told.
      this.deviceFrames.flush();
      this.broadcast({ type: 'devices', devices: registry.list() });
    });
    registry.on('samples', (device, frame) => {
      if (!device.settings.connected) return;
      const values = frame.values.map((raw, i) => device.calibrated(raw, i % frame.channels));
      const bytes = encodeFrame({ ...frame, kind: frameKinds.device, subject: device.handle, values });
      this.deviceFrames.add(allScreens, bytes);
    });
    registry.on('scene', (code, values) => this.io.to(stages).emit('say', { type: 'scene', code, values }));
    recorder.on('run', (run) => this.broadcast({ type: 'run', run }, run.investigationId));
    recorder.on('samples', (investigation, bytes) => this.runFrames.add(roomOf(investigation), bytes));
    recorder.on('waiting', () => this.broadcast(this.storage()));
    health.on('changed', () => this.broadcast(this.storage()));
  }

  attach(server: HttpServer): void {
    this.io.attach(server);
  }

  /** Sends to every screen, or to those that watch one investigation. */
  broadcast(message: ToScreen, investigation?: string): void {
    this.io.to(investigation === undefined ? allScreens : roomOf(investigation)).emit('say', message);
  }

  /** Ends the streams that a cookie has opened. */
  endFor(cookie: string): void {
    this.io.in(roomOfCookie(cookie)).disconnectSockets(true);
  }

  async close(): Promise<void> {
    this.runFrames.close();
    this.deviceFrames.close();
    this.io.disconnectSockets(true);
    await this.io.close();
  }

  private storage(): ToScreen {
    return { type: 'storage', away: this.health.away, waiting: this.recorder.writer.isWaiting };
  }

  private async mayListen(request: IncomingMessage): Promise<boolean> {
    return isFromOwnPage(request) && (await teacherOfCookie(cookieOf(request))) !== null;
  }

  private sendFrames(room: string, bytes: Uint8Array): void {
    for (const id of this.io.of('/').adapter.rooms.get(room) ?? []) {
      const socket = this.io.of('/').sockets.get(id);
      if (socket !== undefined && bufferedBy(socket) < mostBuffered) socket.emit('frame', bytes);
    }
  }

  private serve(socket: Screen): void {
    const cookie = cookieOf(socket.request);
    void socket.join(cookie === undefined ? [allScreens] : [allScreens, roomOfCookie(cookie)]);
    let watched: string | null = null;
    socket.on('error', (error) => this.log.warn(`live stream: ${error.message}`));
    socket.on('disconnect', () => this.watchStages());
    socket.on('say', (message: unknown) => {
      const parsed = fromScreenSchema.safeParse(message);
      if (!parsed.success) {
        socket.disconnect(true);
        return;
      }
      if (parsed.data.type === 'control') {
        this.registry.control(parsed.data.code, parsed.data.control);
        return;
      }
      if (watched !== null) void socket.leave(roomOf(watched));
      watched = parsed.data.investigation;
      if (watched !== null) void socket.join(roomOf(watched));
      if (parsed.data.stages) void socket.join(stages);
      else void socket.leave(stages);
      this.watchStages();
    });
    socket.emit('say', { type: 'devices', devices: this.registry.list() });
    socket.emit('say', this.storage());
  }

  private watchStages(): void {
    this.registry.watchStages((this.io.of('/').adapter.rooms.get(stages)?.size ?? 0) > 0);
  }
}

/** Bytes that wait to leave for a screen: on its socket, and before it, where messages wait for the one that is leaving. */
function bufferedBy({ conn }: Screen): number {
  const { transport, writeBuffer } = conn as unknown as {
    transport: { socket?: { bufferedAmount?: number } };
    writeBuffer: readonly { data?: { length: number } }[];
  };
  return writeBuffer.reduce(
    (sum, { data }) => sum + (data?.length ?? 0),
    transport.socket?.bufferedAmount ?? 0,
  );
}
