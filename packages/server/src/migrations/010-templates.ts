import { type Knex } from 'knex';

/** Sheets that are kept to be used over other runs. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('template', (table) => {
    table.uuid('id').primary().defaultTo(knex.raw('gen_random_uuid()'));
    table.uuid('ownerId').notNullable().references('teacher.id').onDelete('CASCADE');
    table.text('name').notNullable();
    table.text('about').notNullable();
    table.jsonb('channels').notNullable();
    table.jsonb('conditions').notNullable();
    table.jsonb('document').notNullable();
    table.timestamp('madeAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.timestamp('deletedAt', { useTz: true }).nullable();
  });
}

export async function down(): Promise<void> {
  // Going back would lose every template that was kept; a copy of the folder taken before is the way back.
  throw new Error('This step cannot be taken back.');
}
