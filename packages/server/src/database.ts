import { Model } from 'objection';
import { type Knex, connect } from './connection';
import { migrationSource } from './migrations';

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
