import { mostFilmBytes } from '@heuristor/contracts';
import { createWriteStream } from 'node:fs';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import PQueue from 'p-queue';
import { z } from 'zod';
import { Failure } from '../failure';
import { notMoreThan } from '../photographs/notMoreThan';
import { saidByProcess } from '../photographs/ownProcess';

/** So many wait while one is read. */
const mostWaiting = 10;

const readSchema = z.union([
  z.object({ width: z.number(), height: z.number() }),
  z.object({ refused: z.string() }),
]);

export interface ReadFilm {
  content: Buffer;
  width: number;
  height: number;
}

export const tooLargeFilm = () =>
  new Failure('too-large', `A film has ${mostFilmBytes >> 20} MB at most. Cut it or make it smaller first.`);

/** Reads films that people send: one after the other, each in a process of its own. */
export class Films {
  private readonly row = new PQueue({ concurrency: 1 });

  /** @throws Failure that says why it cannot be taken */
  async take(sent: Readable): Promise<ReadFilm> {
    if (this.row.size >= mostWaiting)
      throw new Failure('too-many-requests', 'Many films are waiting already. Try again in a moment.');
    const folder = await mkdtemp(join(tmpdir(), 'heuristor-film-'));
    try {
      const file = join(folder, 'sent');
      await pipeline(sent, notMoreThan(mostFilmBytes, tooLargeFilm), createWriteStream(file));
      return await this.row.add(() => readIn(folder, file));
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  }
}

async function readIn(folder: string, file: string): Promise<ReadFilm> {
  const result = join(folder, 'film.mp4');
  const said = await saidByProcess('films/process', [file, result], {
    memory: 'This film takes more memory than there is for one. Make it smaller first.',
    time: 'This film took too long to be read. Make it shorter first.',
  });
  const parsed = readSchema.safeParse(said);
  if (!parsed.success)
    throw new Failure('unsupported', 'This film cannot be read: what reads it ended over it.');
  if ('refused' in parsed.data) throw new Failure('unsupported', parsed.data.refused);
  return { content: await readFile(result), ...parsed.data };
}
