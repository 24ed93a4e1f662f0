import {
  type TrialTable,
  type TrialsDocument,
  type TypedRow,
  emptyTable,
  mostInTrials,
} from '@heuristor/contracts';
import { faultOfTrials } from './trialsDocument';

const row = (id: string, value = 1): TypedRow => ({
  id,
  name: id,
  cells: { x: { value, u: null, unit: 'm' } },
});
const rows = (count: number): TypedRow[] => Array.from({ length: count }, (_, i) => row(`r${i}`));
const table = (typed: TypedRow[]): TrialTable => ({ ...emptyTable, id: 'a', name: 'all', typed });
const trials = (...tables: TrialTable[]): TrialsDocument => ({ format: 1, tables });

test('what cannot be kept is found where it is new, whatever stands around it', () => {
  const before = trials(table(rows(1000)));
  const [{ typed }] = before.tables;
  const withAnother = (other: TypedRow) => trials({ ...before.tables[0], typed: [...typed, other] });
  expect(faultOfTrials(before, withAnother(row('new')), false)).toBeNull();
  expect(faultOfTrials(before, withAnother(row('new', NaN)), false)).toMatch(
    /^This could not be kept .*Nothing was/,
  );
  const changed = trials({ ...before.tables[0], typed: typed.with(500, row('r500', Infinity)) });
  expect(faultOfTrials(before, changed, false)).toMatch(/^This could not be kept/);
  const renamed = trials({ ...before.tables[0], name: 'x'.repeat(1000) });
  expect(faultOfTrials(before, renamed, false)).toMatch(/name/);
  const second = trials(before.tables[0], { ...table([row('n', NaN)]), id: 'b' });
  expect(faultOfTrials(before, second, false)).toMatch(/^This could not be kept/);
});

test('more rows than a table holds are said in a sentence', () => {
  const { typedRows } = mostInTrials;
  expect(faultOfTrials(trials(), trials(table(rows(typedRows))), false)).toBeNull();
  expect(faultOfTrials(trials(), trials(table(rows(typedRows + 1))), false)).toBe(
    'A table has 10000 typed rows at most. Remove some first. Nothing was changed.',
  );
});
