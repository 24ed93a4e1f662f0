/**
 * The one binary message of Heuristor, on the device link and on the live stream. Little endian:
 * byte 0 'H' (0x48), byte 1 version (1), byte 2 kind, byte 3 channels, 4–7 subject, 8–11 index of the first sample,
 * 12–15 samples, then samples × channels float64, all channels of a sample together. NaN is a reading that did not come.
 */
export interface SampleFrame {
  kind: FrameKind;
  /** Link: stream number. Live: handle of the device, or id of the channel of a run. */
  subject: number;
  firstIndex: number;
  channels: number;
  values: Float64Array;
}

export const frameKinds = { link: 0, device: 1, run: 2 } as const;
export type FrameKind = (typeof frameKinds)[keyof typeof frameKinds];

const magic = 0x48;
const version = 1;
const headerBytes = 16;

export class FrameError extends Error {
  override readonly name = 'FrameError';
}

export function encodeFrame({
  kind,
  subject,
  firstIndex,
  channels,
  values,
}: SampleFrame): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(headerBytes + values.length * 8);
  const view = new DataView(bytes.buffer);
  view.setUint8(0, magic);
  view.setUint8(1, version);
  view.setUint8(2, kind);
  view.setUint8(3, channels);
  view.setUint32(4, subject, true);
  view.setUint32(8, firstIndex, true);
  view.setUint32(12, values.length / channels, true);
  values.forEach((value, i) => view.setFloat64(headerBytes + i * 8, value, true));
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
  const kind = view.getUint8(2);
  if (kind !== 0 && kind !== 1 && kind !== 2) throw new FrameError(`frame kind ${kind} is not known`);
  const channels = view.getUint8(3);
  const count = view.getUint32(12, true);
  if (channels === 0 || count === 0)
    throw new FrameError('a frame needs at least one channel and one sample');
  if (bytes.length !== headerBytes + count * channels * 8)
    throw new FrameError(
      `${count} samples of ${channels} channels are ${headerBytes + count * channels * 8} bytes, not ${bytes.length}`,
    );
  const values = new Float64Array(count * channels);
  for (let i = 0; i < values.length; i++) values[i] = view.getFloat64(headerBytes + i * 8, true);
  return { kind, subject: view.getUint32(4, true), firstIndex: view.getUint32(8, true), channels, values };
}
