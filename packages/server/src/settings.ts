import { z } from 'zod';

const schema = z.object({
  HEURISTOR_DATABASE: z.url('HEURISTOR_DATABASE must be the address of the PostgreSQL database'),
  HEURISTOR_PORT: z.coerce.number().int().min(0).max(65535).default(4600),
  HEURISTOR_WEB: z.string().default('packages/web/dist'),
  HEURISTOR_LOG_LEVEL: z.enum(['fatal', 'error', 'warn', 'info', 'debug', 'silent']).default('info'),
});

export interface Settings {
  database: string;
  port: number;
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
    web: parsed.HEURISTOR_WEB,
    logLevel: parsed.HEURISTOR_LOG_LEVEL,
  };
}
