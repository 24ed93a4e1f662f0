import { basename, dirname } from 'node:path';
import { type RotatingFileStream, createStream } from 'rotating-file-stream';

/** A log that keeps its last few pieces and never grows beyond them. */
export function rotatingLog(file: string): RotatingFileStream {
  const log = createStream(basename(file), { path: dirname(file), size: '5M', maxFiles: 4 });
  // A full disk or a removed folder must not end what is logged.
  log.on('error', () => undefined);
  log.on('warning', () => undefined);
  return log;
}
