import { emptyWorkings, workingsSchema } from '@heuristor/contracts';
import { aligned, shiftOf, withShifts } from './aligning';

const moments = [
  { runId: 'a', moments: [1, 3, 5] },
  { runId: 'b', moments: [1.4, 3.5] },
  { runId: 'c', moments: [0.2] },
];

test('the same crossing of every run comes to where it is in the run in front', () => {
  const found = aligned(emptyWorkings, moments, 'a', 2.9);
  expect([...(found?.shifts ?? [])]).toEqual([['b', -0.5]]);
  // There is no second crossing in c.
  expect(found?.lacking).toEqual(['c']);
});

test('a run that was moved already is moved on from there', () => {
  const sheet = withShifts(emptyWorkings, new Map([['b', 2]]));
  const found = aligned(sheet, moments, 'a', 1);
  expect(found?.shifts.get('b')).toBeCloseTo(2 + 1 - 1.4, 12);
  const after = withShifts(sheet, found?.shifts ?? new Map());
  expect(shiftOf(after, 'b')).toBeCloseTo(1.6, 12);
  expect(shiftOf(after, 'a')).toBe(0);
  expect(workingsSchema.safeParse(after).success).toBe(true);
  expect(
    withShifts(
      after,
      new Map([
        ['b', 0],
        ['c', 0],
      ]),
    ).shifts,
  ).toEqual([]);
});

test('without the event in the run in front nothing is moved', () =>
  expect(aligned(emptyWorkings, [{ runId: 'a', moments: [] }, moments[1]], 'a', 1)).toBeNull());
