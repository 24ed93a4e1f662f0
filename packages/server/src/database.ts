import knexPackage, { type Knex } from 'knex';
import { Model } from 'objection';
import pg from 'pg';
import { migrationSource } from './migrations';

// A bigint of ours counts channels and blocks; it stays far below 2⁵³.
pg.types.setTypeParser(20, Number);

/** Milliseconds after which a query is given up: a database that hangs must not hang everything that asks it. */
const queryMilliseconds = 60_000;
const storageMilliseconds = 4000;

export interface Database {
  /** For everything that people ask for; all models are bound to it. */
  general: Knex;
  /** For the readings of running recordings alone, so that nothing else can starve them. */
  storage: Knex;
  close(): Promise<void>;
}

function connect(address: string, most: number, timeoutMilliseconds: number): Knex {
  const settings: pg.ClientConfig = {
    connectionString: address,
    query_timeout: timeoutMilliseconds,
    // The database itself gives up sooner, so that nothing it holds stays locked for whoever tries again.
    statement_timeout: 0.9 * timeoutMilliseconds,
    lock_timeout: 0.75 * timeoutMilliseconds,
    idle_in_transaction_session_timeout: timeoutMilliseconds,
    connectionTimeoutMillis: 5000,
    keepAlive: true,
  };
  const knex = knexPackage({
    client: 'pg',
    connection: settings as Knex.PgConnectionConfig,
    pool: { min: 0, max: most },
    // Requests are answered sooner than this, by the health of the database; what waits here may wait for a busy machine.
    acquireConnectionTimeout: 10_000,
  });
  return knex;
}

/** Opens the database, brings its tables up to date and binds the models to it. */
export async function openDatabase(address: string): Promise<Database> {
  const general = connect(address, 10, queryMilliseconds);
  const storage = connect(address, 2, storageMilliseconds);
  const close = async () => {
    await Promise.all([general.destroy(), storage.destroy()]);
  };
  try {
    await general.migrate.latest({ migrationSource });
  } catch (error) {
    await close();
    // Knex misses the steps that a newer program has taken.
    const missing = /migration directory is corrupt.*missing: (.*)/s.exec(String(error))?.[1];
    if (missing !== undefined)
      throw new Error(
        `Heuristor cannot read this data: a newer Heuristor has changed it (${missing.trim()}). Start that version.`,
        { cause: error },
      );
    throw error;
  }
  Model.knex(general);
  return { general, storage, close };
}
