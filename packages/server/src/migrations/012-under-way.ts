import { type Knex } from 'knex';

/** What the server does for an investigation that is in no run yet, and what of it a restart has ended, in words. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('investigation', (table) => {
    table.jsonb('underWay').nullable();
    table.text('endedByRestart').nullable();
  });
}

export async function down(): Promise<void> {
  // Going back would lose what was ended; a copy of the folder taken before is the way back.
  throw new Error('This step cannot be taken back.');
}
