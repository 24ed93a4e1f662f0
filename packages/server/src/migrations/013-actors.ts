import { type Knex } from 'knex';

/**
 * Who acts: people of a school. Teachers were the only ones; participants and screens belong to one investigation. Investigations get
 * an owner, devices and what is set of them a school; what there is goes to the one teacher, or the one school, that there is.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('school', (table) => {
    table.uuid('id').primary().defaultTo(knex.fn.uuid());
    table.text('name').notNullable();
    table.timestamp('madeAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
  });
  await knex('school').insert({ name: 'School' });
  const theSchool = '(select id from school limit 1)';

  await knex.schema.renameTable('teacher', 'person');
  await knex.raw(`insert into person (name) select 'Teacher' where not exists (select 1 from person)
    and exists (select 1 from investigation)`);
  await knex.schema.alterTable('person', (table) => {
    table.uuid('schoolId').references('school.id').onDelete('CASCADE');
    table.text('kind').notNullable().defaultTo('teacher').checkIn(['teacher', 'participant', 'screen']);
    // Of one that belongs to a single investigation.
    table.uuid('investigationId').nullable().references('investigation.id').onDelete('CASCADE');
    table.timestamp('madeAt', { useTz: true }).notNullable().defaultTo(knex.fn.now());
    table.timestamp('removedAt', { useTz: true }).nullable();
  });
  await knex.raw(`update person set "schoolId" = ${theSchool}`);
  await knex.raw('alter table person alter column "schoolId" set not null');

  await knex.schema.alterTable('sign_in', (table) => table.renameColumn('teacherId', 'personId'));
  // A link lets in once; a token as often as it is shown.
  await knex.raw('alter table sign_in drop constraint "sign_in_kind_check"');
  await knex.raw(
    `alter table sign_in add constraint "sign_in_kind_check" check (kind in ('link', 'cookie', 'token'))`,
  );

  await knex.schema.alterTable('investigation', (table) => {
    table.uuid('ownerId').references('person.id').onDelete('CASCADE').index();
  });
  // Who has worked an investigation out has made it.
  await knex.raw(`update investigation i set "ownerId" = coalesce(
    (select "ownerId" from workings w where w."investigationId" = i.id limit 1), (select id from person order by id limit 1))`);
  await knex.raw('alter table investigation alter column "ownerId" set not null');

  for (const table of ['device_setting', 'device_token', 'sensor_use']) {
    await knex.schema.alterTable(table, (altered) => {
      altered.uuid('schoolId').references('school.id').onDelete('CASCADE');
    });
    await knex.raw(`update ${table} set "schoolId" = ${theSchool}`);
    await knex.raw(`alter table ${table} alter column "schoolId" set not null`);
  }
  // Two schools may have sensors with the same code on their housings.
  await knex.raw('alter table device_setting drop constraint device_setting_pkey');
  await knex.raw('alter table device_setting add primary key ("schoolId", code)');
  await knex.raw('drop index sensor_use_active');
  await knex.raw('create unique index sensor_use_active on sensor_use ("schoolId", code) where active');
}

export async function down(): Promise<void> {
  // Going back would lose owners and participants; a copy of the folder taken before is the way back.
  throw new Error('This step cannot be taken back.');
}
