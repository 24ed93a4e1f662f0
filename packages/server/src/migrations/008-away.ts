import { type Knex } from 'knex';

/** Runs that devices record and keep by themselves, from their preparation until they are stored here. */
export async function up(knex: Knex): Promise<void> {
  // The lists of what an origin and a state may be grow.
  for (const [column, values] of [
    ['origin', ['recorded', 'imported', 'away']],
    ['state', ['recording', 'ended', 'interrupted', 'fetching']],
  ] as const) {
    await knex.raw('alter table run drop constraint if exists ??', [`run_${column}_check`]);
    await knex.raw(
      `alter table run add constraint ?? check (?? in (${values.map((value) => `'${value}'`).join(', ')}))`,
      [`run_${column}_check`, column],
    );
  }
  await knex.schema.createTable('away_run', (table) => {
    table.integer('id').primary();
    table.text('code').notNullable().index();
    table.uuid('investigationId').notNullable().references('investigation.id').onDelete('CASCADE');
    table.jsonb('plan').notNullable();
    table.jsonb('tracks').notNullable();
    table.double('seconds').nullable();
    table.timestamp('preparedAt', { useTz: true }).notNullable();
    table.double('clockAtPreparation').nullable();
    table.text('wanted').nullable();
    table.uuid('runId').nullable().references('run.id').onDelete('SET NULL');
    table.timestamp('discardedAt', { useTz: true }).nullable();
    table.timestamp('storedAt', { useTz: true }).nullable();
  });
}

export async function down(): Promise<void> {
  // Going back would throw away what is known of runs that devices still keep; a copy of the folder taken before is the way back.
  throw new Error('This step cannot be taken back.');
}
