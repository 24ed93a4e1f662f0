import { type Readable } from 'node:stream';
import { basename, dirname } from 'node:path';
import { type RotatingFileStream, createStream } from 'rotating-file-stream';

/** What waits to be written beyond this is left out: a log that cannot be written must not fill the memory. */
const mostWaiting = 1 << 20;
const retryMilliseconds = 5000;

export interface Log {
  /** Writes what comes from a program. The program never waits for it, also where nothing can be written. */
  take(output: Readable): void;
  end(): void;
}

/** A log that keeps its last few pieces and never grows beyond them. After a full disk or a removed folder it begins anew. */
export function rotatingLog(file: string): Log {
  let stream: RotatingFileStream | null = null;
  let brokenAt = -Infinity;
  let hasEnded = false;
  const open = () => {
    const made = createStream(basename(file), { path: dirname(file), size: '5M', maxFiles: 4 });
    made.on('error', () => {
      if (stream === made) stream = null;
      brokenAt = Date.now();
      made.destroy();
    });
    made.on('warning', () => undefined);
    return made;
  };
  return {
    take(output) {
      // Read whatever becomes of it: a program whose output nobody reads stands still in the middle of its work.
      output.on('data', (chunk: Buffer) => {
        if (stream === null && !hasEnded && Date.now() - brokenAt > retryMilliseconds) stream = open();
        if (stream !== null && stream.writableLength < mostWaiting) stream.write(chunk);
      });
    },
    end() {
      hasEnded = true;
      stream?.end();
      stream = null;
    },
  };
}
