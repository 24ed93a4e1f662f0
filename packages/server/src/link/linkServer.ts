import { FrameError, decodeFrame, frameKinds, fromDeviceSchema, type ToDevice } from '@heuristor/contracts';
import { type Logger } from 'pino';
import { type WebSocket, WebSocketServer } from 'ws';
import { type LinkedDevice } from './device';
import { type DeviceRegistry } from './registry';

const longestMessage = 1 << 20;
const helloMilliseconds = 5000;
const heartbeatMilliseconds = 5000;

/** The door for devices: checks every message, and shuts out what does not keep to the protocol without touching the others. */
export function createLinkServer(registry: DeviceRegistry, log: Logger): WebSocketServer {
  const server = new WebSocketServer({ noServer: true, maxPayload: longestMessage });
  server.on('connection', (socket: WebSocket) => serve(socket, registry, log));
  return server;
}

function serve(socket: WebSocket, registry: DeviceRegistry, log: Logger): void {
  let device: LinkedDevice | null = null;
  let greeting = false;
  let alive = true;
  const send = (message: ToDevice) => socket.send(JSON.stringify(message));
  const refuse = (code: string, message: string) => {
    log.warn({ device: device?.code, code }, message);
    send({ type: 'refused', code, message });
    socket.close(1008, code);
  };
  const impatience = setTimeout(
    () => refuse('no-hello', 'a device says hello within 5 seconds'),
    helloMilliseconds,
  );
  const heartbeat = setInterval(() => {
    if (!alive) {
      socket.terminate();
      return;
    }
    alive = false;
    socket.ping();
  }, heartbeatMilliseconds);
  socket.on('pong', () => (alive = true));
  socket.on('error', (error) => log.warn({ device: device?.code }, `device link: ${error.message}`));
  socket.on('close', () => {
    clearTimeout(impatience);
    clearInterval(heartbeat);
    if (device !== null) registry.leave(device);
  });

  const receiveText = async (text: string) => {
    let json: unknown;
    try {
      json = JSON.parse(text);
    } catch {
      refuse('malformed', 'a text message must be JSON');
      return;
    }
    const parsed = fromDeviceSchema.safeParse(json);
    if (!parsed.success) {
      const [issue] = parsed.error.issues;
      const isVersion = issue.path.join('.') === 'version';
      refuse(
        isVersion ? 'wrong-version' : 'malformed',
        `${issue.path.join('.') || 'message'}: ${issue.message}${isVersion ? ' (this server speaks version 1)' : ''}`,
      );
      return;
    }
    const message = parsed.data;
    if (message.type === 'scene') {
      if (device !== null) registry.emit('scene', device.code, message.values);
      return;
    }
    if (device !== null || greeting) {
      refuse('second-hello', 'a device says hello once on a connection');
      return;
    }
    greeting = true;
    clearTimeout(impatience);
    const arrived = await registry.arrive(message, send);
    if (arrived === null) {
      refuse('code-in-use', `a device with the code ${message.device.code} is on the link already`);
      return;
    }
    // The socket may have closed while the settings were read.
    if (socket.readyState === socket.OPEN) device = arrived;
    else registry.leave(arrived);
  };

  socket.on('message', (data, isBinary) => {
    alive = true;
    if (!isBinary) {
      receiveText(String(data)).catch((error: unknown) => {
        log.error(error);
        refuse('fault', 'the server could not read the settings of this device; try again');
      });
      return;
    }
    if (device === null) {
      refuse('no-hello', 'a device says hello before it sends samples');
      return;
    }
    try {
      const frame = decodeFrame(data as Buffer);
      if (frame.kind !== frameKinds.link)
        throw new FrameError(`frame kind must be 0 on the link, not ${frame.kind}`);
      if (frame.channels !== device.hello.channels.length)
        throw new FrameError(
          `this device has ${device.hello.channels.length} channels, the frame ${frame.channels}`,
        );
      registry.samples(device, frame);
    } catch (error) {
      if (!(error instanceof FrameError)) throw error;
      refuse('malformed', error.message);
    }
  });
}
