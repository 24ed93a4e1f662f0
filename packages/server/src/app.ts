import { type ErrorBody } from '@heuristor/contracts';
import express, { type ErrorRequestHandler, type Express, type RequestHandler, type Response } from 'express';
import helmet from 'helmet';
import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { type Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { type Access } from './auth/access';
import { type Bus } from './bus';
import { ownPagesOnly, signedInOnly } from './auth/guard';
import { type Evaluations } from './evaluation/evaluations';
import { Failure } from './failure';
import { type DatabaseHealth } from './health';
import { type Importer } from './imports/importer';
import { type LiveServer } from './live/liveServer';
import { type Presence } from './presence/presence';
import { type Stages } from './presence/stages';
import { type Calibrations } from './sensors/calibrations';
import { type Outputs } from './sensors/outputs';
import { type SensorUses } from './sensors/sensorUses';
import { type AwayRecorder } from './away/awayRecorder';
import { type Films } from './films/films';
import { type Photographs } from './photographs/photographs';
import { type Queue } from './queue/queue';
import { type Recorder } from './recorder/recorder';
import { type SenmlGateway } from './senml/gateway';
import { type Pairings } from './senml/tokens';
import { type SpotRecorder } from './spots/spotRecorder';
import { teachersOnly } from './routes/allowed';
import { awayRoutes } from './routes/away';
import { deviceRoutes } from './routes/devices';
import { importRoutes } from './routes/imports';
import { investigationRoutes } from './routes/investigations';
import { jobRoutes, workOutRoutes } from './routes/jobs';
import { guideRoutes } from './routes/guides';
import { notebookRoutes } from './routes/notebooks';
import { manyOutcomesRoutes, outcomeRoutes } from './routes/outcomes';
import { channelRoutes, runRoutes } from './routes/runs';
import { deviceTokenRoutes, senmlRoutes } from './routes/senml';
import { signInRoutes } from './routes/signIn';
import { stopRoute } from './routes/stop';
import { templateRoutes } from './routes/templates';

/** What the routes work with; each takes what it needs by its name. */
export interface Parts {
  access: Access;
  /** What is answered over plain HTTP from elsewhere, where there is a door over TLS; null where there is none. */
  plainDoor: RequestHandler | null;
  health: DatabaseHealth;
  bus: Bus;
  presence: Presence;
  stages: Stages;
  uses: SensorUses;
  calibrations: Calibrations;
  outputs: Outputs;
  recorder: Recorder;
  spots: SpotRecorder;
  away: AwayRecorder;
  importer: Importer;
  evaluations: Evaluations;
  queue: Queue;
  photographs: Photographs;
  films: Films;
  senml: SenmlGateway;
  pairings: Pairings;
  live: LiveServer;
  log: Logger;
  web: string;
}

export function createApp(parts: Parts): Express {
  const { access, plainDoor, health, log, web } = parts;
  const app = express();
  app.disable('x-powered-by');
  // Whose word on where a request comes from is believed: that of the proxies that are named.
  app.set('trust proxy', [...access.proxies]);
  app.use(pinoHttp({ logger: log, useLevel: 'debug' }));
  const headers = {
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'"],
        styleSrc: ["'self'"],
        // React and the chart set sizes as style attributes through the DOM, which this does not concern.
        styleSrcAttr: ["'none'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        mediaSrc: ["'self'", 'blob:'],
        connectSrc: ["'self'"],
        objectSrc: ["'none'"],
        frameAncestors: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
      },
    },
    // Over plain HTTP it is served on the teacher's own machine; a name that has both must not lose that.
    strictTransportSecurity: false,
  } satisfies Parameters<typeof helmet>[0];
  // A browser that does not trust the address, as over plain HTTP from elsewhere, wants no word of these.
  const trusted = helmet(headers);
  const plain = helmet({ ...headers, crossOriginOpenerPolicy: false, originAgentCluster: false });
  app.use((request, response, next) => {
    const isTrusted =
      access.isSecure(request) || /^(localhost|127\.|\[::1\])/.test(request.headers.host ?? '');
    (isTrusted ? trusted : plain)(request, response, next);
  });
  if (plainDoor !== null) app.use(plainDoor);
  app.use('/api', (_request, response, next) => {
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  app.use('/api', ownPagesOnly(access));
  app.use('/api/investigations', stopRoute(parts));
  app.use('/api', whileDatabaseAnswers(health));
  const forDevices = senmlRoutes(parts);
  // Devices show a token and no cookie; what they send is read there, whatever it says that it is.
  app.use('/api', (request, response, next) => {
    if (request.path === '/senml') forDevices(request, response, next);
    else next();
  });
  app.use('/api', express.json({ limit: '4mb' }), signInRoutes(parts));
  app.use('/api', forDevices);
  app.use('/api', signedInOnly);
  app.use('/api/device-tokens', deviceTokenRoutes(parts));
  app.use('/api/investigations', investigationRoutes(parts), workOutRoutes(parts), manyOutcomesRoutes(parts));
  app.use('/api/investigations', notebookRoutes(parts), guideRoutes(parts));
  app.use('/api/jobs', jobRoutes(parts));
  app.use('/api/templates', templateRoutes());
  app.use('/api/imports', importRoutes(parts));
  app.use('/api/runs', runRoutes(parts), outcomeRoutes(parts));
  app.use('/api/channels', channelRoutes(parts));
  app.use('/api/devices', teachersOnly, deviceRoutes(parts), awayRoutes(parts));
  app.use('/api', () => {
    throw new Failure('not-found', 'There is nothing at this address of the API.');
  });

  const root = resolve(web);
  app.use('/assets', express.static(join(root, 'assets'), { immutable: true, maxAge: '1y' }));
  app.use(express.static(root, { index: false }));
  app.get('/{*path}', (_request, response) => {
    const page = join(root, 'index.html');
    if (!existsSync(page))
      throw new Failure('not-found', 'The web application is not built. Run “npm run build”.');
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile(page);
  });

  // eslint-disable-next-line @typescript-eslint/no-unused-vars -- Express knows a handler of errors by its four parameters
  const onError: ErrorRequestHandler = (error: unknown, _request, response, _next) => {
    // It was answered already, since the database was away; what the handler found out later is of no interest.
    if (response.writableEnded) return;
    const failure = failureOf(error);
    if (failure.code === 'fault') log.error(error);
    // Half an answer must not pass for a whole one.
    if (response.headersSent) response.destroy();
    else refuse(response, failure);
  };
  app.use(onError);
  return app;
}

function refuse(response: Response, { code, message, current, status }: Failure): void {
  const body: ErrorBody = { error: { code, message, current } };
  response.status(status).json(body);
}

const databaseAway = () =>
  new Failure(
    'database-away',
    'The database does not answer right now. What is being recorded waits in memory; try again in a moment.',
  );

/** Answers at once while the database is away, and also what was asked just before it went. */
function whileDatabaseAnswers(health: DatabaseHealth): RequestHandler {
  return (_request, response, next) => {
    if (health.away) throw databaseAway();
    const onChange = (away: boolean) => {
      if (away && !response.headersSent) refuse(response, databaseAway());
    };
    health.on('changed', onChange);
    response.once('close', () => health.off('changed', onChange));
    next();
  };
}

/** Refusals of PostgreSQL that say that what was sent cannot be: text with NUL, numbers out of range, text that is no number. */
const impossibleData = new Set(['22021', '22003', '22P02', '22P05', '22007', '22008']);
/** What PostgreSQL and the way to it say when it is away. */
const awayCodes = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  '57P01',
  '57P02',
  '57P03',
  '08006',
  '08001',
  '08003',
]);

const fieldOf = (error: unknown, name: string): unknown =>
  typeof error === 'object' && error !== null && name in error
    ? (error as Record<string, unknown>)[name]
    : undefined;

function failureOf(error: unknown): Failure {
  if (error instanceof Failure) return error;
  const type = fieldOf(error, 'type');
  const code = String(fieldOf(error, 'code') ?? fieldOf(fieldOf(error, 'nativeError'), 'code') ?? '');
  const message = error instanceof Error ? error.message : '';
  if (type === 'entity.too.large')
    return new Failure('too-large', 'That is too much at once: a request may have 4 MB.');
  if (type === 'entity.parse.failed')
    return new Failure('invalid-request', 'The body of the request is not JSON.');
  if (type === 'charset.unsupported' || type === 'encoding.unsupported')
    return new Failure('unsupported', 'Send the request as UTF-8, plain or compressed with gzip.');
  if (impossibleData.has(code))
    return new Failure('invalid-request', 'The request holds a text or a number that cannot be stored.');
  if (awayCodes.has(code) || /timeout|Connection terminated|Unable to acquire/i.test(message))
    return databaseAway();
  const status = fieldOf(error, 'status');
  if (typeof status === 'number' && status >= 400 && status < 500)
    return new Failure(
      status === 404 ? 'not-found' : 'invalid-request',
      status === 404
        ? 'There is nothing at this address.'
        : 'The address or the head of the request is malformed.',
    );
  return new Failure(
    'fault',
    'Something went wrong in Heuristor. The log says what; nothing recorded is lost.',
  );
}
