import { type Knex } from 'knex';

/** Channels of events know what their edges are of, and the step of their timer. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('channel', (table) => {
    table.jsonb('edges').nullable();
  });
}

export async function down(): Promise<void> {
  // Going back would throw away what runs know of their timers; a copy of the folder taken before is the way back.
  throw new Error('This step cannot be taken back.');
}
