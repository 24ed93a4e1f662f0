import {
  type SampleFrame,
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
import { type Access } from '../auth/access';
import { cookieOf, isFromOwnPage } from '../auth/guard';
import { type Actor } from '../auth/actor';
import { actorLately, actorOfCookie, hashOf } from '../auth/signIn';
import { type Bus } from '../bus';
import { type DiskRoom } from '../diskRoom';
import { type DatabaseHealth } from '../health';
import { type LinkedStream } from '../link/device';
import { strideOf } from '../presence/present';
import { type Presence } from '../presence/presence';
import { type Stages } from '../presence/stages';
import { type Recorder } from '../recorder/recorder';
import { investigationsSeenBy } from '../services/access';

/** A screen that falls behind by this many bytes loses live frames; it sees the hole and fetches what it misses. */
const mostBuffered = 4 << 20;
/** Readings of a run go out together so often, those of devices outside runs less often. */
const runMilliseconds = 25;
const deviceMilliseconds = 150;
/** While the database does not answer, it is asked so often what somebody may watch. */
const askAgainMilliseconds = 500;
const giveUpMilliseconds = 2000;

const allScreens = 'screens';
const stageRoom = 'stage ';
const roomOf = (investigation: string) => `investigation ${investigation}`;
const roomOfPerson = (id: string) => `person ${id}`;
const roomOfSchool = (id: string) => `school ${id}`;
const roomOfCookie = (cookie: string) => `cookie ${hashOf(cookie)}`;

const givenUp = (milliseconds: number) =>
  new Promise<never>((_, reject) => setTimeout(() => reject(new Error('no answer')), milliseconds).unref());

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

interface Parts {
  bus: Bus;
  presence: Presence;
  stages: Stages;
  recorder: Recorder;
  health: DatabaseHealth;
  room: DiskRoom;
  access: Access;
  log: Logger;
}

/** Pushes devices, readings and runs to every screen that watches: socket.io, a room for each investigation. */
export class LiveServer {
  private readonly io: Server<ScreenToServer, ServerToScreen>;
  private readonly runFrames = new Gathered(runMilliseconds, (room, bytes) => this.sendFrames(room, bytes));
  private readonly deviceFrames = new Gathered(deviceMilliseconds, (room, bytes) =>
    this.sendFrames(room, bytes),
  );

  constructor(private readonly parts: Parts) {
    const { bus, presence, health, room } = parts;
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
    bus.on('devices', () => {
      // What was reckoned with the old zero and sign goes out before the new ones are sent.
      this.deviceFrames.flush();
      this.io.to(roomOfSchool(presence.school)).emit('say', this.devices());
    });
    bus.on('readings', (stream, frame) => {
      if (stream.device.use === null) return;
      const thinned = forCards(stream, frame);
      if (thinned.values.length > 0)
        this.deviceFrames.add(roomOfSchool(presence.school), encodeFrame(thinned));
    });
    bus.on('scene', ({ code, description }, values) => {
      if (description.stage !== null)
        this.io.to(stageRoom + description.stage.apparatus).emit('say', { type: 'scene', code, values });
    });
    bus.on('run', (run) => this.broadcast({ type: 'run', run }, run.investigationId));
    bus.on('runReadings', (investigation, bytes) => this.runFrames.add(roomOf(investigation), bytes));
    bus.on('recorder', (investigation, status) =>
      this.broadcast({ type: 'recorder', investigation, status }, investigation),
    );
    bus.on('spots', (investigation, status) =>
      this.broadcast({ type: 'spots', investigation, status }, investigation),
    );
    bus.on('fault', (investigation, sentence) =>
      this.broadcast({ type: 'fault', investigation, sentence }, investigation),
    );
    bus.on('import', (owner, state) => this.tell(owner, { type: 'import', import: state }));
    bus.on('job', (person, job) => this.tell(person, { type: 'job', job }));
    bus.on('plan', (investigation, plan) =>
      this.broadcast({ type: 'plan', investigation, ...plan }, investigation),
    );
    bus.on('document', (investigation, document) =>
      this.broadcast({ type: 'document', investigation, ...document }, investigation),
    );
    bus.on('notebook', (investigation, written) => {
      const message = { type: 'notebook', investigation, ...written } as const;
      this.tell(written.owner, message);
      // What somebody writes is nothing for others; a screen that shows it asks for it.
      this.io
        .to(roomOf(investigation))
        .except(roomOfPerson(written.owner))
        .emit('say', { ...message, update: null });
    });
    bus.on('backlog', () => this.broadcast(this.storage()));
    health.on('changed', () => this.broadcast(this.storage()));
    room.on('changed', () => this.broadcast(this.storage()));
  }

  /** Listens on one server, or on two that answer the same over HTTP and over TLS. */
  attach(server: HttpServer, further: HttpServer | null = null): void {
    this.io.attach(server);
    if (further !== null) this.io.engine.attach(further, { path: livePath, destroyUpgrade: false });
  }

  /** Sends to every screen, or to those that watch one investigation. */
  private broadcast(message: ToScreen, investigation?: string): void {
    this.io.to(investigation === undefined ? allScreens : roomOf(investigation)).emit('say', message);
  }

  /** Sends to the screens of one person. */
  private tell(person: string, message: ToScreen): void {
    this.io.to(roomOfPerson(person)).emit('say', message);
  }

  /** Ends the streams that a cookie has opened. */
  endFor(cookie: string): void {
    this.end(roomOfCookie(cookie));
  }

  /** Ends the streams of somebody who is let in no more. */
  endForPerson(person: string): void {
    this.end(roomOfPerson(person));
  }

  private end(room: string): void {
    this.io.to(room).emit('say', { type: 'signed-out' });
    this.io.in(room).disconnectSockets(true);
  }

  private devices(): ToScreen {
    return { type: 'devices', devices: this.parts.presence.list() };
  }

  async close(): Promise<void> {
    this.runFrames.close();
    this.deviceFrames.close();
    this.io.disconnectSockets(true);
    await this.io.close();
  }

  private storage(): ToScreen {
    return {
      type: 'storage',
      away: this.parts.health.away,
      waiting: this.parts.recorder.writer.isWaiting,
      disk: this.parts.room.state,
      free: this.parts.room.free,
    };
  }

  private async mayListen(request: IncomingMessage): Promise<boolean> {
    return isFromOwnPage(request, this.parts.access) && (await actorOfCookie(cookieOf(request))) !== null;
  }

  private sendFrames(room: string, bytes: Uint8Array): void {
    for (const id of this.io.of('/').adapter.rooms.get(room) ?? []) {
      const socket = this.io.of('/').sockets.get(id);
      if (socket !== undefined && bufferedBy(socket) < mostBuffered) socket.emit('frame', bytes);
    }
  }

  private serve(socket: Screen): void {
    const cookie = cookieOf(socket.request);
    // Who it is was found out just now, before the stream was opened.
    const actor = actorLately(cookie);
    if (actor === null || cookie === undefined) {
      socket.disconnect(true);
      return;
    }
    const seesDevices = actor.kind !== 'participant';
    void socket.join([allScreens, roomOfCookie(cookie), roomOfPerson(actor.id)]);
    if (seesDevices) void socket.join(roomOfSchool(actor.school));
    let watched: readonly string[] = [];
    let stage: string | null = null;
    /** The last wish counts, however long it takes to find out whether it may be. */
    let wishes = 0;
    const watch = async (wanted: readonly string[], heard: unknown) => {
      const wish = ++wishes;
      const allowed = await this.seenBy(actor, wanted, () => wish !== wishes || !socket.connected);
      if (allowed === null) return;
      for (const left of watched.filter((id) => !allowed.includes(id))) void socket.leave(roomOf(left));
      watched = allowed;
      await socket.join(allowed.map(roomOf));
      if (typeof heard === 'function') heard();
    };
    socket.on('error', (error) => this.parts.log.warn(`live stream: ${error.message}`));
    socket.on('disconnect', () => this.watchStages());
    socket.on('say', (message: unknown, heard?: unknown) => {
      const parsed = fromScreenSchema.safeParse(message);
      if (!parsed.success) {
        socket.disconnect(true);
        return;
      }
      if (parsed.data.type === 'control') {
        if (actor.kind === 'teacher') this.parts.stages.control(parsed.data.code, parsed.data.control);
        return;
      }
      const { investigations } = parsed.data;
      void watch(investigations, heard);
      if (stage !== null) void socket.leave(stageRoom + stage);
      ({ stage } = parsed.data);
      if (stage !== null) void socket.join(stageRoom + stage);
      this.watchStages();
    });
    if (seesDevices) socket.emit('say', this.devices());
    socket.emit('say', this.storage());
  }

  /**
   * Those of some investigations that somebody may look at; asked again while the database does not answer.
   * @returns null where nobody waits for it any more
   */
  private async seenBy(
    actor: Actor,
    wanted: readonly string[],
    isIdle: () => boolean,
  ): Promise<string[] | null> {
    if (wanted.length === 0) return [];
    while (!isIdle()) {
      try {
        // A database that hangs must not hold up the one that is back.
        const seen = await Promise.race([
          investigationsSeenBy(actor)
            .findByIds([...wanted])
            .select('id'),
          givenUp(giveUpMilliseconds),
        ]);
        return isIdle() ? null : seen.map(({ id }) => id);
      } catch (error) {
        this.parts.log.warn({ error: String(error) }, 'live stream: who may watch what is asked again');
        await new Promise((resolve) => setTimeout(resolve, askAgainMilliseconds).unref());
      }
    }
    return null;
  }

  /** Devices in front of an apparatus that somebody looks at say how it moves; others are spared it. */
  private watchStages(): void {
    const watched = new Set<string>();
    for (const [room, members] of this.io.of('/').adapter.rooms)
      if (room.startsWith(stageRoom) && members.size > 0) watched.add(room.slice(stageRoom.length));
    this.parts.stages.watch(watched);
  }
}

/** A frame of a device as cards show it: in the unit of the bench, and of a fast stream only some of its readings. */
function forCards(stream: LinkedStream, frame: SampleFrame): SampleFrame {
  const { handle, rate, views } = stream;
  const { channels, times } = frame;
  const stride = times === null ? strideOf(rate) : 1;
  // Which readings are taken does not hang on how they were cut into messages.
  const skipped = (stride - (frame.firstIndex % stride)) % stride;
  const count = Math.max(Math.ceil((frame.values.length / channels - skipped) / stride), 0);
  const values = new Float64Array(count * channels);
  for (let i = 0; i < count; i++)
    for (let c = 0; c < channels; c++)
      values[i * channels + c] =
        views[c].scale * frame.values[(skipped + i * stride) * channels + c] + views[c].offset;
  return {
    kind: frameKinds.device,
    subject: handle,
    firstIndex: Math.ceil(frame.firstIndex / stride),
    channels,
    values,
    times,
  };
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
