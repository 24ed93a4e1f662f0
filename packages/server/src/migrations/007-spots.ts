import { type Knex } from 'knex';

/** Runs that are taken one reading after the other, each reading a row of its own that can be dropped and put back. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('run', (table) => {
    table.jsonb('spot').nullable();
  });
  await knex.schema.createTable('spot', (table) => {
    table.increments('id');
    table.uuid('runId').notNullable().references('run.id').onDelete('CASCADE').index();
    table.jsonb('cells').notNullable();
    table.timestamp('at', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.timestamp('removedAt', { useTz: true }).nullable();
  });
}

export async function down(): Promise<void> {
  // Going back would throw away readings; a copy of the folder taken before is the way back.
  throw new Error('This step cannot be taken back.');
}
