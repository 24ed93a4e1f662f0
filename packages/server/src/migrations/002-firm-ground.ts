import { type Knex } from 'knex';

/** Workings get a table and an owner, channels their sampling, runs their gaps by rows, sentences and a small picture. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('workings', (table) => {
    table.uuid('id').primary().defaultTo(knex.fn.uuid());
    table.uuid('investigationId').notNullable().references('investigation.id').onDelete('CASCADE');
    table.uuid('ownerId').notNullable().references('teacher.id').onDelete('CASCADE');
    table.jsonb('document').notNullable();
    table.integer('version').notNullable().defaultTo(1);
    table.timestamp('updatedAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.unique(['investigationId', 'ownerId']);
  });
  await knex.raw(`insert into teacher (name) select 'Teacher' where not exists (select 1 from teacher)
    and exists (select 1 from investigation)`);
  await knex.raw(`insert into workings ("investigationId", "ownerId", document, version)
    select i.id, (select id from teacher order by id limit 1), i.workings, i."workingsVersion" from investigation i`);
  await knex.schema.alterTable('investigation', (table) => {
    table.dropColumn('workings');
    table.dropColumn('workingsVersion');
    table.timestamp('usedAt', { useTz: true });
  });
  await knex.raw('update investigation set "usedAt" = "updatedAt"');

  await knex.schema.alterTable('channel', (table) => {
    table.jsonb('sampling');
    table.double('noise');
  });
  await knex.raw(`update channel set sampling = case when "interval" is null
    then jsonb_build_object('kind', 'timed')
    else jsonb_build_object('kind', 'regular', 'start', start, 'interval', "interval") end`);
  await knex.raw('alter table channel alter column sampling set not null');
  await knex.schema.alterTable('channel', (table) => {
    table.dropColumn('interval');
    table.dropColumn('start');
  });

  await knex.schema.createTable('gap', (table) => {
    table.increments('id');
    table.uuid('runId').notNullable().references('run.id').onDelete('CASCADE');
    table.text('channel').notNullable();
    table.double('from').notNullable();
    table.double('to').notNullable();
    table.index('runId');
  });
  await knex.raw(`insert into gap ("runId", channel, "from", "to")
    select r.id, g->>'channel', (g->>'from')::double precision, (g->>'to')::double precision
    from run r, jsonb_array_elements(r.gaps) g`);
  await knex.schema.alterTable('run', (table) => {
    table.dropColumn('gaps');
    table.jsonb('notes').notNullable().defaultTo('[]');
    table.jsonb('preview');
  });
  await knex.schema.alterTable('device_setting', (table) => {
    table.text('keyHash');
  });
}

export async function down(): Promise<void> {
  // Going back would throw away owners, gaps and sentences; a copy of the folder taken before is the way back.
  throw new Error('This step cannot be taken back.');
}
