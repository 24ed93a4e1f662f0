import { LevelWatch } from './levelWatch';

const watched = (
  direction: 'rise' | 'fall',
  level: number,
  values: number[],
  nothing: number | null = null,
) => {
  const watch = new LevelWatch(0, direction, level, nothing);
  for (const [index, value] of values.entries()) {
    const crossed = watch.sees({ index, own: Float64Array.of(value) });
    if (crossed !== null) return crossed.map((reading) => reading.index);
  }
  return null;
};

test('what rises through the level begins with the first reading beyond it', () => {
  expect(watched('rise', 2, [1.8, 1.9, 1.95, 2.01, 2.1, 2.2])).toEqual([3, 4]);
  expect(watched('fall', 2, [2.2, 2.1, 2, 1.9])).toEqual([2, 3]);
});

test('a lone wrong echo is no crossing, on either side', () => {
  expect(watched('rise', 2, [1, 1, 6, 1, 1, 6, 1])).toBeNull();
  expect(watched('fall', 2, [1, 1, 6, 1, 1, 1])).toBeNull();
  expect(watched('rise', 2, [1, 1, 6, 1, 2.5, 2.6])).toEqual([4, 5]);
});

test('what stands beyond the level from the start has not crossed it', () => {
  expect(watched('rise', 2, [3, 3, 3, 3])).toBeNull();
  expect(watched('rise', 2, [3, 3, 1, 1, 3, 3])).toEqual([4, 5]);
});

test('what is no number is on neither side', () => {
  expect(watched('rise', 2, [1, 1, NaN, 3, NaN, 3, 3])).toEqual([5, 6]);
  expect(watched('rise', 2, [NaN, NaN, 3, 3])).toBeNull();
});

test('echoes that are lost, however many in a row, are no motion', () => {
  expect(watched('rise', 2, [1, 1, 6, 6, 6, 1, 1], 6)).toBeNull();
  expect(watched('rise', 2, [1, 1, 6, 6, 2.1, 2.2], 6)).toEqual([4, 5]);
  expect(watched('rise', 2, [1, 1, 6, 6, 1, 1])).toEqual([2, 3]);
});
