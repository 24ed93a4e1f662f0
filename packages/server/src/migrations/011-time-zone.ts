import { type Knex } from 'knex';

/** Where the clock hung by which a run was taken, as IANA names it; null where nobody knows. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('run', (table) => {
    table.text('timeZone').nullable();
  });
}

export async function down(): Promise<void> {
  // Going back would lose in which zone every run was taken; a copy of the folder taken before is the way back.
  throw new Error('This step cannot be taken back.');
}
