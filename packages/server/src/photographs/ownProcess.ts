import { spawn } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { Failure } from '../failure';
import { threadProgram } from '../threads';

/** A process that reads what somebody has sent takes so much memory and so long at most. */
const mostMemoryBytes = 400 << 20;
const mostMilliseconds = 60_000;
const watchMilliseconds = 25;

/**
 * Lets a program of ours read a file of somebody's in a process of its own, which is ended where it takes too much.
 * @param tooMuch what is said where it takes too much memory or too long
 * @returns what it has said, as JSON; null where it said nothing that can be read
 * @throws Failure where it was ended
 */
export async function saidByProcess(
  program: string,
  args: readonly string[],
  tooMuch: { memory: string; time: string },
): Promise<unknown> {
  const { filename, execArgv } = threadProgram(program);
  // What it may know of this server is where the file lies.
  const child = spawn(process.execPath, [...execArgv, filename, ...args], {
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
      if (bytes > mostMemoryBytes) end(tooMuch.memory);
    });
  }, watchMilliseconds);
  const timer = setTimeout(() => end(tooMuch.time), mostMilliseconds);
  await new Promise<void>((resolve) => {
    child.on('error', () => resolve());
    child.on('close', () => resolve());
  });
  clearInterval(watch);
  clearTimeout(timer);
  if (ended !== null) throw new Failure('unsupported', ended);
  return jsonOf(said);
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
