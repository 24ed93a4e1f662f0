import { z } from 'zod';

const schema = z.object({
  HEURISTOR_DATABASE: z.url('HEURISTOR_DATABASE must be the address of the PostgreSQL database'),
  HEURISTOR_PORT: z.coerce.number().int().min(0).max(65535).default(4600),
  HEURISTOR_HOST: z.string().min(1).default('127.0.0.1'),
  HEURISTOR_PROXY: z.string().default(''),
  HEURISTOR_SECRET: z.string().min(16).optional(),
  HEURISTOR_TLS: z.string().default(''),
  HEURISTOR_TLS_PORT: z.coerce.number().int().min(0).max(65535).optional(),
  HEURISTOR_CERTIFICATE: z.string().min(1).optional(),
  HEURISTOR_KEY: z.string().min(1).optional(),
  HEURISTOR_DATA: z.string().min(1).default('.data'),
  HEURISTOR_WEB: z.string().default('packages/web/dist'),
  HEURISTOR_PACE: z.coerce.number().min(0.1).max(100).default(1),
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
  /** How many times as fast as on the wall time passes for devices and what records them; for tests. */
  pace: number;
  /** Folder of what is kept beside the database. */
  data: string;
  /** Addresses or subnets of proxies whose word on where requests come from is believed. */
  proxies: string[];
  /** What the programs that came with this one show; null where none does. */
  secret: string | null;
  /** A second door over TLS, with its certificate: files, or the folder in which an own one is kept. */
  tls: { port: number; from: { certificate: string; key: string } | { folder: string } } | null;
}

function tlsFrom({
  HEURISTOR_TLS: wish,
  HEURISTOR_TLS_PORT: port,
  HEURISTOR_CERTIFICATE: certificate,
  HEURISTOR_KEY: key,
  ...parsed
}: z.output<typeof schema>): Settings['tls'] {
  if ((certificate === undefined) !== (key === undefined))
    throw new Error('HEURISTOR_CERTIFICATE and HEURISTOR_KEY belong together: name the files of both.');
  const isWanted = certificate !== undefined || !['', '0', 'off', 'no'].includes(wish.toLowerCase());
  if (!isWanted) return null;
  return {
    port: port ?? (parsed.HEURISTOR_PORT === 0 ? 0 : parsed.HEURISTOR_PORT + 1),
    from:
      certificate !== undefined && key !== undefined
        ? { certificate, key }
        : { folder: parsed.HEURISTOR_DATA },
  };
}

/** Settings from the environment. @throws Error or ZodError that names the variable at fault */
export function settingsFrom(environment: NodeJS.ProcessEnv): Settings {
  const parsed = schema.parse(environment);
  return {
    database: parsed.HEURISTOR_DATABASE,
    port: parsed.HEURISTOR_PORT,
    host: parsed.HEURISTOR_HOST,
    web: parsed.HEURISTOR_WEB,
    logLevel: parsed.HEURISTOR_LOG_LEVEL,
    pace: parsed.HEURISTOR_PACE,
    data: parsed.HEURISTOR_DATA,
    proxies: parsed.HEURISTOR_PROXY.split(/[\s,]+/).filter((address) => address !== ''),
    secret: parsed.HEURISTOR_SECRET ?? null,
    tls: tlsFrom(parsed),
  };
}
