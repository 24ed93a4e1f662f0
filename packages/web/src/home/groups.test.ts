import { type InvestigationSummary } from '@heuristor/contracts';
import { grouped } from './groups';

const used = (name: string, usedAt: string, theme = ''): InvestigationSummary => ({
  id: name,
  name,
  runCount: 0,
  entryCount: 0,
  usedAt,
  theme,
  removedAt: null,
});
const now = new Date('2026-12-02T08:00:00');

test('investigations stand under the day of their last use, by the calendar and not by hours', () => {
  const groups = grouped(
    [
      used('a', '2026-12-02T07:59:00'),
      used('b', '2026-12-01T23:59:00'),
      used('c', '2026-11-26T12:00:00'),
      used('d', '2026-11-10T12:00:00'),
      used('e', '2025-12-02T08:00:00'),
    ],
    'use',
    now,
  );
  expect(groups.map(({ title, investigations }) => [title, investigations.length])).toEqual([
    ['Today', 1],
    ['Yesterday', 1],
    ['In the last week', 1],
    ['In the last month', 1],
    ['Before', 1],
  ]);
});

test('themes that differ in capitals alone are one; what has none comes under words of its own', () => {
  const groups = grouped(
    [used('a', '2026-12-02', '10b'), used('b', '2026-12-01', '10B'), used('c', '2026-12-01')],
    'theme',
    now,
  );
  expect(groups.map(({ title, investigations }) => [title, investigations.map(({ name }) => name)])).toEqual([
    ['10b', ['a', 'b']],
    ['Without a theme', ['c']],
  ]);
});
