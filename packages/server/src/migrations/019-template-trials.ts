import { type Knex } from 'knex';

/** Templates bring tables over runs; null of one that was kept before there were any. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('template', (table) => {
    table.jsonb('trials').nullable();
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('template', (table) => {
    table.dropColumn('trials');
  });
}
