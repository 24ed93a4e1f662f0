import { type Knex } from 'knex';

/** Guides: templates bring them, and what was asked to be checked is counted. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('template', (table) => {
    table.jsonb('guide').nullable();
  });
  await knex.schema.createTable('guide_check', (table) => {
    table.increments('id').primary();
    table.uuid('investigationId').notNullable().references('investigation.id').onDelete('CASCADE');
    table.uuid('personId').notNullable().references('person.id').onDelete('CASCADE').index();
    table.text('item').notNullable();
    table.jsonb('answer').notNullable();
    table.boolean('isRight').notNullable();
    table.text('says').notNullable();
    table.timestamp('madeAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.index(['investigationId', 'personId', 'item']);
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('guide_check');
  await knex.schema.alterTable('template', (table) => {
    table.dropColumn('guide');
  });
}
