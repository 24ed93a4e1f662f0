import { createServer, type IncomingMessage } from 'node:http';
import { type AddressInfo } from 'node:net';
import { type Duplex } from 'node:stream';
import { type Logger, pino } from 'pino';
import { createApp } from './app';
import { cookieOf } from './auth/guard';
import { teacherOfCookie } from './auth/signIn';
import { openDatabase } from './database';
import { createLinkServer } from './link/linkServer';
import { DeviceRegistry } from './link/registry';
import { LiveServer } from './live/liveServer';
import { Recorder } from './recorder/recorder';
import { markInterruptedRuns } from './services/runs';
import { type Settings } from './settings';

export interface Heuristor {
  port: number;
  recorder: Recorder;
  registry: DeviceRegistry;
  close(): Promise<void>;
}

/** The whole server: database, recorder, device link, live stream and web application, on loopback. */
export async function startHeuristor(
  settings: Settings,
  log: Logger = pino({ level: settings.logLevel }),
): Promise<Heuristor> {
  const knex = await openDatabase(settings.database);
  const interrupted = await markInterruptedRuns();
  if (interrupted > 0) log.warn(`${interrupted} run(s) had been interrupted; they are marked as such`);
  const registry = new DeviceRegistry();
  const recorder = new Recorder(registry, log);
  const live = new LiveServer(registry, recorder, log);
  const link = createLinkServer(registry, log);
  const server = createServer(createApp({ registry, recorder, live, log, web: settings.web }));

  const turnAway = (socket: Duplex, status: string) => {
    socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\n\r\n`);
  };
  server.on('upgrade', (request: IncomingMessage, socket: Duplex, head: Buffer) => {
    socket.on('error', () => socket.destroy());
    const path = (request.url ?? '').split('?')[0];
    const { origin, host } = request.headers;
    if (path === '/link') {
      // Browsers always say their origin and devices never do: no web page can pose as a sensor.
      if (origin !== undefined) turnAway(socket, '403 Forbidden');
      else link.handleUpgrade(request, socket, head, (client) => link.emit('connection', client, request));
    } else if (path === '/live') {
      if (origin !== undefined && origin !== `http://${host}`) {
        turnAway(socket, '403 Forbidden');
        return;
      }
      teacherOfCookie(cookieOf(request))
        .then((teacher) => {
          if (teacher === null) turnAway(socket, '401 Unauthorized');
          else
            live.server.handleUpgrade(request, socket, head, (client) =>
              live.server.emit('connection', client, request),
            );
        })
        .catch(() => turnAway(socket, '503 Service Unavailable'));
    } else turnAway(socket, '404 Not Found');
  });

  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(settings.port, '127.0.0.1', resolve);
  });
  return {
    port: (server.address() as AddressInfo).port,
    recorder,
    registry,
    async close() {
      await recorder.close();
      for (const sockets of [link, live.server]) for (const client of sockets.clients) client.terminate();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await knex.destroy();
    },
  };
}
