import { type Knex } from 'knex';

/** What sheets said of a run the last time that somebody asked, so that it need not be worked out again. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('evaluation', (table) => {
    table.uuid('runId').notNullable().references('id').inTable('run').onDelete('CASCADE');
    table.text('owners').notNullable();
    table.text('made').notNullable();
    table.jsonb('keys').notNullable();
    // As text: numbers come back as they were, to the last digit.
    table.json('content').notNullable();
    table.timestamp('madeAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.primary(['runId', 'owners']);
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('evaluation');
}
