import { type Knex } from 'knex';

/** Devices that bring their readings over HTTP; only hashes of what lets them in are kept. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('device_token', (table) => {
    table.increments('id');
    table.text('code').notNullable().unique();
    table.text('name').notNullable();
    table.text('tokenHash').notNullable().unique();
    table.timestamp('madeAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.timestamp('usedAt', { useTz: true }).nullable();
  });
}

export async function down(): Promise<void> {
  // Going back would shut out every device that was let in; a copy of the folder taken before is the way back.
  throw new Error('This step cannot be taken back.');
}
