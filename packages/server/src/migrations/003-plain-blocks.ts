import { type Knex } from 'knex';

/**
 * Readings are stored as they are: numbers of a sensor hardly become smaller by packing, and packing takes its time while they
 * are recorded and read. What is packed already stays so.
 */
export async function up(knex: Knex): Promise<void> {
  for (const column of ['values', 'times'])
    await knex.raw('alter table block alter column ?? set storage external', [column]);
}

export async function down(knex: Knex): Promise<void> {
  for (const column of ['values', 'times'])
    await knex.raw('alter table block alter column ?? set storage extended', [column]);
}
