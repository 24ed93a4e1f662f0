import { type Knex } from 'knex';
import * as first from './001-first';
import * as firmGround from './002-firm-ground';

const migrations: Record<string, Knex.Migration> = { '001-first': first, '002-firm-ground': firmGround };

/** The migrations in order, kept in code so that no path on a disk matters. */
export const migrationSource: Knex.MigrationSource<string> = {
  getMigrations: () => Promise.resolve(Object.keys(migrations).sort()),
  getMigrationName: (name) => name,
  getMigration: (name) => Promise.resolve(migrations[name]),
};
