import { type Knex } from 'knex';

/** Runs know what was changed for them, who recorded them, and whether they were for practice. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('run', (table) => {
    table.boolean('practice').notNullable().defaultTo(false);
    table.boolean('keepPinned').notNullable().defaultTo(false);
    table.jsonb('conditions').notNullable().defaultTo('{}');
    table.text('group').notNullable().defaultTo('');
    table.text('remark').notNullable().defaultTo('');
  });
}

export async function down(): Promise<void> {
  // Going back would throw away what people have written; a copy of the folder taken before is the way back.
  throw new Error('This step cannot be taken back.');
}
