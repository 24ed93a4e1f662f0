import { type Readable } from 'node:stream';
import { finished } from 'node:stream/promises';
import { raw } from 'objection';
import { Failure } from '../failure';
import { StoredFileModel } from '../models/storedFile';
import { StoredPartModel } from '../models/storedPart';

const megabyte = 1024 * 1024;
/** Bytes of a part: large enough for speed, small enough that nobody notices the memory. */
const partBytes = megabyte;

export interface NewFile {
  id: string;
  /** What it is for; files of one purpose have their own bounds. */
  purpose: string;
  owner: string;
  investigationId: string;
  name: string;
  about: unknown;
}

/**
 * Stores bytes as they come; what breaks off, or is too much, leaves nothing behind. The rest of what is refused is read and dropped
 * before it is refused: a browser sends all of a file before it reads the answer, and would meet a broken connection in its place.
 * @param most bytes that it may have
 * @param alsoTo takes every part as it is stored, before the next one is taken; what it throws ends it
 * @throws Failure where it is too large
 */
export async function receiveFile(
  file: NewFile,
  body: Readable,
  most: number,
  alsoTo: (part: Buffer, bytesSoFar: number) => Promise<unknown> = () => Promise.resolve(),
): Promise<void> {
  await StoredFileModel.query().insert({ ...file, bytes: 0, whole: false });
  try {
    let part = 0;
    let bytes = 0;
    let gathered: Buffer[] = [];
    let length = 0;
    const flush = async () => {
      if (length === 0) return;
      const one = Buffer.concat(gathered);
      gathered = [];
      length = 0;
      await alsoTo(one, bytes);
      await StoredPartModel.query().insert({ fileId: file.id, part: part++, bytes: one });
    };
    for await (const chunk of body.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>) {
      bytes += chunk.length;
      if (bytes > most)
        throw new Failure(
          'too-large',
          `A file may have ${most / megabyte} MB; this one has more. Split it into several.`,
        );
      gathered.push(chunk);
      length += chunk.length;
      if (length >= partBytes) await flush();
    }
    await flush();
    await StoredFileModel.query().findById(file.id).patch({ bytes, whole: true, touchedAt: new Date() });
  } catch (error) {
    await removeFile(file.id).catch(() => undefined);
    await finished(body.resume()).catch(() => undefined);
    throw error;
  }
}

/** A file of a purpose, if all of it is there and somebody has brought it; undefined else. */
export const findFile = (purpose: string, owner: string, id: string): Promise<StoredFileModel | undefined> =>
  StoredFileModel.query().findById(id).where({ purpose, owner, whole: true }).execute();

/** The bytes of a file, part by part. */
export async function* bytesOfFile(id: string): AsyncGenerator<Buffer> {
  for (let part = 0; ; part++) {
    const found = await StoredPartModel.query().findById([id, part]);
    if (found === undefined) return;
    yield found.bytes;
  }
}

/** Files of a purpose, those that were touched longest ago first. */
export const filesFor = (purpose: string): Promise<StoredFileModel[]> =>
  StoredFileModel.query().where({ purpose }).orderBy('touchedAt').execute();

/** Somebody does something with a file; what is known about it may be another. */
export async function touchFile(id: string, about?: object): Promise<void> {
  await StoredFileModel.query()
    .findById(id)
    .patch({ touchedAt: new Date(), ...(about === undefined ? {} : { about }) });
}

export async function removeFile(id: string): Promise<void> {
  await StoredFileModel.query().deleteById(id);
}

/** Removes files of a purpose that nobody has touched for so long. */
export async function removeStaleFiles(purpose: string, minutes: number): Promise<void> {
  await StoredFileModel.query()
    .where({ purpose })
    .where('touchedAt', '<', raw(`now() - ? * interval '1 minute'`, [minutes]))
    .delete();
}
