import { type ChildProcess, spawn } from 'node:child_process';
import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { PlainFault } from './plain';

/** A child of ours that is ended with SIGTERM, and with SIGKILL where that is not enough. */
export interface Service {
  child: ChildProcess;
  port: number;
  stop(): Promise<void>;
}

function start(script: string, environment: Record<string, string>, logFile: string): ChildProcess {
  const child = spawn(process.execPath, ['--import', 'tsx', script], {
    env: { ...process.env, ...environment },
    stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
    // Out of the terminal's group, so that Ctrl-C ends things in order.
    detached: true,
  });
  const log = createWriteStream(logFile, { flags: 'a' });
  child.stdout?.pipe(log, { end: false });
  child.stderr?.pipe(log, { end: false });
  return child;
}

async function stopChild(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  child.kill('SIGTERM');
  const force = setTimeout(() => child.kill('SIGKILL'), 5000);
  await ended;
  clearTimeout(force);
}

/** Starts the server in a process of its own and waits until it listens. @throws PlainFault */
export async function startServer(database: string, port: number, data: string): Promise<Service> {
  const logFile = join(data, 'server.log');
  const child = start(
    'packages/server/src/main.ts',
    { HEURISTOR_DATABASE: database, HEURISTOR_PORT: String(port) },
    logFile,
  );
  let said = '';
  child.stderr?.on('data', (chunk: Buffer) => (said += chunk.toString()));
  const listening = await new Promise<number>((resolve, reject) => {
    child.once('message', (message) => resolve((message as { port: number }).port));
    child.once('exit', () =>
      reject(new PlainFault(said.trim() || `The server did not start. Its log is ${logFile}.`)),
    );
  });
  return { child, port: listening, stop: () => stopChild(child) };
}

/** Starts the simulated sensors in a process of their own. */
export function startStandIns(port: number, data: string): Service {
  const child = start(
    'packages/stand-ins/src/main.ts',
    { HEURISTOR_LINK: `ws://127.0.0.1:${port}/link` },
    join(data, 'stand-ins.log'),
  );
  return { child, port, stop: () => stopChild(child) };
}
