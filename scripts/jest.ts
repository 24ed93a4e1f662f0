import { spawn } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { setPriority } from 'node:os';
import { join } from 'node:path';
import { say } from './plain';

/** How many tests, or checks, passed and failed. */
export interface Tally {
  passed: number;
  failed: number;
}

interface JestRun {
  name: string;
  parts: string[];
  /** The folder for its report. */
  data: string;
  environment: Record<string, string>;
  ending: AbortSignal;
  /** It goes on beside another one: it leaves that the machine, and says what it says at its end. */
  isBeside?: boolean;
}

/** A run of Jest, counted test by test; a run that brings no report counts as one failure. */
export async function runJest({
  name,
  parts,
  data,
  environment,
  ending,
  isBeside = false,
}: JestRun): Promise<Tally> {
  if (!isBeside) say(`\n── ${name}`);
  const report = join(data, `${name}.json`);
  rmSync(report, { force: true });
  const program = [
    'node_modules/jest/bin/jest.js',
    ...parts,
    '--json',
    `--outputFile=${report}`,
    '--forceExit',
  ];
  const child = spawn(process.execPath, program, {
    stdio: ['ignore', 'ignore', 'pipe'],
    env: { ...process.env, ...environment },
    signal: ending,
  });
  child.on('error', () => undefined);
  if (isBeside && child.pid !== undefined) setPriority(child.pid, 10);
  let said = '';
  child.stderr.on('data', (text: Buffer) => {
    if (isBeside) said += text.toString();
    else process.stderr.write(text);
  });
  const status = await new Promise<number | null>((resolve) => child.once('close', resolve));
  if (isBeside) say(`\n── ${name}\n${said}`);
  if (!existsSync(report)) return { passed: 0, failed: 1 };
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(
    readFileSync(report, 'utf8'),
  ) as {
    numPassedTests: number;
    numFailedTests: number;
    numRuntimeErrorTestSuites: number;
  };
  const failed = numFailedTests + numRuntimeErrorTestSuites;
  return { passed: numPassedTests, failed: failed === 0 && status !== 0 ? 1 : failed };
}
