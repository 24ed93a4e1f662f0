import { pino } from 'pino';
import { startHeuristor } from './heuristor';
import { settingsFrom } from './settings';

const settings = settingsFrom(process.env);
const log = pino({ level: settings.logLevel });

// Whatever one connection or one query has met, a recording goes on: it is said in the log, and the process stays.
for (const event of ['uncaughtException', 'unhandledRejection'] as const)
  process.on(event, (error: unknown) => {
    log.fatal(error instanceof Error ? error : { error: String(error) }, 'An unexpected error was met');
  });

try {
  const heuristor = await startHeuristor(settings, log);
  log.info(`listening on 127.0.0.1:${heuristor.port}`);
  process.send?.({ type: 'listening', port: heuristor.port });
  // "disconnect": whoever started this server is gone, and nobody else would end it.
  let ending = false;
  for (const event of ['SIGINT', 'SIGTERM', 'disconnect'] as const)
    process.on(event, () => {
      if (ending) return;
      ending = true;
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
