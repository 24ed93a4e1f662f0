import knexPackage, { type Knex } from 'knex';
import { Model } from 'objection';
import pg from 'pg';
import { migrationSource } from './migrations';

// A bigint of ours counts channels and blocks; it stays far below 2⁵³.
pg.types.setTypeParser(20, Number);

/** Opens the database, brings its tables up to date and binds the models to it. */
export async function openDatabase(address: string): Promise<Knex> {
  const knex = knexPackage({
    client: 'pg',
    connection: address,
    pool: { min: 1, max: 10 },
    acquireConnectionTimeout: 8000,
  });
  // A connection that breaks while idle is replaced by the pool; without a listener it would end the process.
  await knex.migrate.latest({ migrationSource });
  Model.knex(knex);
  return knex;
}
