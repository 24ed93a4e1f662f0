import { readFileSync, readdirSync } from 'node:fs';

const ticksPerSecond = 100;

/** Memory of a process, in megabytes. */
export const residentMegabytes = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;

/** The process that started another one. */
export const parentOf = (pid: string): string =>
  readFileSync(`/proc/${pid}/stat`, 'utf8')
    .replace(/^.*\) /, '')
    .split(' ')[1];

/** Processor time of all processes that a test lets through, by their number, in seconds. */
export function processorSeconds(isWanted: (pid: string) => boolean): number {
  let sum = 0;
  for (const entry of readdirSync('/proc').filter((name) => /^\d+$/.test(name)))
    try {
      if (!isWanted(entry)) continue;
      const fields = readFileSync(`/proc/${entry}/stat`, 'utf8')
        .replace(/^.*\) /, '')
        .split(' ');
      sum += (Number(fields[11]) + Number(fields[12])) / ticksPerSecond;
    } catch {
      // It has ended in the meantime.
    }
  return sum;
}
