import { type Knex } from 'knex';

/** Devices are used by an investigation, set up there, and calibrated wherever they are; channels keep what was applied. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('sensor_use', (table) => {
    table.uuid('investigationId').notNullable().references('investigation.id').onDelete('CASCADE');
    table.text('code').notNullable();
    table.boolean('active').notNullable();
    table.jsonb('setup').notNullable();
    table.primary(['investigationId', 'code']);
  });
  await knex.raw('create unique index sensor_use_active on sensor_use (code) where active');
  // A device that was connected belonged to no investigation; the one used last has it from now on, set up as it was.
  await knex.raw(`insert into sensor_use ("investigationId", code, active, setup)
    select (select id from investigation where "deletedAt" is null order by "usedAt" desc limit 1), d.code, true,
      jsonb_build_object(
        'rates', case when d.rate is null then '{}'::jsonb else jsonb_build_object('only', d.rate) end,
        'channels', case when d.reversed then coalesce((
            -- A sign belonged to the whole device; its channels are known by their zeros and by what plans are bound to.
            select jsonb_object_agg(known.key, jsonb_build_object('reversed', true)) from (
              select jsonb_object_keys(d.zeros) as key
              union
              select b->>'channel' from investigation i, jsonb_array_elements(coalesce(i.plan->'bindings', '[]'::jsonb)) b
              where b->>'code' = d.code
            ) known), '{}'::jsonb) else '{}'::jsonb end)
    from device_setting d where d.connected and exists (select 1 from investigation where "deletedAt" is null)`);
  await knex.schema.alterTable('device_setting', (table) => {
    table.dropColumn('connected');
    table.dropColumn('rate');
    table.dropColumn('reversed');
    table.jsonb('scales').notNullable().defaultTo('{}');
    table.jsonb('numbers').notNullable().defaultTo('{}');
  });
  await knex.schema.alterTable('channel', (table) => {
    table.double('resolution').notNullable().defaultTo(0);
    table.jsonb('applied');
  });
  await knex.raw(`update channel set applied = jsonb_build_object(
      'scale', case when reversed then -1 else 1 end,
      'offset', case when reversed then zero else -zero end,
      'range', 'only', 'zero', null, 'twoPoint', null, 'reversed', reversed, 'zeroedAtStart', false,
      'numbers', '{}'::jsonb)
    where "deviceCode" is not null`);
  await knex.schema.alterTable('channel', (table) => {
    table.dropColumn('zero');
    table.dropColumn('reversed');
  });
}

export async function down(): Promise<void> {
  // Going back would throw away who uses which sensor; a copy of the folder taken before is the way back.
  throw new Error('This step cannot be taken back.');
}
