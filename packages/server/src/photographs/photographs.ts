import { mostPhotographBytes, photographSide } from '@heuristor/contracts';
import { spawn } from 'node:child_process';
import { createWriteStream } from 'node:fs';
import { mkdtemp, open, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import PQueue from 'p-queue';
import { z } from 'zod';
import { Failure } from '../failure';
import { threadProgram } from '../threads';
import { pictureForm, refusedForm } from './pictureForm';

/** A process that makes a photograph takes so much memory and so long at most. */
const mostMemoryBytes = 400 << 20;
const mostMilliseconds = 60_000;
const watchMilliseconds = 25;
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
      await pipeline(sent, notMoreThan(mostPhotographBytes), createWriteStream(file));
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

function notMoreThan(most: number): Transform {
  let bytes = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      if (bytes > most) done(tooLargePhotograph());
      else done(null, chunk);
    },
  });
}

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
  const { filename, execArgv } = threadProgram('photographs/process');
  // What it may know of this server is where the file lies.
  const child = spawn(process.execPath, [...execArgv, filename, file, result, String(photographSide)], {
    stdio: ['ignore', 'pipe', 'ignore'],
    env: { PATH: process.env.PATH, MALLOC_ARENA_MAX: '2' },
  });
  let said = '';
  let ended: string | null = null;
  const end = (sentence: string) => {
    ended = sentence;
    child.kill('SIGKILL');
  };
  child.stdout.on('data', (part: Buffer) => (said += part.toString()));
  const watch = setInterval(() => {
    void memoryOf(child.pid).then((bytes) => {
      if (bytes > mostMemoryBytes)
        end('This photograph takes more memory than there is for one. Make it smaller first.');
    });
  }, watchMilliseconds);
  const timer = setTimeout(
    () => end('This photograph took too long to be read. Make it smaller first.'),
    mostMilliseconds,
  );
  await new Promise<void>((resolve) => {
    child.on('error', () => resolve());
    child.on('close', () => resolve());
  });
  clearInterval(watch);
  clearTimeout(timer);
  if (ended !== null) throw new Failure('unsupported', ended);
  const parsed = madeSchema.safeParse(jsonOf(said));
  if (!parsed.success)
    throw new Failure('unsupported', 'This photograph cannot be read: what reads it ended over it.');
  if ('refused' in parsed.data) throw new Failure('unsupported', parsed.data.refused);
  return { content: await readFile(result), ...parsed.data };
}

const jsonOf = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
};

/** The memory that a process has now, in bytes; 0 where that is not known. */
async function memoryOf(pid: number | undefined): Promise<number> {
  const status = await readFile(`/proc/${pid}/status`, 'utf8').catch(() => '');
  return Number(/VmRSS:\s*(\d+) kB/.exec(status)?.[1] ?? 0) * 1024;
}
