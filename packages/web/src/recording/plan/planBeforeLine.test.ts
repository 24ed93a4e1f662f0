import { type Plan, usualPlan } from '@heuristor/contracts';
import { keepBeforeLine, leavingLine, lineCountdown } from './planBeforeLine';

const pace = {
  points: [
    { t: 0, value: 1 },
    { t: 12, value: 2 },
  ],
} as unknown as NonNullable<Plan['pace']>;

const followed: Plan = {
  ...usualPlan,
  way: 'pace',
  pace,
  begin: lineCountdown,
  end: { kind: 'after', seconds: 12 },
};

test('who leaves a line finds beginning and end as they were before it', () => {
  const bench = {};
  keepBeforeLine(bench, { ...usualPlan, end: { kind: 'stopped' } });
  keepBeforeLine(bench, followed);
  expect(leavingLine(bench, followed)).toEqual({ begin: { kind: 'at-once' }, end: { kind: 'stopped' } });
  // After a reload nobody knows; then it is as it is of a new investigation.
  expect(leavingLine({}, followed)).toEqual({ begin: usualPlan.begin, end: usualPlan.end });
});

test('what was set by hand since stays', () => {
  expect(leavingLine({}, { ...followed, end: { kind: 'after', seconds: 7 } })).toEqual({});
  expect(leavingLine({}, { ...followed, begin: { kind: 'countdown', seconds: 9 } })).toEqual({
    end: usualPlan.end,
  });
  expect(leavingLine({}, { ...followed, way: 'time' })).toEqual({});
});
