import { emptyWorkings } from '@heuristor/contracts';
import { runOf, stored } from '../testing/runs';
import { readAt, steppedFrom } from './atCursor';

// x = 1 + 2 t², 50 readings a second: 3 m at 1 s, where the slope is 4 m/s.
const values = Float64Array.from({ length: 101 }, (_, i) => 1 + 2 * (i * 0.02) ** 2);
const evaluator = () => stored(runOf('a', ['F']), [values.slice()]);
const question = {
  workings: emptyWorkings,
  references: ['channel:F' as const, 'channel:U' as const],
  at: 1.007,
  snap: true,
  tangentPoints: null,
  withNoise: false,
};

test('a cursor reads the nearest reading, or the line between two; what a run has not is left out', () => {
  const snapped = readAt(evaluator(), question).values;
  expect(snapped['channel:F']?.x).toBeCloseTo(1, 12);
  expect(snapped['channel:F']?.y).toBeCloseTo(3, 12);
  expect(snapped['channel:U']).toBeUndefined();
  const free = readAt(evaluator(), { ...question, snap: false }).values['channel:F'];
  expect(free?.x).toBe(1.007);
  // Between 3 and 1 + 2 · 1.02².
  expect(free?.y).toBeCloseTo(3 + 0.35 * (2 * 1.02 ** 2 - 2), 9);
});

test('its tangent is that of the parabola', () => {
  const tangent = readAt(evaluator(), { ...question, tangentPoints: 9 }).values['channel:F']?.tangent;
  expect(tangent?.slope).toBeCloseTo(4, 9);
  expect(tangent?.window).toBeCloseTo(0.16, 12);
});

test('beyond the run by more than half a reading nothing is read', () => {
  expect(readAt(evaluator(), { ...question, at: -0.009 }).values['channel:F']?.y).toBe(1);
  expect(readAt(evaluator(), { ...question, at: -0.011 }).values['channel:F']).toBeUndefined();
  expect(readAt(evaluator(), { ...question, at: 3 }).values).toEqual({});
});

test('steps go from reading to reading and end at the ends', () => {
  const step = (at: number, by: number) => steppedFrom(evaluator(), emptyWorkings, 'channel:F', at, by);
  expect(step(1, 1)).toBeCloseTo(1.02, 12);
  expect(step(1.007, -10)).toBeCloseTo(0.8, 12);
  expect(step(1, 1000)).toBeCloseTo(2, 12);
  expect(step(1, -1000)).toBe(0);
  expect(steppedFrom(evaluator(), emptyWorkings, 'channel:U', 1, 1)).toBeNull();
});
