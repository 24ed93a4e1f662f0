import { type Knex } from 'knex';

const styles = 8;

interface OldRun {
  id: string;
  investigationId: string;
  number: number;
  shown: boolean;
  style: number;
  keepPinned: boolean;
}

/** Which runs are shown, how they are drawn and what of them counts goes from the runs into the sheets of those who look at them. */
export async function up(knex: Knex): Promise<void> {
  const rows: OldRun[] = await knex('run').select(
    'id',
    'investigationId',
    'number',
    'shown',
    'style',
    'keepPinned',
  );
  const choices = new Map<string, object[]>();
  for (const { id, investigationId, number, shown, style, keepPinned } of rows) {
    const choice = {
      ...(shown ? {} : { hidden: true }),
      ...(style === (number - 1) % styles ? {} : { style }),
      ...(keepPinned ? { keepPinned: true } : {}),
    };
    if (Object.keys(choice).length === 0) continue;
    choices.set(investigationId, [...(choices.get(investigationId) ?? []), { run: id, ...choice }]);
  }
  // Whatever format a sheet has: its steps take this with them.
  for (const [investigationId, runs] of choices)
    await knex('document')
      .where({ investigationId, kind: 'workings' })
      .whereRaw("jsonb_typeof(content) = 'object'")
      .update({
        content: knex.raw(`jsonb_set(content, '{runs}', ?::jsonb)`, [JSON.stringify(runs)]) as never,
      });
  await knex.schema.alterTable('run', (table) => {
    table.dropColumns('shown', 'style', 'keepPinned');
  });
}

export async function down(): Promise<void> {
  // Sheets of several people may look at a run in different ways; a copy of the folder taken before is the way back.
  throw new Error('This step cannot be taken back.');
}
