import { mostFilmSeconds } from '@heuristor/contracts';
import { type Box, type ISOFile, MP4BoxBuffer, createFile } from 'mp4box';
import { readFile, writeFile } from 'node:fs/promises';

/**
 * What a film says of where, when and by whom it was made, and room in which anything may stand; it is laid over with nothing. ISO/IEC
 * 14496-12, 8.10 and 8.11, 8.1.2 (free, skip) and 8.16.5 (prft).
 */
const telling = new Set(['udta', 'meta', 'uuid', 'loci', 'ilst', 'keys', 'free', 'skip', 'emsg', 'prft']);
/** Boxes that begin with when they were made and changed: 4 bytes each, or 8 in version 1 (ISO/IEC 14496-12, 8.2.2, 8.3.2, 8.4.2). */
const dated = new Set(['mvhd', 'tkhd', 'mdhd']);

type Read = { width: number; height: number } | { refused: string };

/**
 * A film (MP4, MOV) without what it says of where, when and by whom it was made: those parts, and tracks that are neither picture nor sound,
 * are filled with zeros, so that everything else stays where it is.
 */
export async function cleanFilm(from: string, to: string): Promise<Read> {
  const bytes = await readFile(from);
  if (bytes.subarray(4, 8).toString('latin1') !== 'ftyp')
    return { refused: 'This is no film that can be read here: MP4 and MOV can. Save it as MP4 first.' };
  const file = opened(bytes);
  const info = file?.moov === undefined ? null : file.getInfo();
  const [picture] = info?.videoTracks ?? [];
  if (file === null || info === null || picture === undefined)
    return { refused: 'There is no moving picture in this file, or it ends too soon. Save it as MP4 anew.' };
  const seconds = info.timescale > 0 ? info.duration / info.timescale : 0;
  if (seconds > mostFilmSeconds)
    return {
      refused: `This film lasts ${Math.round(seconds)} s; ${mostFilmSeconds} s at most are kept. Cut it first.`,
    };
  const kept = new Set([...info.videoTracks, ...info.audioTracks].map(({ id }) => id));
  for (const { id } of info.tracks)
    if (!kept.has(id))
      for (const { offset, size } of file.getTrackSamplesInfo(id)) bytes.fill(0, offset, offset + size);
  for (const box of file.boxes) cleanBox(bytes, box);
  await writeFile(to, bytes);
  const { width, height } = picture.video ?? { width: picture.track_width, height: picture.track_height };
  return { width, height };
}

function opened(bytes: Buffer): ISOFile | null {
  const file = createFile();
  let isBad = false;
  file.onError = () => (isBad = true);
  const copy = new Uint8Array(bytes).buffer;
  try {
    file.appendBuffer(MP4BoxBuffer.fromArrayBuffer(copy, 0), true);
    file.flush();
  } catch {
    return null;
  }
  return isBad ? null : file;
}

/** Fills what tells something with zeros, in a box and in those within it. */
function cleanBox(bytes: Buffer, box: Box): void {
  const { start = 0, size, type } = box;
  const past = Math.min(start + size, bytes.length);
  // A size of 1 says that the true one follows, in 8 bytes (4.2).
  const content = start + (bytes.readUInt32BE(start) === 1 ? 16 : 8);
  if (type !== undefined && telling.has(type)) {
    bytes.write('free', start + 4, 'latin1');
    bytes.fill(0, Math.min(content, past), past);
    return;
  }
  if (type !== undefined && dated.has(type)) {
    const length = bytes[content] === 1 ? 8 : 4;
    bytes.fill(0, content + 4, Math.min(content + 4 + 2 * length, past));
  }
  for (const inner of box.boxes ?? []) cleanBox(bytes, inner);
}
