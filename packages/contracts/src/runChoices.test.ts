import { lookOf, withLooks } from './runChoices';
import { emptyWorkings } from './workings';

const runs = [
  { id: 'a', number: 1 },
  { id: 'b', number: 2 },
  { id: 'c', number: 11 },
];
const [a, b, c] = runs;

test('a run of which nothing is said is shown in the style of its number, without what is no measurement', () => {
  expect(runs.map((run) => lookOf(run, []))).toEqual([
    { shown: true, style: 0, keepPinned: false },
    { shown: true, style: 1, keepPinned: false },
    { shown: true, style: 2, keepPinned: false },
  ]);
});

test('what is chosen is kept run by run, and what is as usual again is not kept', () => {
  const hidden = withLooks(emptyWorkings, [a, b], ({ id }) => ({ shown: id === 'b' }));
  expect(hidden.runs).toEqual([{ run: 'a', hidden: true }]);
  const drawn = withLooks(hidden, [a, c], () => ({ style: 5 }));
  expect(drawn.runs).toEqual([
    { run: 'a', hidden: true, style: 5 },
    { run: 'c', style: 5 },
  ]);
  expect(lookOf(a, drawn.runs)).toEqual({ shown: false, style: 5, keepPinned: false });
  const back = withLooks(drawn, runs, ({ number }) => ({ shown: true, style: (number - 1) % 8 }));
  expect(back.runs).toEqual([]);
  expect(withLooks(back, [c], () => ({ keepPinned: true })).runs).toEqual([{ run: 'c', keepPinned: true }]);
});
