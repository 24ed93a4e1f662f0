import { createServer } from 'node:net';

/** Whether a port on loopback can be listened on. */
export function portIsFree(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(false));
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)));
  });
}

/** The first free port from `from` on. @throws Error where none of a hundred is */
export async function freePort(from: number): Promise<number> {
  for (let port = from; port < from + 100; port++) if (await portIsFree(port)) return port;
  throw new Error(`no free port from ${from} to ${from + 99}`);
}
