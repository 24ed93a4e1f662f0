import { pino } from 'pino';
import { startHeuristor } from './heuristor';
import { settingsFrom } from './settings';

const settings = settingsFrom(process.env);
const log = pino({ level: settings.logLevel });

// A broken database connection is reported by the query that meets it; it must not end a recording.
process.on('uncaughtException', (error) => {
  log.fatal(error);
  if (!isConnectionLoss(error)) process.exit(1);
});

function isConnectionLoss(error: Error): boolean {
  return (
    'code' in error && ['ECONNRESET', 'ECONNREFUSED', '57P01', '57P02', '57P03'].includes(String(error.code))
  );
}

try {
  const heuristor = await startHeuristor(settings, log);
  log.info(`listening on 127.0.0.1:${heuristor.port}`);
  process.send?.({ type: 'listening', port: heuristor.port });
  // "disconnect": whoever started this server is gone, and nobody else would end it.
  for (const event of ['SIGINT', 'SIGTERM', 'disconnect'] as const)
    process.once(event, () => {
      heuristor.close().then(
        () => process.exit(0),
        () => process.exit(1),
      );
    });
} catch (error) {
  const taken = error instanceof Error && 'code' in error && error.code === 'EADDRINUSE';
  process.stderr.write(
    taken
      ? `Port ${settings.port} is taken by another program. Set HEURISTOR_PORT to a free one.\n`
      : `Heuristor could not start: ${error instanceof Error ? error.message : String(error)}\n`,
  );
  process.exit(1);
}
