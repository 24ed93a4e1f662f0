import {
  type Clock,
  FrameError,
  type SampleFrame,
  type ToDevice,
  decodeFrame,
  frameKinds,
  fromDeviceSchema,
  linkVersion,
} from '@heuristor/contracts';
import { type IncomingMessage } from 'node:http';
import { type Logger } from 'pino';
import { type WebSocket, WebSocketServer } from 'ws';
import { type Bus } from '../bus';
import { Budget } from './budget';
import { type LinkedDevice, type LinkedStream } from '../link/device';
import { type Presence } from './presence';
import { takeFrame } from '../link/reception';

const longestMessage = 1 << 20;
const helloMilliseconds = 5000;
const heartbeatMilliseconds = 5000;
const warningWindowMilliseconds = 60_000;
const mostWarnings = 20;
const longestWarning = 300;
/** Texts and frames of a device: a honest one stays far below, a faulty one must not keep everybody busy. */
const [textsPerSecond, textsAtOnce] = [60, 300];
const [framesPerSecond, framesAtOnce] = [500, 3000];
/** A device may send so many impossible readings before its connection is closed. */
const mostImpossible = 3;

interface Parts {
  presence: Presence;
  bus: Bus;
  clock: Clock;
  log: Logger;
}

type Warn = (about: object, text: string) => void;

/** The door for devices: checks every message, and shuts out what does not keep to the protocol without touching the others. */
export function createLinkServer({
  isOwn,
  ...parts
}: Parts & { isOwn: (request: IncomingMessage) => boolean }): WebSocketServer {
  const server = new WebSocketServer({ noServer: true, maxPayload: longestMessage });
  const warn = sparingly(parts.log);
  server.on('connection', (socket: WebSocket, request: IncomingMessage) =>
    serve(socket, { ...parts, warn, isOwn: isOwn(request) }),
  );
  return server;
}

/** Warnings at the pace of a person's reading, however fast a device is at fault: a log must not grow with bad input. */
function sparingly(log: Logger): Warn {
  let windowEnds = 0;
  let said = 0;
  let unsaid = 0;
  return (about, text) => {
    const now = Date.now();
    if (now > windowEnds) {
      if (unsaid > 0) log.warn(`device link: ${unsaid} more warnings were not written`);
      [windowEnds, said, unsaid] = [now + warningWindowMilliseconds, 0, 0];
    }
    if (said++ < mostWarnings) log.warn(about, text.slice(0, longestWarning));
    else unsaid++;
  };
}

function serve(
  socket: WebSocket,
  { presence, bus, clock, log, warn, isOwn }: Parts & { warn: Warn; isOwn: boolean },
): void {
  let device: LinkedDevice | null = null;
  let greeting = false;
  let alive = true;
  let refused = false;
  let impossible = 0;
  const texts = new Budget(textsPerSecond, textsAtOnce);
  const frames = new Budget(framesPerSecond, framesAtOnce);
  const send = (message: ToDevice) => socket.send(JSON.stringify(message));
  const refuse = (code: string, message: string) => {
    if (refused) return;
    refused = true;
    warn({ device: device?.code, code }, message);
    send({ type: 'refused', code, message });
    socket.close(1008, code);
  };
  /** An error that nobody expected ends this connection, and nothing else. */
  const fault = (error: unknown) => {
    log.error(
      { device: device?.code, error: String(error) },
      'An unexpected error closed the connection of a device',
    );
    refuse('fault', 'the server had an error with this device; connect again');
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
  socket.on('error', (error) => warn({ device: device?.code }, `device link: ${error.message}`));
  socket.on('close', () => {
    clearTimeout(impatience);
    clearInterval(heartbeat);
    if (device !== null) presence.leave(device, send);
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
        `${issue.path.join('.') || 'message'}: ${issue.message}${isVersion ? ` (this server speaks versions 1 to ${linkVersion})` : ''}`,
      );
      return;
    }
    const message = parsed.data;
    // Of one that has not been let in nothing is taken but that it is there.
    if (device?.waiting === true && message.type !== 'hello') return;
    if (message.type === 'scene') {
      if (device !== null) bus.emit('scene', device, message.values);
      return;
    }
    if (message.type === 'state') {
      const { battery, signal, remark, outputs = {} } = message;
      if (device !== null) presence.state(device, { battery, signal, remark }, outputs);
      return;
    }
    if (message.type === 'kept') {
      if (device !== null) bus.emit('kept', device, message);
      return;
    }
    if (device !== null || greeting) {
      refuse('second-hello', 'a device says hello once on a connection');
      return;
    }
    greeting = true;
    clearTimeout(impatience);
    const arrival = await presence.arrive(message, send, isOwn, refuse);
    switch (arrival.kind) {
      case 'code-in-use':
        refuse('code-in-use', `a device with the code ${message.device.code} is on the link already`);
        return;
      case 'full':
        refuse('too-many-devices', 'there are too many devices on the link; try again later');
        return;
      case 'wrong-key':
        refuse('wrong-key', `${message.device.code} was let in with a key, and this is not it`);
        return;
      case 'welcome':
        // The socket may have closed while the settings were read.
        if (socket.readyState === socket.OPEN) device = arrival.device;
        else presence.leave(arrival.device, send);
    }
  };

  socket.on('message', (data, isBinary) => {
    alive = true;
    if (refused) return;
    if (!(isBinary ? frames : texts).spend()) {
      refuse(
        'too-many-messages',
        `a device sends at most ${isBinary ? framesPerSecond : textsPerSecond} ${isBinary ? 'frames' : 'texts'} a second`,
      );
      return;
    }
    if (!isBinary) {
      receiveText(String(data)).catch(fault);
      return;
    }
    if (device === null) {
      refuse('no-hello', 'a device says hello before it sends samples');
      return;
    }
    try {
      receiveFrame(device, decodeFrame(data as Buffer));
    } catch (error) {
      if (error instanceof FrameError) refuse('malformed', error.message);
      else fault(error);
    }
  });

  const receiveFrame = (from: LinkedDevice, frame: SampleFrame) => {
    if (frame.kind === frameKinds.kept) {
      bus.emit('keptFrame', from, frame);
      return;
    }
    if (frame.kind !== frameKinds.link)
      throw new FrameError(`frame kind must be 0 or 3 on the link, not ${frame.kind}`);
    const stream = from.streams.find(({ sending }) => sending?.number === frame.subject);
    // What was on its way when its stream was stopped or begun anew is passed over.
    if (stream === undefined) return;
    checkFrame(stream, frame);
    if (takeFrame({ bus, clock }, stream, frame)) return;
    if (++impossible >= mostImpossible)
      refuse(
        'impossible-readings',
        'this device sends readings that cannot have been taken; check its clock',
      );
  };
}

/** Holds a frame against what the device has announced. @throws FrameError */
function checkFrame({ description }: LinkedStream, { channels, times, values }: SampleFrame): void {
  const { key, sampling, channels: announced } = description;
  if (channels !== announced.length)
    throw new FrameError(`stream ${key} has ${announced.length} channels, the frame ${channels}`);
  if ((times === null) !== (sampling === 'regular'))
    throw new FrameError(`stream ${key} announced ${sampling} samples, the frame holds others`);
  if (times?.some((time, i) => !(i === 0 ? Number.isFinite(time) : time > times[i - 1])))
    throw new FrameError('times must be finite and ascend');
  if (sampling === 'events' && values.some((state) => state !== 0 && state !== 1))
    throw new FrameError(`stream ${key} announced events, whose values are 0 and 1`);
}
