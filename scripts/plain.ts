/** A fault that people can do something about: printed as a sentence, without a stack. */
export class PlainFault extends Error {
  override readonly name = 'PlainFault';
}

export const say = (text: string): void => void process.stdout.write(`${text}\n`);

const sentences: Record<string, string> = {
  ENOSPC: 'The disk is full. Make room and start again.',
  EACCES: 'A file or folder may not be written',
  EROFS: 'The folder can only be read',
  ENOENT: 'A file or folder is missing',
};

/** What to say of an error: a sentence, never a stack. */
export function sentenceOf(error: unknown): string {
  if (error instanceof PlainFault) return error.message;
  if (!(error instanceof Error)) return String(error);
  const code = 'code' in error ? String(error.code) : '';
  const path = 'path' in error ? `: ${String(error.path)}` : '';
  const sentence = sentences[code];
  return sentence === undefined ? error.message.split('\n')[0] : `${sentence}${path}`;
}

const graceMilliseconds = 6000;

/**
 * Runs a script's work; a fault ends it with a sentence and status 1. Told to end, or left alone by whoever started it, it
 * aborts the signal that its work was given, by which a database and its like are ended too.
 */
export function runScript(work: (ending: AbortSignal) => Promise<void>): void {
  // A window that was closed takes no words any more; what runs is ended in order all the same.
  for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined);
  const ending = new AbortController();
  const end = () => {
    if (ending.signal.aborted) return;
    ending.abort();
    setTimeout(() => process.exit(130), graceMilliseconds);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, end);
  const parent = process.ppid;
  setInterval(() => {
    if (process.ppid !== parent) end();
  }, 500).unref();
  work(ending.signal).catch((error: unknown) => {
    process.stderr.write(`\n${sentenceOf(error)}\n`);
    if (process.env.HEURISTOR_STACK !== undefined && error instanceof Error)
      process.stderr.write(`${error.stack}\n`);
    process.exit(1);
  });
}
