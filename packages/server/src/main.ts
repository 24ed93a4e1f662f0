import { pino } from 'pino';
import { type Heuristor, startHeuristor } from './heuristor';
import { settingsFrom } from './settings';

/** Whoever starts this waits eight seconds before it is killed; what is recorded is stored long before. */
const graceMilliseconds = 6000;

let log = pino();
let heuristor: Heuristor | null = null;
let ending: Promise<never> | null = null;

/** Stores what is recorded, ends every connection, and then the process; in any case after the time of grace. */
function end(status: number): Promise<never> {
  ending ??= (async () => {
    const late = new Promise<number>((resolve) =>
      setTimeout(() => {
        log.error('Not everything could be ended in time');
        resolve(1);
      }, graceMilliseconds),
    );
    const closed = Promise.resolve(heuristor?.close()).then(
      () => status,
      () => 1,
    );
    process.exit(await Promise.race([closed, late]));
  })();
  return ending;
}

// After a fault that nobody expected, nobody knows what this process still holds: what is recorded is stored, the process ends, and
// whoever started it starts another one.
for (const event of ['uncaughtException', 'unhandledRejection'] as const)
  process.on(event, (error: unknown) => {
    log.fatal(error instanceof Error ? error : { error: String(error) }, 'An unexpected error was met');
    void end(1);
  });
// "disconnect": whoever started this server is gone, and nobody else would end it.
for (const event of ['SIGINT', 'SIGTERM', 'disconnect'] as const) process.on(event, () => void end(0));

try {
  const settings = settingsFrom(process.env);
  log = pino({ level: settings.logLevel });
  heuristor = await startHeuristor(settings, log);
  const { port, secure } = heuristor;
  log.info(
    `listening on ${settings.host}:${port}${secure === null ? '' : `, over TLS on ${settings.host}:${secure.port}`}`,
  );
  process.send?.({ type: 'listening', port, secure });
} catch (error) {
  const taken = error instanceof Error && 'code' in error && error.code === 'EADDRINUSE';
  const { port } = (taken ? error : {}) as { port?: number };
  process.stderr.write(
    taken
      ? `Port ${port} is taken by another program. Set HEURISTOR_PORT or HEURISTOR_TLS_PORT to a free one.\n`
      : `Heuristor could not start: ${error instanceof Error ? error.message : String(error)}\n`,
  );
  process.exit(1);
}
