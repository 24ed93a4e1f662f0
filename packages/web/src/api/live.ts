import {
  type ControlAction,
  type SampleFrame,
  type ScreenToServer,
  type ServerToScreen,
  type ToScreen,
  decodeFrames,
  livePath,
  toScreenSchema,
} from '@heuristor/contracts';
import { type Socket, io } from 'socket.io-client';

type MessageListener = (message: ToScreen) => void;
type FrameListener = (frame: SampleFrame) => void;
type StateListener = (open: boolean) => void;

const retryMilliseconds = 500;

/** The live stream: opens itself again whenever it breaks, and says so. */
class LiveStream {
  private socket: Socket<ServerToScreen, ScreenToServer> | null = null;
  private readonly messages = new Set<MessageListener>();
  private readonly frames = new Set<FrameListener>();
  private readonly states = new Set<StateListener>();
  /** One for each session that is open; several may be of one investigation. */
  private readonly investigations: { id: string; heard: () => void }[] = [];
  private stage: string | null = null;

  open(): void {
    if (this.socket !== null) return;
    const socket: Socket<ServerToScreen, ScreenToServer> = io({
      path: livePath,
      transports: ['websocket'],
      reconnectionDelay: 300,
      reconnectionDelayMax: 2000,
    });
    this.socket = socket;
    socket.on('connect', () => {
      // Who fetches what was missed does so after the server has begun to tell what comes.
      this.sayWatched(() => this.states.forEach((listener) => listener(true)));
    });
    let isSignedOut = false;
    socket.on('disconnect', (reason) => {
      this.states.forEach((listener) => listener(false));
      // A server that stops in good order ends every stream itself; it comes back, and what is on this page waits for it.
      if (reason === 'io server disconnect' && !isSignedOut)
        setTimeout(() => socket.connect(), retryMilliseconds);
    });
    socket.on('connect_error', () => {
      if (!socket.active) setTimeout(() => socket.connect(), retryMilliseconds);
    });
    socket.on('say', (message) => {
      const parsed = toScreenSchema.parse(message);
      if (parsed.type === 'signed-out') {
        // Elsewhere, in the same browser: there is nothing more to hear.
        isSignedOut = true;
        location.assign('/');
        return;
      }
      this.messages.forEach((listener) => listener(parsed));
    });
    socket.on('frame', (bytes) => {
      for (const frame of decodeFrames(new Uint8Array(bytes)))
        this.frames.forEach((listener) => listener(frame));
    });
  }

  /**
   * From here on, what happens to an investigation is heard.
   * @returns when the server has taken note of it, and how it is heard of no more
   */
  watchInvestigation(id: string): { heard: Promise<void>; stop: () => void } {
    let hear = () => undefined as void;
    const heard = new Promise<void>((resolve) => {
      hear = resolve;
    });
    const watched = { id, heard: hear };
    this.investigations.push(watched);
    this.sayWatched();
    const stop = () => {
      const place = this.investigations.indexOf(watched);
      if (place < 0) return;
      this.investigations.splice(place, 1);
      this.sayWatched();
    };
    return { heard, stop };
  }

  /** Hears how an apparatus moves; null of none. */
  watchStage(stage: string | null): void {
    this.stage = stage;
    this.sayWatched();
  }

  private sayWatched(then?: () => void): void {
    if (this.socket?.connected !== true) return;
    const { stage } = this;
    const asked = [...this.investigations];
    const investigations = [...new Set(asked.map(({ id }) => id))];
    this.socket.emit('say', { type: 'watch', investigations, stage }, () => {
      asked.forEach(({ heard }) => heard());
      then?.();
    });
  }

  control(code: string, control: ControlAction): void {
    if (this.socket?.connected === true) this.socket.emit('say', { type: 'control', code, control });
  }

  onMessage(listener: MessageListener): () => void {
    this.messages.add(listener);
    return () => this.messages.delete(listener);
  }

  onFrame(listener: FrameListener): () => void {
    this.frames.add(listener);
    return () => this.frames.delete(listener);
  }

  onState(listener: StateListener): () => void {
    this.states.add(listener);
    return () => this.states.delete(listener);
  }
}

export const live = new LiveStream();
