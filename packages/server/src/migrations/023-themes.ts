import { type Knex } from 'knex';

/** What an investigation belongs to, a class or a theme; and whether it came with Heuristor as an example. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('investigation', (table) => {
    table.text('theme').notNullable().defaultTo('');
    table.boolean('isExample').notNullable().defaultTo(false);
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('investigation', (table) => {
    table.dropColumns('theme', 'isExample');
  });
}
