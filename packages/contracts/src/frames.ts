/**
 * The one binary message of Heuristor, on the device link and on the live stream. Little endian:
 * byte 0 'H' (0x48), byte 1 version (1), byte 2 kind in its lower half and sampling in its upper one, byte 3 channels,
 * 4–7 subject, 8–11 index of the first sample, 12–15 samples; then, for timed samples and events, their times in seconds as
 * float64; then samples × channels float64, all channels of a sample together. NaN is a reading that did not come.
 */
export interface SampleFrame {
  kind: FrameKind;
  /**
   * Link: stream number, or of what a device has kept the id of the run. Live: handle of the device, or id of the channel of a
   * run.
   */
  subject: number;
  firstIndex: number;
  channels: number;
  values: Float64Array;
  /** Times of the samples in seconds: since the stream began on the link, since the run began on the live stream; null where they are regular. */
  times: Float64Array | null;
}

export const frameKinds = { link: 0, device: 1, run: 2, kept: 3 } as const;
export type FrameKind = (typeof frameKinds)[keyof typeof frameKinds];

const magic = 0x48;
const version = 1;
const headerBytes = 16;
const timedFlag = 0x10;

const bytesOf = ({ buffer, byteOffset, byteLength }: Float64Array) =>
  new Uint8Array(buffer, byteOffset, byteLength);

export class FrameError extends Error {
  override readonly name = 'FrameError';
}

export function encodeFrame({
  kind,
  subject,
  firstIndex,
  channels,
  values,
  times,
}: SampleFrame): Uint8Array<ArrayBuffer> {
  const timesBytes = times === null ? 0 : times.byteLength;
  const bytes = new Uint8Array(headerBytes + timesBytes + values.byteLength);
  const view = new DataView(bytes.buffer);
  view.setUint8(0, magic);
  view.setUint8(1, version);
  view.setUint8(2, kind | (times === null ? 0 : timedFlag));
  view.setUint8(3, channels);
  view.setUint32(4, subject, true);
  view.setUint32(8, firstIndex, true);
  view.setUint32(12, values.length / channels, true);
  if (times !== null) bytes.set(bytesOf(times), headerBytes);
  bytes.set(bytesOf(values), headerBytes + timesBytes);
  return bytes;
}

/** @throws FrameError that names the fault */
export function decodeFrame(bytes: Uint8Array): SampleFrame {
  if (bytes.length < headerBytes)
    throw new FrameError(`a frame has at least ${headerBytes} bytes, not ${bytes.length}`);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (view.getUint8(0) !== magic)
    throw new FrameError(`byte 0 must be 0x48, not 0x${view.getUint8(0).toString(16)}`);
  if (view.getUint8(1) !== version)
    throw new FrameError(`frame version ${view.getUint8(1)} is not known; use ${version}`);
  const isTimed = (view.getUint8(2) & timedFlag) !== 0;
  const kind = view.getUint8(2) & ~timedFlag;
  if (kind !== 0 && kind !== 1 && kind !== 2 && kind !== 3)
    throw new FrameError(`frame kind ${kind} is not known`);
  const channels = view.getUint8(3);
  const count = view.getUint32(12, true);
  if (channels === 0 || count === 0)
    throw new FrameError('a frame needs at least one channel and one sample');
  const numbers = count * (channels + Number(isTimed));
  if (bytes.length !== headerBytes + numbers * 8)
    throw new FrameError(
      `${count} samples of ${channels} channels are ${headerBytes + numbers * 8} bytes, not ${bytes.length}`,
    );
  // Copied to where a Float64Array may begin. Every machine that runs Node or a browser is little endian.
  // Not bytes.slice(): that of a Node buffer does not copy.
  const body = new Float64Array(Uint8Array.prototype.slice.call(bytes, headerBytes).buffer);
  const times = isTimed ? body.subarray(0, count) : null;
  const values = isTimed ? body.subarray(count) : body;
  return {
    kind,
    subject: view.getUint32(4, true),
    firstIndex: view.getUint32(8, true),
    channels,
    values,
    times,
  };
}

/** Several frames one after the other, as one message. */
export function joinFrames(frames: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const joined = new Uint8Array(frames.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const frame of frames) {
    joined.set(frame, at);
    at += frame.length;
  }
  return joined;
}

/** The frames of a message that holds several. @throws FrameError that names the fault */
export function decodeFrames(bytes: Uint8Array): SampleFrame[] {
  const frames: SampleFrame[] = [];
  for (let at = 0; at < bytes.length;) {
    if (bytes.length - at < headerBytes) throw new FrameError(`a frame has at least ${headerBytes} bytes`);
    const view = new DataView(bytes.buffer, bytes.byteOffset + at, headerBytes);
    const numbers =
      view.getUint32(12, true) * (view.getUint8(3) + Number((view.getUint8(2) & timedFlag) !== 0));
    const end = at + headerBytes + numbers * 8;
    frames.push(decodeFrame(bytes.subarray(at, end)));
    at = end;
  }
  return frames;
}
