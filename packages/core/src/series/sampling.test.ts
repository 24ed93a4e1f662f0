import fc from 'fast-check';
import { Refusal } from '../refusal';
import { checkSampling, indexAfter, indexAtOrAfter, regular, timeAt, timed, timesOf } from './sampling';

test('places on a regular grid are those that a search through its times finds', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -1e4, max: 1e4, noNaN: true }),
      fc.double({ min: 1e-5, max: 10, noNaN: true }),
      fc.integer({ min: 0, max: 50 }),
      fc.integer({ min: -3, max: 53 }),
      (start, interval, count, place) => {
        const grid = regular(start, interval, count);
        const times = timed(timesOf(grid).slice());
        for (const at of [timeAt(grid, place), timeAt(grid, place) + interval / 3]) {
          expect(indexAtOrAfter(grid, at)).toBe(indexAtOrAfter(times, at));
          expect(indexAfter(grid, at)).toBe(indexAfter(times, at));
        }
      },
    ),
    { numRuns: 300, seed: 4 },
  );
});

test.each([
  ['a time that is none', timed(Float64Array.of(0, NaN, 2)), 'The time of reading 2 is NaN'],
  ['times that descend', timed(Float64Array.of(0, 2, 1)), 'The time of reading 3 (1) is not after'],
  ['a time that comes twice', timed(Float64Array.of(0, 1, 1)), 'is not after'],
  ['an infinite time', timed(Float64Array.of(0, Infinity)), 'The time of reading 2 is Infinity'],
  ['an interval of nothing', regular(0, 0, 5), 'positive interval'],
  ['half a reading', regular(0, 1, 2.5), 'whole number'],
])('the door refuses %s', (_, sampling, words) => {
  expect(() => checkSampling(sampling)).toThrow(Refusal);
  expect(() => checkSampling(sampling)).toThrow(words);
});
