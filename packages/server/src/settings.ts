import { z } from 'zod';

const schema = z.object({
  HEURISTOR_DATABASE: z.url('HEURISTOR_DATABASE must be the address of the PostgreSQL database'),
  HEURISTOR_PORT: z.coerce.number().int().min(0).max(65535).default(4600),
  HEURISTOR_HOST: z.string().min(1).default('127.0.0.1'),
  HEURISTOR_WEB: z.string().default('packages/web/dist'),
  HEURISTOR_LOG_LEVEL: z.enum(['fatal', 'error', 'warn', 'info', 'debug', 'silent']).default('info'),
});

export interface Settings {
  database: string;
  port: number;
  /** Address that is listened on; this machine alone unless it is set. */
  host: string;
  /** Folder of the built web application. */
  web: string;
  logLevel: string;
}

/** Settings from the environment. @throws ZodError that names the variable at fault */
export function settingsFrom(environment: NodeJS.ProcessEnv): Settings {
  const parsed = schema.parse(environment);
  return {
    database: parsed.HEURISTOR_DATABASE,
    port: parsed.HEURISTOR_PORT,
    host: parsed.HEURISTOR_HOST,
    web: parsed.HEURISTOR_WEB,
    logLevel: parsed.HEURISTOR_LOG_LEVEL,
  };
}
