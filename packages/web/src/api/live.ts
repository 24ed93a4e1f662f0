import {
  type ControlAction,
  type FromScreen,
  type SampleFrame,
  type ToScreen,
  decodeFrame,
  toScreenSchema,
} from '@heuristor/contracts';

type MessageListener = (message: ToScreen) => void;
type FrameListener = (frame: SampleFrame) => void;
type StateListener = (open: boolean) => void;

const reconnectMilliseconds = 800;

/** The live stream: opens itself again whenever it breaks, and says so. */
class LiveStream {
  private socket: WebSocket | null = null;
  private readonly messages = new Set<MessageListener>();
  private readonly frames = new Set<FrameListener>();
  private readonly states = new Set<StateListener>();
  private watching: Extract<FromScreen, { type: 'watch' }> = {
    type: 'watch',
    investigation: null,
    stages: false,
  };

  open(): void {
    if (this.socket !== null) return;
    const scheme = location.protocol === 'https:' ? 'wss' : 'ws';
    const socket = new WebSocket(`${scheme}://${location.host}/live`);
    socket.binaryType = 'arraybuffer';
    this.socket = socket;
    socket.onopen = () => {
      this.send(this.watching);
      this.states.forEach((listener) => listener(true));
    };
    socket.onclose = () => {
      this.socket = null;
      this.states.forEach((listener) => listener(false));
      setTimeout(() => this.open(), reconnectMilliseconds);
    };
    socket.onmessage = ({ data }: MessageEvent<string | ArrayBuffer>) => {
      if (typeof data === 'string') {
        const message = toScreenSchema.parse(JSON.parse(data));
        this.messages.forEach((listener) => listener(message));
      } else {
        const frame = decodeFrame(new Uint8Array(data));
        this.frames.forEach((listener) => listener(frame));
      }
    };
  }

  watch(watching: { investigation?: string | null; stages?: boolean }): void {
    this.watching = { ...this.watching, ...watching };
    this.send(this.watching);
  }

  control(code: string, control: ControlAction): void {
    this.send({ type: 'control', code, control });
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

  private send(message: FromScreen): void {
    if (this.socket?.readyState === WebSocket.OPEN) this.socket.send(JSON.stringify(message));
  }
}

export const live = new LiveStream();
