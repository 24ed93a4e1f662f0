import knexPackage, { type Knex } from 'knex';
import pg from 'pg';

export { type Knex };

// A bigint of ours counts channels and blocks; it stays far below 2⁵³.
pg.types.setTypeParser(20, Number);

/** Connections to the database. @param most so many at once @param timeoutMilliseconds after which a query is given up */
export function connect(address: string, most: number, timeoutMilliseconds: number): Knex {
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
