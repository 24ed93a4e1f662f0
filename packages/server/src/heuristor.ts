import { readFileSync } from 'node:fs';
import { createServer, type IncomingMessage, type Server } from 'node:http';
import { createServer as createTlsServer } from 'node:https';
import { type AddressInfo } from 'node:net';
import { type Duplex } from 'node:stream';
import { clockAt } from '@heuristor/contracts';
import { type Logger, pino } from 'pino';
import { createApp } from './app';
import { AwayRecorder } from './away/awayRecorder';
import { Access } from './auth/access';
import { type Certificate, fingerprintOf, ownCertificate } from './auth/certificate';
import { plainDoorOf } from './auth/plainDoor';
import { onlySchool } from './auth/signIn';
import { Bus } from './bus';
import { openDatabase } from './database';
import { DiskRoom, databaseFolder } from './diskRoom';
import { Evaluations } from './evaluation/evaluations';
import { DatabaseHealth } from './health';
import { Importer } from './imports/importer';
import { createLinkServer } from './presence/linkServer';
import { LiveServer } from './live/liveServer';
import { Presence } from './presence/presence';
import { Stages } from './presence/stages';
import { Recorder } from './recorder/recorder';
import { Recordings } from './recorder/recordings';
import { LeftBehind } from './processes/leftBehind';
import { OwnProcess } from './processes/ownProcess';
import { Queue } from './queue/queue';
import { Films } from './films/films';
import { Photographs } from './photographs/photographs';
import { joinNotebook } from './queue/joinNotebook';
import { tidyRun } from './queue/tidyRun';
import { workOut } from './queue/workOut';
import { Calibrations } from './sensors/calibrations';
import { Outputs } from './sensors/outputs';
import { SensorUses } from './sensors/sensorUses';
import { SenmlGateway } from './senml/gateway';
import { Pairings } from './senml/tokens';
import { UnderWay } from './services/underWay';
import { type Settings } from './settings';
import { SpotRecorder } from './spots/spotRecorder';

export interface Heuristor {
  port: number;
  /** The door over TLS, where there is one. */
  secure: { port: number; fingerprint: string } | null;
  recorder: Recorder;
  presence: Presence;
  bus: Bus;
  close(): Promise<void>;
}

/** @throws Error that names the setting at fault */
function accessBy({ proxies, secret }: Settings): Access {
  try {
    return new Access(proxies, secret);
  } catch (cause) {
    throw new Error(
      `HEURISTOR_PROXY is “${proxies.join(', ')}”; it takes addresses or subnets of proxies, such as 127.0.0.1 or 10.1.0.0/16.`,
      { cause },
    );
  }
}

/** The certificate of the door over TLS; null where there is none. @throws Error that names the file at fault */
async function certificateOf({ tls }: Settings): Promise<Certificate | null> {
  if (tls === null) return null;
  if ('folder' in tls.from) return ownCertificate(tls.from.folder);
  try {
    return { key: readFileSync(tls.from.key, 'utf8'), cert: readFileSync(tls.from.certificate, 'utf8') };
  } catch (cause) {
    throw new Error(
      `HEURISTOR_CERTIFICATE and HEURISTOR_KEY name files in PEM that can be read: ${cause instanceof Error ? cause.message : String(cause)}.`,
      { cause },
    );
  }
}

/**
 * The whole server: database, recorder, device link, live stream and web application.
 * @param isOwn whether a device came with this program, and so needs no letting in; by the secret that only such a one knows
 */
export async function startHeuristor(
  settings: Settings,
  log: Logger = pino({ level: settings.logLevel }),
  isOwn?: (request: IncomingMessage) => boolean,
): Promise<Heuristor> {
  const access = accessBy(settings);
  const certificate = await certificateOf(settings);
  const database = await openDatabase(settings.database);
  const health = new DatabaseHealth(settings.database);
  const room = new DiskRoom([settings.data, ...(await databaseFolder(database.general))]);
  const clock = clockAt(settings.pace);
  const bus = new Bus();
  const own = new OwnProcess({ storage: database.storage, bus, log });
  const process = own.id;
  const recordings = new Recordings();
  const evaluations = new Evaluations(settings.database, () => recordings.isBusy(), log);
  const queue = new Queue({
    kinds: [tidyRun({ bus }), workOut({ evaluations }), joinNotebook],
    bus,
    process,
    log,
  });
  const left = new LeftBehind({ bus, queue, log });
  const presence = new Presence({ school: (await onlySchool()).id, bus, clock, inRuns: recordings });
  const stages = new Stages({ bus, presence });
  const uses = new SensorUses({ presence, bus, clock, inRuns: recordings });
  const calibrations = new Calibrations({ presence, bus, inRuns: recordings });
  const outputs = new Outputs({ presence });
  const recorder = new Recorder({
    presence,
    bus,
    clock,
    recordings,
    queue,
    process,
    storage: database.storage,
    log,
  });
  const importer = new Importer({ bus, room, log });
  const spots = new SpotRecorder({ presence, outputs, bus, clock, log });
  const away = new AwayRecorder({ presence, bus, clock, log });
  const senml = new SenmlGateway({ presence, bus, clock });
  const live = new LiveServer({ bus, presence, stages, recorder, health, room, access, log });
  const underWay = new UnderWay({ bus, process, log });
  const link = createLinkServer({
    presence,
    bus,
    clock,
    log,
    isOwn: isOwn ?? ((request) => access.isOwnProgram(request)),
  });
  let secure: Heuristor['secure'] = null;
  const fingerprint = certificate === null ? '' : fingerprintOf(certificate.cert);
  const app = createApp({
    access,
    plainDoor:
      certificate === null ? null : plainDoorOf(access, { port: () => secure?.port ?? 0, fingerprint }),
    health,
    bus,
    presence,
    stages,
    uses,
    calibrations,
    outputs,
    recorder,
    spots,
    away,
    importer,
    evaluations,
    queue,
    photographs: new Photographs(),
    films: new Films(),
    senml,
    pairings: new Pairings(),
    live,
    log,
    web: settings.web,
  });
  const server = createServer(app);
  const tlsServer = certificate === null ? null : createTlsServer(certificate, app);
  live.attach(server, tlsServer);

  const turnAway = (socket: Duplex, status: string) => {
    socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\n\r\n`);
  };
  const upgrade = (request: IncomingMessage, socket: Duplex, head: Buffer) => {
    socket.on('error', () => socket.destroy());
    const path = (request.url ?? '').split('?')[0];
    if (path === '/link') {
      // Browsers always say their origin and devices never do: no web page can pose as a sensor.
      if (request.headers.origin !== undefined) turnAway(socket, '403 Forbidden');
      else link.handleUpgrade(request, socket, head, (client) => link.emit('connection', client, request));
    } else if (!path.startsWith('/live')) turnAway(socket, '404 Not Found');
  };

  await own.begin();
  await left.seeTo();
  const listen = (one: Server, port: number) =>
    new Promise<number>((resolve, reject) => {
      one.on('upgrade', upgrade);
      one.once('error', reject);
      one.listen(port, settings.host, () => resolve((one.address() as AddressInfo).port));
    });
  const port = await listen(server, settings.port);
  if (tlsServer !== null && settings.tls !== null)
    secure = { port: await listen(tlsServer, settings.tls.port), fingerprint };
  const ended = (one: Server | null) =>
    new Promise((resolve) => {
      if (one === null) resolve(null);
      else {
        one.closeAllConnections();
        one.close(resolve);
      }
    });
  return {
    port,
    secure,
    recorder,
    presence,
    bus,
    async close() {
      await underWay.close();
      spots.close();
      away.close();
      senml.close();
      await recorder.close();
      await Promise.all([importer.close(), queue.close()]);
      await evaluations.close();
      await own.close();
      for (const client of link.clients) client.terminate();
      await live.close();
      await Promise.all([ended(server), ended(tlsServer)]);
      room.close();
      await health.close();
      // A database that hangs keeps its connections; they end with the process.
      await Promise.race([database.close(), new Promise((resolve) => setTimeout(resolve, 1500).unref())]);
    },
  };
}
