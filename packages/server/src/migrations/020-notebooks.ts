import { type Knex } from 'knex';

/** Notebooks: what is written in them comes as updates, one row each, which are joined now and then; what was pinned never changes. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('notebook', (table) => {
    table.uuid('id').primary().defaultTo(knex.fn.uuid());
    table.uuid('investigationId').notNullable().references('investigation.id').onDelete('CASCADE');
    table.uuid('ownerId').notNullable().references('person.id').onDelete('CASCADE').index();
    table.integer('at').notNullable().defaultTo(0);
    table.integer('bytes').notNullable().defaultTo(0);
    table.timestamp('madeAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.unique(['investigationId', 'ownerId']);
  });
  await knex.schema.createTable('notebook_update', (table) => {
    table.uuid('notebookId').notNullable().references('notebook.id').onDelete('CASCADE');
    table.integer('at').notNullable();
    table.binary('content').notNullable();
    table.timestamp('madeAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.primary(['notebookId', 'at']);
  });
  await knex.schema.createTable('pin', (table) => {
    table.uuid('notebookId').notNullable().references('notebook.id').onDelete('CASCADE');
    table.text('id').notNullable();
    table.jsonb('content').notNullable();
    table.timestamp('madeAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.primary(['notebookId', 'id']);
  });
  await knex.schema.createTable('photograph', (table) => {
    table.uuid('notebookId').notNullable().references('notebook.id').onDelete('CASCADE');
    table.text('id').notNullable();
    table.binary('content').notNullable();
    table.integer('width').notNullable();
    table.integer('height').notNullable();
    table.timestamp('madeAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.primary(['notebookId', 'id']);
  });
}

export async function down(knex: Knex): Promise<void> {
  for (const table of ['photograph', 'pin', 'notebook_update', 'notebook'])
    await knex.schema.dropTable(table);
}
