import { emptyWorkings } from '@heuristor/contracts';
import { HeldRuns } from '@heuristor/evaluation';
import { countIn, usualRule } from '@heuristor/core';
import { runOf, stored, swing } from '../testing/runs';
import { outliersIn, readingsIn } from './chosenReadings';

const evaluator = () => stored(runOf('a', ['x', 'F']), [swing(400), swing(400)]);
const derived = {
  ...emptyWorkings,
  entries: [{ kind: 'derivative' as const, id: 'v', name: 'v', of: 'channel:x' as const, windowPoints: 9 }],
};

test('a stretch of time holds the readings at its ends; of a derived series, those of the channel it comes from', () => {
  const stretch = { along: 't' as const, start: 1, end: 1.2 };
  expect(readingsIn(evaluator(), emptyWorkings, 'channel:F', stretch)).toEqual({
    channel: 'F',
    ranges: [[50, 61]],
    total: 400,
  });
  expect(readingsIn(evaluator(), derived, 'entry:v', stretch)).toMatchObject({
    channel: 'x',
    ranges: [[50, 61]],
  });
});

test('a stretch of another quantity holds what lies there at any time', () => {
  const found = readingsIn(evaluator(), emptyWorkings, 'channel:F', {
    along: 'channel:x',
    start: 0.82,
    end: 1,
  });
  const wanted = [...swing(400)].filter((value) => value >= 0.82 && value <= 1).length;
  expect(countIn(found?.ranges ?? [], 0, 400)).toBe(wanted);
});

test('passes through a gate, and series that are not there, have no readings of their own', () => {
  const gate = runOf('g', ['A']);
  gate.channels[0].sampling = { kind: 'events' };
  const store = new HeldRuns();
  store.put(gate, { values: [Float64Array.of(1, 0, 1, 0)], times: [Float64Array.of(0.1, 0.2, 0.4, 0.5)] });
  const edges = store.evaluator('g');
  if (edges === null) throw new Error('the run is not there');
  expect(readingsIn(edges, emptyWorkings, 'channel:A', { along: 't', start: 0, end: 9 })).toBeNull();
  expect(readingsIn(evaluator(), emptyWorkings, 'channel:U', { along: 't', start: 0, end: 9 })).toBeNull();
});

test('what stands off is found where it is, and only in the stretch', () => {
  const values = swing(400);
  values[100] += 0.2;
  values[300] -= 0.3;
  const own = stored(runOf('a', ['F']), [values]);
  const all = outliersIn(own, emptyWorkings, 'channel:F', { along: 't', start: 0, end: 8 }, usualRule);
  expect(countIn(all?.ranges ?? [], 100, 101)).toBe(1);
  expect(countIn(all?.ranges ?? [], 300, 301)).toBe(1);
  const early = outliersIn(own, emptyWorkings, 'channel:F', { along: 't', start: 0, end: 4 }, usualRule);
  expect(countIn(early?.ranges ?? [], 201, 400)).toBe(0);
});
