import { type EntryOfKind, parseUnit } from '@heuristor/core';
import { type ShownOutcome } from '../../workers/protocol';
import { fromAxis, laidRegion, laidRegions, placed, withOwn, withoutOwn } from './regions';

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
  expect(laidRegion(region, undefined, 'r1')).toMatchObject({ start: 1, end: 2 });
  // While a hand drags it, the sheet is ahead of what was worked out.
  expect(laidRegion(region, outcome(5, 6), 'r1')).toMatchObject({ start: 1, end: 2 });
  expect(laidRegion({ ...region, from: rises }, outcome(5, 6), 'r1')).toMatchObject({ start: 5, end: 6 });
  expect(laidRegion({ ...region, from: rises }, { kind: 'refused', sentence: '' }, 'r1')).toBeNull();
  const other: EntryOfKind<'region'> = { ...region, id: 'B', along: 'channel:x' };
  expect(laidRegions([region, other], 't', {}, { run: 'r1', axis: undefined }).map(({ id }) => id)).toEqual([
    'A',
  ]);
});

test('an end that is attached is moved by how long after its event it lies, the other one as it is', () => {
  const attached = { ...region, from: rises };
  const laid = laidRegion(attached, outcome(4.5, 6), 'r1');
  const patch = placed(attached, 'r', { start: 4.7, end: 7 }, { before: attached, laid });
  expect(patch.from?.offset).toBeCloseTo(0.7, 12);
  expect(patch.end).toBe(7);
  expect(patch.start).toBeUndefined();
  // The picture is a step behind the sheet: what it was made of tells where the event is.
  const ahead = { ...attached, from: { ...rises, offset: 0.6 } };
  expect(placed(ahead, 'r', { start: 4.7 }, { before: attached, laid }).from?.offset).toBeCloseTo(0.7, 12);
});

test('in a run in which it lies elsewhere, only that is moved; and it is put back', () => {
  const here = laidRegion(region, undefined, 'r1');
  if (here === null) throw new Error('it lies somewhere');
  const own = { ...region, ...withOwn(region, 'r', here) };
  expect(placed(own, 'r', { end: 3 }, { before: own, laid: here })).toEqual({
    own: [{ run: 'r', start: 1, end: 3 }],
  });
  expect(placed(own, 'other', { end: 3 }, { before: own, laid: here })).toEqual({ end: 3 });
  expect(withoutOwn(own, 'r')).toEqual([]);
});

test('a region along a length lies where it was put, whatever the unit of the axis and of the run in front', () => {
  const x = 'channel:x';
  const told: EntryOfKind<'region'> = {
    ...region,
    along: x,
    start: 0.3048,
    end: 0.6096,
    toldIn: { [x]: 'm' },
  };
  const feet = parseUnit('[ft_i]');
  const [laid] = laidRegions([told], x, {}, { run: 'r', axis: feet });
  expect([laid.start, laid.end, laid.cut.end].map((end) => Number(end.toFixed(9)))).toEqual([1, 2, 2]);
  expect(fromAxis(told, { end: 3 }, feet).end).toBeCloseTo(0.9144, 12);
  // An axis of another kind shows none of it.
  expect(laidRegions([told], x, {}, { run: 'r', axis: parseUnit('N') })).toEqual([]);
  const own = { ...told, own: [{ run: 'r', start: 0.6096, end: 0.9144 }] };
  expect(laidRegions([own], x, {}, { run: 'r', axis: feet })[0].start).toBeCloseTo(2, 9);
  expect(laidRegions([own], x, {}, { run: 'other', axis: feet })[0].start).toBeCloseTo(1, 9);
});
