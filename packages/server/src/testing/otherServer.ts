import { type ChildProcess, spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { issueLinkToken } from '../auth/signIn';
import { type Signed, signedOn } from './testServer';

/** A server in a process of its own, on a database that others use too. */
export interface OtherServer extends Signed {
  port: number;
  /** Where a device that came with it connects. */
  link: string;
  child: ChildProcess;
  ended: Promise<unknown>;
}

/** Starts one, as it was built, and signs in on it; whoever starts it ends it by a signal. */
export async function startOtherServer(database: string): Promise<OtherServer> {
  const secret = randomBytes(16).toString('hex');
  const child = spawn(process.execPath, ['--enable-source-maps', 'packages/server/dist/main.js'], {
    env: {
      ...process.env,
      HEURISTOR_DATABASE: database,
      HEURISTOR_PORT: '0',
      HEURISTOR_SECRET: secret,
      HEURISTOR_LOG_LEVEL: 'error',
    },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  const ended = new Promise((resolve) => child.once('exit', resolve));
  const port = await new Promise<number>((resolve, reject) => {
    child.once('message', (message) => resolve((message as { port: number }).port));
    child.once('exit', () => reject(new Error('the other server did not start')));
  });
  return {
    port,
    link: `ws://heuristor:${secret}@127.0.0.1:${port}/link`,
    child,
    ended,
    ...(await signedOn(port, await issueLinkToken())),
  };
}
