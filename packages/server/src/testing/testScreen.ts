import {
  type FromScreen,
  type SampleFrame,
  type ScreenToServer,
  type ServerToScreen,
  type ToScreen,
  decodeFrames,
  frameKinds,
  livePath,
  toScreenSchema,
} from '@heuristor/contracts';
import { type Socket as TcpSocket } from 'node:net';
import { type Socket, io } from 'socket.io-client';

type Kind = ToScreen['type'];

/** A screen on the live stream, as the page in a browser is one. */
export class TestScreen {
  /** A channel that no run has, by which a test finds out whether a screen is being served. */
  static readonly probe = 0;
  readonly messages: ToScreen[] = [];
  readonly frames: SampleFrame[] = [];
  bytes = 0;
  /** Why the stream ended, once it has. */
  ended: string | null = null;
  private readonly waiting = new Set<() => void>();

  private constructor(private readonly socket: Socket<ServerToScreen, ScreenToServer>) {
    socket.on('say', (message) => {
      this.messages.push(toScreenSchema.parse(message));
      this.look();
    });
    socket.on('frame', (bytes) => {
      this.bytes += bytes.byteLength;
      this.frames.push(...decodeFrames(new Uint8Array(bytes)));
      this.look();
    });
    socket.on('disconnect', (reason) => {
      this.ended = reason;
      this.look();
    });
  }

  /** Opens a stream. @throws where the server refuses it */
  static async open(port: number, headers: Record<string, string>): Promise<TestScreen> {
    const socket: Socket<ServerToScreen, ScreenToServer> = io(`http://127.0.0.1:${port}`, {
      path: livePath,
      transports: ['websocket'],
      reconnection: false,
      forceNew: true,
      extraHeaders: headers,
    });
    const screen = new TestScreen(socket);
    await new Promise<void>((resolve, reject) => {
      socket.once('connect', resolve);
      socket.once('connect_error', (error) => {
        socket.disconnect();
        reject(error);
      });
    });
    return screen;
  }

  /** @param heard called when the server has taken note of it */
  say(message: FromScreen, heard: () => void = () => undefined): void {
    this.socket.emit('say', message, heard);
  }

  /** Says what no screen would. */
  sayAnything(message: unknown): void {
    this.socket.emit('say', message as FromScreen);
  }

  watch(investigation: string | null, stage: string | null = null): void {
    this.say({ type: 'watch', investigations: investigation === null ? [] : [investigation], stage });
  }

  /** What came of runs; frames of sensors that are connected travel beside them. */
  get runFrames(): SampleFrame[] {
    return this.frames.filter(({ kind, subject }) => kind === frameKinds.run && subject !== TestScreen.probe);
  }

  hasProbe(word: number): boolean {
    return this.frames.some(
      ({ kind, subject, firstIndex }) =>
        kind === frameKinds.run && subject === TestScreen.probe && firstIndex === word,
    );
  }

  heard<K extends Kind>(type: K): Extract<ToScreen, { type: K }>[] {
    return this.messages.filter(
      (message): message is Extract<ToScreen, { type: K }> => message.type === type,
    );
  }

  /** Waits until something is so; it is looked at whenever something has come. */
  async until(isSo: (screen: TestScreen) => boolean, what: string, milliseconds = 10_000): Promise<void> {
    if (isSo(this)) return;
    await new Promise<void>((resolve, reject) => {
      const timer = setTimeout(() => {
        this.waiting.delete(look);
        reject(new Error(`the screen did not see ${what}`));
      }, milliseconds);
      const look = () => {
        if (!isSo(this)) return;
        clearTimeout(timer);
        this.waiting.delete(look);
        resolve();
      };
      this.waiting.add(look);
    });
  }

  /** Calls whenever something has come. */
  onAnything(look: () => void): void {
    this.waiting.add(look);
  }

  /** Takes nothing from the network any more, as a tablet that sleeps. */
  pause(): void {
    this.tcp().pause();
  }

  resume(): void {
    this.tcp().resume();
  }

  close(): void {
    this.socket.disconnect();
  }

  private tcp(): TcpSocket {
    const { transport } = this.socket.io.engine as unknown as { transport: { ws: { _socket: TcpSocket } } };
    return transport.ws._socket;
  }

  private look(): void {
    for (const look of [...this.waiting]) look();
  }
}
