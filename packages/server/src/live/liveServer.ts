import { encodeFrame, frameKinds, fromScreenSchema, type ToScreen } from '@heuristor/contracts';
import { type Logger } from 'pino';
import { type WebSocket, WebSocketServer } from 'ws';
import { type DeviceRegistry } from '../link/registry';
import { type Recorder } from '../recorder/recorder';

/** A screen that falls behind by this many bytes loses live frames; what it misses is in the database. */
const mostBuffered = 4 << 20;

interface Screen {
  socket: WebSocket;
  investigation: string | null;
  stages: boolean;
}

/** Pushes devices, readings and runs to every screen that watches. */
export class LiveServer {
  readonly server = new WebSocketServer({ noServer: true, maxPayload: 16_384 });
  private readonly screens = new Set<Screen>();

  constructor(
    private readonly registry: DeviceRegistry,
    recorder: Recorder,
    private readonly log: Logger,
  ) {
    this.server.on('connection', (socket: WebSocket) => this.serve(socket));
    registry.on('changed', () => this.broadcast({ type: 'devices', devices: registry.list() }));
    registry.on('samples', (device, frame) => {
      const values = frame.values.map((raw, i) => device.calibrated(raw, i % frame.channels));
      const bytes = encodeFrame({ ...frame, kind: frameKinds.device, subject: device.handle, values });
      for (const screen of this.screens) this.sendBinary(screen, bytes);
    });
    registry.on('scene', (code, values) => {
      const text = JSON.stringify({ type: 'scene', code, values } satisfies ToScreen);
      for (const screen of this.screens) if (screen.stages) screen.socket.send(text);
    });
    recorder.on('run', (run) => this.broadcast({ type: 'run', run }, run.investigationId));
    recorder.on('storage', (waiting) => this.broadcast({ type: 'storage', waiting }));
    recorder.on('samples', (investigation, bytes) => {
      for (const screen of this.screens)
        if (screen.investigation === investigation) this.sendBinary(screen, bytes);
    });
  }

  /** Sends to every screen, or to those that watch one investigation. */
  broadcast(message: ToScreen, investigation?: string): void {
    const text = JSON.stringify(message);
    for (const screen of this.screens)
      if (investigation === undefined || screen.investigation === investigation) screen.socket.send(text);
  }

  private sendBinary({ socket }: Screen, bytes: Uint8Array): void {
    if (socket.bufferedAmount < mostBuffered) socket.send(bytes);
  }

  private serve(socket: WebSocket): void {
    const screen: Screen = { socket, investigation: null, stages: false };
    this.screens.add(screen);
    socket.on('error', (error) => this.log.warn(`live stream: ${error.message}`));
    socket.on('close', () => {
      this.screens.delete(screen);
      this.watchStages();
    });
    socket.on('message', (data, isBinary) => {
      const parsed = fromScreenSchema.safeParse(isBinary ? null : jsonOf(String(data)));
      if (!parsed.success) {
        socket.close(1008, 'malformed');
        return;
      }
      if (parsed.data.type === 'watch') {
        screen.investigation = parsed.data.investigation;
        screen.stages = parsed.data.stages;
        this.watchStages();
      } else this.registry.control(parsed.data.code, parsed.data.control);
    });
    socket.send(JSON.stringify({ type: 'devices', devices: this.registry.list() } satisfies ToScreen));
  }

  private watchStages(): void {
    this.registry.watchStages([...this.screens].some(({ stages }) => stages));
  }
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
