import { type ChildProcess, spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { rotatingLog } from './logFile';
import { PlainFault } from './plain';

/** A child of ours that is ended with SIGTERM, and with SIGKILL where that is not enough. */
export interface Service {
  child: ChildProcess;
  port: number;
  /** Settles when the child has ended, however. */
  ended: Promise<void>;
  stop(): Promise<void>;
}

const stopMilliseconds = 8000;

/** By this the programs that come with the server prove that they do; an address proves nothing behind a proxy. */
const secret = randomBytes(24).toString('base64url');
const linkOf = (port: number) => `ws://heuristor:${secret}@127.0.0.1:${port}/link`;

/**
 * The usual threshold of the C library, said expressly: otherwise it grows with the largest block that was ever freed, and the
 * memory of a large file would stay with the server that has read it. Other C libraries know nothing of this.
 */
const memory = { MALLOC_MMAP_THRESHOLD_: '131072', MALLOC_TRIM_THRESHOLD_: '131072' };

function start(script: string, environment: Record<string, string>, logFile: string): ChildProcess {
  const child = spawn(process.execPath, ['--enable-source-maps', script], {
    env: { ...memory, ...process.env, ...environment },
    stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
    // Out of the terminal's group, so that Ctrl-C ends things in order.
    detached: true,
  });
  const log = rotatingLog(logFile);
  for (const output of [child.stdout, child.stderr]) if (output !== null) log.take(output);
  child.once('exit', () => log.end());
  return child;
}

function serviceOf(child: ChildProcess, port: number): Service {
  const ended = new Promise<void>((resolve) => {
    if (child.exitCode !== null || child.signalCode !== null) resolve();
    else child.once('exit', () => resolve());
  });
  return {
    child,
    port,
    ended,
    async stop() {
      if (child.exitCode !== null || child.signalCode !== null) return;
      child.kill('SIGTERM');
      const force = setTimeout(() => child.kill('SIGKILL'), stopMilliseconds);
      await ended;
      clearTimeout(force);
    },
  };
}

/** Where a server listens. */
interface Listening {
  port: number;
  /** The door over TLS, where there is one. */
  secure: { port: number; fingerprint: string } | null;
}

/** Starts the server in a process of its own and waits until it listens. @throws PlainFault */
export async function startServer(
  database: string,
  port: number,
  data: string,
  settings: Record<string, string> = {},
): Promise<Service & Listening> {
  const logFile = join(data, 'server.log');
  const child = start(
    'packages/server/dist/main.js',
    {
      HEURISTOR_DATABASE: database,
      HEURISTOR_PORT: String(port),
      HEURISTOR_DATA: data,
      HEURISTOR_SECRET: secret,
      ...settings,
    },
    logFile,
  );
  let said = '';
  const listen = (chunk: Buffer) => (said += chunk.toString());
  child.stderr?.on('data', listen);
  const listening = await new Promise<Listening>((resolve, reject) => {
    child.once('message', (message) => resolve(message as Listening));
    child.once('exit', () =>
      reject(new PlainFault(sentenceIn(said) ?? `The server did not start. Its log is ${logFile}.`)),
    );
  });
  child.stderr?.off('data', listen);
  return { ...serviceOf(child, listening.port), secure: listening.secure };
}

/** The last line that is a sentence of ours rather than a stack. */
function sentenceIn(said: string): string | null {
  const lines = said.trim().split('\n');
  return lines.reverse().find((line) => /^(Port|Heuristor) .*[.]$/.test(line)) ?? null;
}

/** Starts the simulated sensors in a process of their own. */
export function startStandIns(port: number, data: string, settings: Record<string, string> = {}): Service {
  const child = start(
    'packages/stand-ins/dist/main.js',
    { HEURISTOR_LINK: linkOf(port), ...settings },
    join(data, 'stand-ins.log'),
  );
  return serviceOf(child, port);
}

/** Starts the bridge to microcontrollers on serial ports in a process of its own. */
export function startBridge(port: number, data: string, named = process.env.HEURISTOR_SERIAL ?? ''): Service {
  const child = start(
    'packages/bridge/dist/main.js',
    { HEURISTOR_LINK: linkOf(port), HEURISTOR_SERIAL: named },
    join(data, 'bridge.log'),
  );
  return serviceOf(child, port);
}
