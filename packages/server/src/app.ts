import { type ErrorBody } from '@heuristor/contracts';
import express, { type ErrorRequestHandler, type Express } from 'express';
import helmet from 'helmet';
import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { type Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { signedInOnly } from './auth/guard';
import { Failure } from './failure';
import { type DeviceRegistry } from './link/registry';
import { type LiveServer } from './live/liveServer';
import { type Recorder } from './recorder/recorder';
import { deviceRoutes } from './routes/devices';
import { investigationRoutes } from './routes/investigations';
import { channelRoutes, runRoutes } from './routes/runs';
import { signInRoutes } from './routes/signIn';

interface Parts {
  registry: DeviceRegistry;
  recorder: Recorder;
  live: LiveServer;
  log: Logger;
  web: string;
}

export function createApp({ registry, recorder, live, log, web }: Parts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(pinoHttp({ logger: log, useLevel: 'debug' }));
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'"],
          // React and the chart set sizes as style attributes through the DOM, which this does not concern.
          styleSrcAttr: ["'none'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          connectSrc: ["'self'"],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
        },
      },
      // Heuristor is served over plain HTTP on the teacher's own machine.
      strictTransportSecurity: false,
    }),
  );
  app.use('/api', (_request, response, next) => {
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  app.use('/api', express.json({ limit: '1mb' }), signInRoutes());
  app.use('/api', signedInOnly);
  app.use('/api/investigations', investigationRoutes(recorder, live));
  app.use('/api/runs', runRoutes(live));
  app.use('/api/channels', channelRoutes(recorder));
  app.use('/api/devices', deviceRoutes(registry));
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

  const onError: ErrorRequestHandler = (error: unknown, _request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const failure = failureOf(error);
    if (failure.code === 'fault') log.error(error);
    const body: ErrorBody = {
      error: { code: failure.code, message: failure.message, current: failure.current },
    };
    response.status(failure.status).json(body);
  };
  app.use(onError);
  return app;
}

function failureOf(error: unknown): Failure {
  if (error instanceof Failure) return error;
  const type = typeof error === 'object' && error !== null && 'type' in error ? error.type : null;
  if (type === 'entity.too.large')
    return new Failure('too-large', 'That is too much at once: files may have 64 MB, other requests 1 MB.');
  if (type === 'entity.parse.failed')
    return new Failure('invalid-request', 'The body of the request is not JSON.');
  return new Failure(
    'fault',
    'Something went wrong in Heuristor. The log says what; nothing recorded is lost.',
  );
}
