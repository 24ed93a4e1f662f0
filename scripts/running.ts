import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { readKept, writeKept } from './keptFile';
import { PlainFault } from './plain';

const runningSchema = z.object({ pid: z.number().int(), address: z.string().nullable() });

const fileIn = (data: string) => join(data, 'running.json');

/** The Heuristor that runs on a data folder, or null. */
export function runningOn(data: string): z.infer<typeof runningSchema> | null {
  const kept = readKept(fileIn(data), runningSchema);
  return kept !== null && isOurs(kept.pid) ? kept : null;
}

/**
 * Says that this process runs on a data folder. Of two that start at the same moment one is refused.
 * @throws PlainFault where another one runs on it
 */
export function takeFolder(data: string): { at(address: string): void; release(): void } {
  const file = fileIn(data);
  const refuse = () => {
    const other = runningOn(data);
    if (other !== null && other.pid !== process.pid)
      throw new PlainFault(
        `Heuristor is running already${other.address === null ? '' : ` at ${other.address}`} (process ${other.pid}). Use that one, or end it with Ctrl-C in its window.`,
      );
  };
  refuse();
  rmSync(file, { force: true });
  try {
    writeFileSync(file, JSON.stringify({ pid: process.pid, address: null }), { flag: 'wx', mode: 0o600 });
  } catch {
    refuse();
  }
  return {
    at: (address) => writeKept(file, { pid: process.pid, address }),
    release: () => rmSync(file, { force: true }),
  };
}

function isOurs(pid: number): boolean {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('demo.ts');
  } catch {
    return false;
  }
}
