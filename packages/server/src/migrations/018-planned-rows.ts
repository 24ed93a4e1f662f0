import { type Knex } from 'knex';

/** Which planned row of the trials a run was recorded for. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('run', (table) => {
    table.text('planned').nullable();
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('run', (table) => {
    table.dropColumn('planned');
  });
}
