import { type SampleFrame, frameKinds } from '@heuristor/contracts';
import { EdgeWatch } from './edgeWatch';

const frame = (times: number[], states: number[]): SampleFrame => ({
  kind: frameKinds.link,
  subject: 0,
  firstIndex: 0,
  channels: 2,
  times: Float64Array.from(times),
  values: Float64Array.from(states),
});

test('of an event, only what has changed is an edge; how things stand at time 0 is none', () => {
  const watch = new EdgeWatch(2);
  expect(watch.states).toEqual([null, null]);
  const first = watch.edgesIn(frame([0, 0.5, 0.7], [0, 1, 1, 1, 1, 0]));
  expect([...first.values]).toEqual([NaN, NaN, 1, NaN, NaN, 0]);
  expect(watch.states).toEqual([1, 0]);
  const next = watch.edgesIn(frame([0.9], [0, 0]));
  expect([...next.values]).toEqual([0, NaN]);
});

test('a device that does not say how things stand gives its first edges all the same', () => {
  const watch = new EdgeWatch(2);
  expect([...watch.edgesIn(frame([0.5], [1, 0])).values]).toEqual([1, 0]);
});

test('a stream that begins anew is not held against the one before', () => {
  const watch = new EdgeWatch(2);
  watch.edgesIn(frame([0], [1, 0]));
  watch.forget();
  expect(watch.states).toEqual([null, null]);
});
