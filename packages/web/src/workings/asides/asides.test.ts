import { emptyWorkings, workingsSchema } from '@heuristor/contracts';
import { withAside, withoutAside } from './asides';

const own = (run: string, channel: string, ...ranges: [number, number][]) => ({ run, channel, ranges });

test('readings are set aside by run and channel, together with those that were, and come back', () => {
  const once = withAside(emptyWorkings, [own('a', 'x', [3, 5]), own('b', 'x', [0, 1])]);
  const twice = withAside(once, [own('a', 'x', [4, 9]), own('a', 'F', [1, 2])]);
  expect(twice.aside).toEqual([own('b', 'x', [0, 1]), own('a', 'x', [3, 9]), own('a', 'F', [1, 2])]);
  expect(workingsSchema.safeParse(twice).success).toBe(true);
  const back = withoutAside(twice, [own('a', 'x', [5, 6]), own('b', 'x', [0, 7])]);
  expect(back.aside).toEqual([own('a', 'F', [1, 2]), own('a', 'x', [3, 5], [6, 9])]);
  // Nothing is left of what has come back whole.
  expect(withoutAside(once, once.aside).aside).toEqual([]);
});
