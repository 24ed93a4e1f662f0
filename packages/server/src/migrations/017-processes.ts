import { type Knex } from 'knex';

/**
 * Several processes may share this database: each has a lease, and what it has under way carries its name. What may wait stands in one
 * queue, and bytes that belong to an investigation lie here, in parts.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('server_process', (table) => {
    table.uuid('id').primary();
    table.timestamp('startedAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.timestamp('leaseUntil', { useTz: true }).notNullable();
  });
  await knex.schema.alterTable('run', (table) => {
    table.uuid('recordedBy').nullable();
  });
  await knex.raw(`create index run_open on run (id) where state = 'recording'`);
  await knex.schema.alterTable('investigation', (table) => {
    table.uuid('underWayBy').nullable();
  });
  await knex.schema.createTable('job', (table) => {
    table.bigIncrements('id');
    table.text('kind').notNullable();
    table.jsonb('task').notNullable();
    table.uuid('person').nullable().references('id').inTable('person').onDelete('CASCADE');
    table.uuid('investigationId').nullable().references('id').inTable('investigation').onDelete('CASCADE');
    table.enum('state', ['waiting', 'running', 'done', 'failed', 'cancelled']).notNullable();
    table.integer('attempts').notNullable().defaultTo(0);
    table.uuid('takenBy').nullable();
    table.float('share').notNullable().defaultTo(0);
    table.text('sentence').nullable();
    table.timestamp('notBefore', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.timestamp('createdAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.timestamp('endedAt', { useTz: true }).nullable();
  });
  await knex.raw(`create index job_open on job (id) where state in ('waiting', 'running')`);
  await knex.schema.createTable('stored_file', (table) => {
    table.uuid('id').primary();
    table.text('purpose').notNullable();
    table.uuid('owner').notNullable().references('id').inTable('person').onDelete('CASCADE');
    table.uuid('investigationId').notNullable().references('id').inTable('investigation').onDelete('CASCADE');
    table.text('name').notNullable();
    table.bigInteger('bytes').notNullable().defaultTo(0);
    /** Whether all of it has come. */
    table.boolean('whole').notNullable().defaultTo(false);
    /** What else its purpose wants to know. */
    table.jsonb('about').notNullable();
    table.timestamp('touchedAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.index(['purpose', 'touchedAt']);
  });
  await knex.schema.createTable('stored_part', (table) => {
    table.uuid('fileId').notNullable().references('id').inTable('stored_file').onDelete('CASCADE');
    table.integer('part').notNullable();
    table.binary('bytes').notNullable();
    table.primary(['fileId', 'part']);
  });
  // What people bring in is compressed already, or read once; the time is better spent otherwise.
  await knex.raw(`alter table stored_part alter column bytes set storage external`);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('stored_part');
  await knex.schema.dropTable('stored_file');
  await knex.schema.dropTable('job');
  await knex.schema.alterTable('investigation', (table) => {
    table.dropColumn('underWayBy');
  });
  await knex.schema.alterTable('run', (table) => {
    table.dropColumn('recordedBy');
  });
  await knex.schema.dropTable('server_process');
}
