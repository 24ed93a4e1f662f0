import { type Knex } from 'knex';

export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('teacher', (table) => {
    table.uuid('id').primary().defaultTo(knex.fn.uuid());
    table.text('name').notNullable();
  });
  await knex.schema.createTable('sign_in', (table) => {
    table.text('tokenHash').primary();
    table.uuid('teacherId').notNullable().references('teacher.id').onDelete('CASCADE');
    table.enum('kind', ['link', 'cookie']).notNullable();
    table.timestamp('expiresAt', { useTz: true }).notNullable();
    table.timestamp('usedAt', { useTz: true });
  });
  await knex.schema.createTable('investigation', (table) => {
    table.uuid('id').primary().defaultTo(knex.fn.uuid());
    table.text('name').notNullable();
    table.jsonb('plan').notNullable();
    table.jsonb('workings').notNullable();
    table.integer('workingsVersion').notNullable().defaultTo(1);
    table.timestamp('createdAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.timestamp('updatedAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.timestamp('deletedAt', { useTz: true });
  });
  await knex.schema.createTable('run', (table) => {
    table.uuid('id').primary().defaultTo(knex.fn.uuid());
    table.uuid('investigationId').notNullable().references('investigation.id').onDelete('CASCADE');
    table.integer('number').notNullable();
    table.text('name').notNullable();
    table.enum('origin', ['recorded', 'imported']).notNullable();
    table.enum('state', ['recording', 'ended', 'interrupted']).notNullable();
    table.boolean('shown').notNullable().defaultTo(true);
    table.smallint('style').notNullable();
    table.jsonb('plan').notNullable();
    table.jsonb('gaps').notNullable().defaultTo('[]');
    table.timestamp('startedAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.timestamp('endedAt', { useTz: true });
    table.timestamp('deletedAt', { useTz: true });
    table.unique(['investigationId', 'number']);
  });
  await knex.schema.createTable('channel', (table) => {
    table.increments('id');
    table.uuid('runId').notNullable().references('run.id').onDelete('CASCADE');
    table.integer('position').notNullable();
    table.text('key').notNullable();
    table.text('symbol').notNullable();
    table.text('quantity').notNullable();
    table.text('unit').notNullable();
    table.text('timeUnit').notNullable();
    table.double('interval');
    table.double('start').notNullable().defaultTo(0);
    table.double('low');
    table.double('high');
    table.text('deviceCode');
    table.double('zero').notNullable().defaultTo(0);
    table.boolean('reversed').notNullable().defaultTo(false);
    table.unique(['runId', 'key']);
  });
  await knex.schema.createTable('block', (table) => {
    table.integer('channelId').notNullable().references('channel.id').onDelete('CASCADE');
    table.integer('sequence').notNullable();
    table.integer('firstIndex').notNullable();
    table.integer('count').notNullable();
    // Float64, little endian; times only where the channel has no interval.
    table.binary('values').notNullable();
    table.binary('times');
    table.primary(['channelId', 'sequence']);
  });
  await knex.schema.createTable('device_setting', (table) => {
    table.text('code').primary();
    table.boolean('connected').notNullable().defaultTo(false);
    table.double('rate');
    table.boolean('reversed').notNullable().defaultTo(false);
    table.jsonb('zeros').notNullable().defaultTo('{}');
  });
}

export async function down(knex: Knex): Promise<void> {
  for (const name of ['device_setting', 'block', 'channel', 'run', 'investigation', 'sign_in', 'teacher'])
    await knex.schema.dropTable(name);
}
