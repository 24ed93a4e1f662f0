import fc from 'fast-check';
import { type Ranges, countIn, rangesOf, united, without } from './ranges';

const held = (ranges: Ranges) =>
  new Set(ranges.flatMap(([first, past]) => Array.from({ length: past - first }, (_, i) => first + i)));
const some = fc
  .array(fc.tuple(fc.nat(60), fc.nat(12)), { maxLength: 8 })
  .map((pairs): Ranges => pairs.map(([first, length]) => [first, first + length]));
const isApart = (ranges: Ranges) =>
  ranges.every(([first, past], i) => past > first && (i === 0 || first > ranges[i - 1][1]));

test('ranges hold together, and without each other, what sets of their indices do', () =>
  fc.assert(
    fc.property(some, some, fc.nat(80), fc.nat(80), (a, b, x, y) => {
      const both = united(a, b);
      expect(held(both)).toEqual(new Set([...held(a), ...held(b)]));
      expect(isApart(both)).toBe(true);
      const rest = without(united(a, []), united(b, []));
      expect(held(rest)).toEqual(new Set([...held(a)].filter((index) => !held(b).has(index))));
      const [first, past] = [Math.min(x, y), Math.max(x, y)];
      expect(countIn(both, first, past)).toBe(
        [...held(both)].filter((index) => index >= first && index < past).length,
      );
    }),
    { numRuns: 500 },
  ));

test('single readings become ranges', () =>
  expect(rangesOf([7, 3, 4, 5, 9])).toEqual([
    [3, 6],
    [7, 8],
    [9, 10],
  ]));
