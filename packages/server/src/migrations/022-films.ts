import { type Knex } from 'knex';

/** Short films of a notebook. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('film', (table) => {
    table.uuid('notebookId').notNullable().references('notebook.id').onDelete('CASCADE');
    table.text('id').notNullable();
    table.binary('content').notNullable();
    table.timestamp('madeAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.primary(['notebookId', 'id']);
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('film');
}
