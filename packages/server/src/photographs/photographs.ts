import { mostPhotographBytes, photographSide } from '@heuristor/contracts';
import { createWriteStream } from 'node:fs';
import { mkdtemp, open, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import PQueue from 'p-queue';
import { z } from 'zod';
import { Failure } from '../failure';
import { notMoreThan } from './notMoreThan';
import { saidByProcess } from './ownProcess';
import { pictureForm, refusedForm } from './pictureForm';

/** So many wait while one is made. */
const mostWaiting = 20;

const madeSchema = z.union([
  z.object({ width: z.number(), height: z.number() }),
  z.object({ refused: z.string() }),
]);

export interface MadePhotograph {
  content: Buffer;
  width: number;
  height: number;
}

/** Makes photographs of files that people send: one after the other, each in a process of its own. */
export class Photographs {
  private readonly row = new PQueue({ concurrency: 1 });

  /** @throws Failure that says why it cannot be taken */
  async take(sent: Readable): Promise<MadePhotograph> {
    if (this.row.size >= mostWaiting)
      throw new Failure('too-many-requests', 'Many photographs are waiting already. Try again in a moment.');
    const folder = await mkdtemp(join(tmpdir(), 'heuristor-photograph-'));
    try {
      const file = join(folder, 'sent');
      await pipeline(sent, notMoreThan(mostPhotographBytes, tooLargePhotograph), createWriteStream(file));
      await mustBePicture(file);
      return await this.row.add(() => makeIn(folder, file));
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  }
}

export const tooLargePhotograph = () =>
  new Failure(
    'too-large',
    `A photograph has ${mostPhotographBytes >> 20} MB at most. Make it smaller first.`,
  );

async function mustBePicture(file: string): Promise<void> {
  const handle = await open(file);
  const { buffer, bytesRead } = await handle.read(Buffer.alloc(64), 0, 64, 0);
  await handle.close();
  const refused =
    bytesRead === 0 ? 'This file is empty.' : refusedForm[pictureForm(buffer.subarray(0, bytesRead))];
  if (refused !== null) throw new Failure('unsupported', refused);
}

async function makeIn(folder: string, file: string): Promise<MadePhotograph> {
  const result = join(folder, 'made.jpg');
  const said = await saidByProcess('photographs/process', [file, result, String(photographSide)], {
    memory: 'This photograph takes more memory than there is for one. Make it smaller first.',
    time: 'This photograph took too long to be read. Make it smaller first.',
  });
  const parsed = madeSchema.safeParse(said);
  if (!parsed.success)
    throw new Failure('unsupported', 'This photograph cannot be read: what reads it ended over it.');
  if ('refused' in parsed.data) throw new Failure('unsupported', parsed.data.refused);
  return { content: await readFile(result), ...parsed.data };
}
