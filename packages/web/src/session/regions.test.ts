import { type EntryOfKind } from '@heuristor/core';
import { type ShownOutcome } from '../workers/protocol';
import { laidRegion, laidRegions, placed, withOwn, withoutOwn } from './regions';

const region: EntryOfKind<'region'> = {
  kind: 'region',
  id: 'A',
  name: '',
  letter: 'A',
  along: 't',
  start: 1,
  end: 2,
};
const rises = { event: 'rises', of: 'channel:x', level: 0.1, count: 1, offset: 0.5 } as const;
const outcome = (start: number, end: number, cut = { start, end }): ShownOutcome => ({
  kind: 'region',
  start,
  end,
  cut,
  notes: [],
});

test('a region that hangs on nothing lies where it says; others where the run in front has it', () => {
  expect(laidRegion(region, undefined)).toMatchObject({ start: 1, end: 2 });
  // While a hand drags it, the sheet is ahead of what was worked out.
  expect(laidRegion(region, outcome(5, 6))).toMatchObject({ start: 1, end: 2 });
  expect(laidRegion({ ...region, from: rises }, outcome(5, 6))).toMatchObject({ start: 5, end: 6 });
  expect(laidRegion({ ...region, from: rises }, { kind: 'refused', sentence: '' })).toBeNull();
  const other: EntryOfKind<'region'> = { ...region, id: 'B', along: 'channel:x' };
  expect(laidRegions([region, other], 't', {}).map(({ id }) => id)).toEqual(['A']);
});

test('an end that is attached is moved by how long after its event it lies, the other one as it is', () => {
  const attached = { ...region, from: rises };
  const laid = laidRegion(attached, outcome(4.5, 6));
  const patch = placed(attached, 'r', { start: 4.7, end: 7 }, { before: attached, laid });
  expect(patch.from?.offset).toBeCloseTo(0.7, 12);
  expect(patch.end).toBe(7);
  expect(patch.start).toBeUndefined();
  // The picture is a step behind the sheet: what it was made of tells where the event is.
  const ahead = { ...attached, from: { ...rises, offset: 0.6 } };
  expect(placed(ahead, 'r', { start: 4.7 }, { before: attached, laid }).from?.offset).toBeCloseTo(0.7, 12);
});

test('in a run in which it lies elsewhere, only that is moved; and it is put back', () => {
  const here = laidRegion(region, undefined);
  if (here === null) throw new Error('it lies somewhere');
  const own = { ...region, ...withOwn(region, 'r', here) };
  expect(placed(own, 'r', { end: 3 }, { before: own, laid: here })).toEqual({
    own: [{ run: 'r', start: 1, end: 3 }],
  });
  expect(placed(own, 'other', { end: 3 }, { before: own, laid: here })).toEqual({ end: 3 });
  expect(withoutOwn(own, 'r')).toEqual([]);
});
