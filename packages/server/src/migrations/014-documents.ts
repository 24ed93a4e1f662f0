import { type Knex } from 'knex';

/** Workings are one kind of the documents that people keep over the runs of an investigation. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.renameTable('workings', 'document');
  await knex.schema.alterTable('document', (table) => {
    table.renameColumn('document', 'content');
    table.text('kind').notNullable().defaultTo('workings');
  });
  await knex.raw('alter table document alter column kind drop default');
  await knex.raw('alter table document drop constraint workings_investigationid_ownerid_unique');
  await knex.schema.alterTable('document', (table) => {
    table.unique(['investigationId', 'ownerId', 'kind']);
  });
}

export async function down(): Promise<void> {
  // Going back would lose documents of other kinds; a copy of the folder taken before is the way back.
  throw new Error('This step cannot be taken back.');
}
