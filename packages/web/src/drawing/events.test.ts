import { emptyWorkings } from '@heuristor/contracts';
import { HeldRuns } from '@heuristor/evaluation';
import { pictureOf } from '../testing/picture';
import { runOf } from '../testing/runs';

const switched = (id: string, channels: { key: string; times: number[] | null; values: number[] }[]) => {
  const run = runOf(
    id,
    channels.map(({ key }) => key),
  );
  channels.forEach(({ times }, i) => {
    // A switch has no limits.
    if (times !== null)
      Object.assign(run.channels[i], { sampling: { kind: 'events' }, low: null, high: null });
  });
  const store = new HeldRuns();
  store.put(run, {
    values: channels.map(({ values }) => Float64Array.from(values)),
    times: channels.map(({ times }) => (times === null ? null : Float64Array.from(times))),
  });
  const evaluator = store.evaluator(id);
  if (evaluator === null) throw new Error('the run is not there');
  return evaluator;
};

test('a lamp that is switched twice is drawn over all of the run, and not from its first switch to its last', () => {
  const lamp = switched('a', [
    { key: 'lamp', times: [1, 3], values: [1, 0] },
    { key: 'x', times: null, values: Array.from({ length: 301 }, () => 1) },
  ]);
  const { traces } = pictureOf([lamp], emptyWorkings, ['channel:lamp', 'channel:x']);
  const [{ x, y }] = traces[0].lines;
  expect([...x].map((at, i) => [at, y[i]])).toEqual([
    [0, 0],
    [1, 0],
    [1, 1],
    [3, 1],
    [3, 0],
    [6, 0],
  ]);
});

test('passes that come late fill the plot: the axis begins shortly before the first and ends shortly after the last', () => {
  const gate = switched('a', [{ key: 'gate', times: [40, 40.5, 41, 42], values: [1, 0, 1, 0] }]);
  const { frame } = pictureOf([gate], emptyWorkings, ['channel:gate']);
  expect(frame.sight.from).toBeGreaterThan(39.5);
  expect(frame.sight.from).toBeLessThan(40);
  expect(frame.sight.to).toBeGreaterThan(42);
  expect(frame.sight.to).toBeLessThan(42.5);
});
