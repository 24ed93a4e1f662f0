import { csvOf } from '../../runs/severalRuns';
import { type ExportForm } from './form';

export const csv = {
  of: 'runs',
  title: 'with derived series (CSV)',
  extension: 'csv',
  async write({ pool, workings }, runs) {
    const text = await csvOf(
      pool,
      runs.map(({ id, name }) => ({ id, name })),
      workings,
    );
    return new Blob([text], { type: 'text/csv' });
  },
} as const satisfies ExportForm;
