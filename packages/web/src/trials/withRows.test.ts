import { emptyTable } from '@heuristor/contracts';
import { withRows } from './trialsDocument';

test('a value that did not count says nothing of the values that are rows after it', () => {
  const across = { kind: 'constant', entry: 'c', ends: '', count: 21 } as const;
  const leftOut = ['run/3', 'run', 'typed'].map((row) => ({ row, why: 'rubbed' }));
  const table = { ...emptyTable, id: 't', rows: across, leftOut };
  expect(withRows(table, { ...across })).toBe(table);
  for (const rows of [{ ...across, count: 11 }, { ...across, ends: '1 to 2' }, { kind: 'runs' } as const])
    expect(withRows(table, rows).leftOut.map(({ row }) => row)).toEqual(['run', 'typed']);
});
