import { createServer, type IncomingMessage } from 'node:http';
import { type AddressInfo } from 'node:net';
import { type Duplex } from 'node:stream';
import { type Logger, pino } from 'pino';
import { createApp } from './app';
import { AwayDesk } from './away/awayDesk';
import { openDatabase } from './database';
import { DatabaseHealth } from './health';
import { Importer } from './imports/importer';
import { createLinkServer } from './link/linkServer';
import { DeviceRegistry } from './link/registry';
import { LiveServer } from './live/liveServer';
import { Recorder } from './recorder/recorder';
import { SenmlGateway } from './senml/gateway';
import { Pairings } from './senml/tokens';
import { markInterruptedRuns } from './services/runs';
import { type Settings } from './settings';
import { SpotDesk } from './spots/spotDesk';

export interface Heuristor {
  port: number;
  recorder: Recorder;
  registry: DeviceRegistry;
  close(): Promise<void>;
}

/** Whether a connection comes from this machine itself. */
const isFromHere = ({ socket }: IncomingMessage): boolean => {
  const address = socket.remoteAddress ?? '';
  return address === '::1' || /^(::ffff:)?127\./.test(address);
};

/**
 * The whole server: database, recorder, device link, live stream and web application.
 * @param isLocal whether a device is on this machine, and so needs no letting in
 */
export async function startHeuristor(
  settings: Settings,
  log: Logger = pino({ level: settings.logLevel }),
  isLocal: (request: IncomingMessage) => boolean = isFromHere,
): Promise<Heuristor> {
  const database = await openDatabase(settings.database);
  const interrupted = await markInterruptedRuns();
  if (interrupted > 0) log.warn(`${interrupted} run(s) had been interrupted; they are marked as such`);
  const health = new DatabaseHealth(settings.database);
  const registry = new DeviceRegistry();
  const recorder = new Recorder(registry, database.storage, log);
  const importer = new Importer(log);
  const spots = new SpotDesk(registry, log);
  const away = new AwayDesk(registry, log);
  const senml = new SenmlGateway(registry);
  const live = new LiveServer(registry, recorder, health, log);
  away.on('run', (run) => live.broadcast({ type: 'run', run }, run.investigationId));
  away.on('fault', (investigation, sentence) =>
    live.broadcast({ type: 'fault', investigation, sentence }, investigation),
  );
  spots.on('run', (run) => live.broadcast({ type: 'run', run }, run.investigationId));
  spots.on('status', (investigation, status) =>
    live.broadcast({ type: 'spots', investigation, status }, investigation),
  );
  spots.on('broken', (investigation, sentence) =>
    live.broadcast({ type: 'fault', investigation, sentence }, investigation),
  );
  importer.on('changed', (investigation, state) =>
    live.broadcast({ type: 'import', import: state }, investigation),
  );
  importer.on('run', (run) => live.broadcast({ type: 'run', run }, run.investigationId));
  const link = createLinkServer(registry, log, isLocal);
  const server = createServer(
    createApp({
      health,
      importer,
      registry,
      recorder,
      spots,
      away,
      senml,
      pairings: new Pairings(),
      live,
      log,
      web: settings.web,
    }),
  );
  live.attach(server);

  const turnAway = (socket: Duplex, status: string) => {
    socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\n\r\n`);
  };
  server.on('upgrade', (request: IncomingMessage, socket: Duplex, head: Buffer) => {
    socket.on('error', () => socket.destroy());
    const path = (request.url ?? '').split('?')[0];
    if (path === '/link') {
      // Browsers always say their origin and devices never do: no web page can pose as a sensor.
      if (request.headers.origin !== undefined) turnAway(socket, '403 Forbidden');
      else link.handleUpgrade(request, socket, head, (client) => link.emit('connection', client, request));
    } else if (!path.startsWith('/live')) turnAway(socket, '404 Not Found');
  });

  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(settings.port, settings.host, resolve);
  });
  return {
    port: (server.address() as AddressInfo).port,
    recorder,
    registry,
    async close() {
      spots.close();
      away.close();
      senml.close();
      await recorder.close();
      await importer.close();
      for (const client of link.clients) client.terminate();
      await live.close();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await health.close();
      // A database that hangs keeps its connections; they end with the process.
      await Promise.race([database.close(), new Promise((resolve) => setTimeout(resolve, 1500).unref())]);
    },
  };
}
