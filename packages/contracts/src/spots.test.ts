import { type SpotColumn, type SpotRow, numberIn, sortedRows } from './spots';

// Readings as they count: sorted by what was typed, and as they were taken where nothing is typed.

const read: SpotColumn = { kind: 'measured', key: 'B', quantity: 'B', take: 'mean' };
const row = (id: number, value: number, given: SpotRow['cells'] = {}, removed = false): SpotRow => ({
  id,
  at: '2026-03-02T09:00:00.000Z',
  cells: { B: { value, u: 0.1, spread: 0.1, count: 50, pinned: false }, ...given },
  removed,
});
const ids = (rows: readonly SpotRow[]) => rows.map(({ id }) => id);

test('by the typed number, whatever the order they were taken in; what was dropped does not count', () => {
  const columns: SpotColumn[] = [
    { kind: 'typed', key: 'r', name: 'r', unit: 'm', offset: 0.01, output: null },
    read,
  ];
  const rows = [
    row(1, 5, { r: { typed: 0.3 } }),
    row(2, 9, { r: { typed: 0.1 } }),
    row(3, 7, { r: { typed: 0.2 } }, true),
    row(4, 8),
  ];
  expect(ids(sortedRows({ columns, rows }))).toEqual([2, 1, 4]);
  expect(numberIn(columns[0], rows[1])).toBeCloseTo(0.09, 12);
  expect(numberIn(columns[0], rows[3])).toBeNaN();
});

test('with a word to each, or with nothing, they stay as they were taken', () => {
  const rows = [
    row(1, 0.04, { core: { word: 'air' } }),
    row(2, 0.045, { core: { word: 'iron' } }),
    row(3, 0.035, { core: { word: 'brass' } }),
  ];
  const word: SpotColumn = { kind: 'word', key: 'core', name: 'core' };
  expect(ids(sortedRows({ columns: [word, read], rows }))).toEqual([1, 2, 3]);
  expect(ids(sortedRows({ columns: [read], rows }))).toEqual([1, 2, 3]);
});
