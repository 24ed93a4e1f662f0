import { emptyWorkings, panelOf } from '@heuristor/contracts';
import { parseUnit } from '@heuristor/core';
import { pixelOf, valueAtPixel } from './geometry';
import { composeTraces, frameOf } from './compose';
import { type CompleteRun, type CompleteTrace } from './knownLines';
import { type Extent } from '../workers/protocol';

const extent = (unit: string, low: number, high: number, step = 0.02): Extent => ({
  symbol: 't',
  unit: parseUnit(unit),
  quantity: 'time',
  low,
  high,
  leastPositive: low > 0 ? low : null,
  notPositive: 0,
  step,
});

describe('the axis that runs share', () => {
  test('reaches over all runs, each brought into the unit of the first', () => {
    const { whole, sight, step } = frameOf([extent('s', 0, 8), extent('ms', -500, 9000, 1)], true);
    expect(whole).toEqual({ from: -0.5, to: 9 });
    expect(sight).toBe(whole);
    expect(step).toBeCloseTo(0.001, 12);
  });

  test('leaves out a run that measures something else', () =>
    expect(frameOf([extent('m', 0, 2), extent('N', -100, 100)], true).whole).toEqual({
      from: 0,
      to: 2,
    }));

  test('has a little air where it is not time, and shows what somebody looks at', () => {
    const looked = { from: 1, to: 1.5 };
    const { whole, sight } = frameOf([extent('m', 0, 1)], false, { sight: looked });
    expect(whole.from).toBeLessThan(0);
    expect(whole.to).toBeGreaterThan(1);
    expect(sight).toEqual(looked);
  });

  test('has a little air about readings that are numbered, so that the first and the last are whole', () => {
    const { whole } = frameOf([extent('1', 1, 3, 1)], true);
    expect(whole.from).toBeLessThan(1);
    expect(whole.to).toBeGreaterThan(3);
  });

  test('stands where there is nothing yet, and where there is one reading', () => {
    expect(frameOf([], true).whole).toEqual({ from: 0, to: 10 });
    const { whole } = frameOf([extent('s', 3, 3)], true);
    expect(whole.to).toBeGreaterThan(3);
    expect(whole.from).toBeLessThan(3);
  });
});

describe('the panels of the stack', () => {
  const part = (unit: string, y: number[]): CompleteTrace => ({
    symbol: 'x',
    quantity: 'position',
    unit: parseUnit(unit),
    line: { x: Float64Array.from(y, (_, i) => i), y: Float64Array.from(y), isBand: false },
    whole: null,
    curves: [],
  });
  const rendered = (runId: string, own: CompleteTrace): CompleteRun => ({
    runId,
    traces: { 'channel:x': own },
    residuals: {},
    graphs: {},
  });
  const looked = (from: number, to: number, withZero = false) => ({
    sight: { from, to },
    withZero,
    scales: {},
    reach: 'shown' as const,
    isGrowing: false,
  });
  const all = looked(0, 10);
  const panels = [panelOf('channel:x')];

  test('show centimetres and metres in one unit: that of the newest run, which was chosen last', () => {
    const [trace] = composeTraces(
      [rendered('1', part('m', [0, 1, 2])), rendered('2', part('cm', [100, 50, 0]))],
      emptyWorkings,
      panels,
      all,
    );
    expect(trace.lines.map(({ y }) => [...y])).toEqual([
      [0, 100, 200],
      [100, 50, 0],
    ]);
    expect(trace.others).toEqual([]);
  });

  test('runs in kelvin and in degrees Celsius stand on one axis, each where it belongs', () => {
    const of = (unit: string, y: number[]) => rendered(unit, part(unit, y));
    const [trace] = composeTraces(
      [of('K', [273.15, 373.15]), of('Cel', [0, 100])],
      emptyWorkings,
      [panelOf('channel:x')],
      {
        sight: { from: 0, to: 10 },
        withZero: false,
        scales: {},
        reach: 'shown',
        isGrowing: false,
      },
    );
    expect(trace.others).toEqual([]);
    expect(trace.lines.map(({ y }) => Array.from(y, (value) => Number(value.toFixed(9))))).toEqual([
      [0, 100],
      [0, 100],
    ]);
  });

  test('name the runs that measure something else, and do not draw them', () => {
    const [trace] = composeTraces(
      [rendered('1', part('m', [0, 1])), rendered('2', part('V', [5, 6]))],
      emptyWorkings,
      panels,
      all,
    );
    expect(trace.lines.map(({ runId }) => runId)).toEqual(['1']);
    expect(trace.others).toEqual(['2']);
  });

  test('scale to what is in sight, missing readings left out', () => {
    const run = rendered('1', part('m', [500, 1, NaN, 3, -500]));
    const [trace] = composeTraces([run], emptyWorkings, panels, looked(1, 3));
    expect(trace.low).toBeGreaterThan(0.5);
    expect(trace.low).toBeLessThanOrEqual(1);
    expect(trace.high).toBeGreaterThanOrEqual(3);
    expect(trace.high).toBeLessThan(3.5);
  });

  test('show zero where it is near, and leave it out where it would take the room of the values', () => {
    const reachOf = (values: number[], withZero: boolean | 'near') => {
      const [{ low, high }] = composeTraces([rendered('1', part('m', values))], emptyWorkings, panels, {
        ...all,
        withZero,
      });
      return [low <= 0 && high >= 0, (Math.max(...values) - Math.min(...values)) / (high - low)];
    };
    // Loads from 0.1 to 0.5, and frequencies from 8 to 16.
    expect(reachOf([0.1, 0.2, 0.3, 0.4, 0.5], 'near')[0]).toBe(true);
    expect(reachOf([-0.1, -0.2, -0.5], 'near')[0]).toBe(true);
    expect(reachOf([8, 10, 12, 14, 16], 'near')).toEqual([false, expect.closeTo(1 / 1.12, 6)]);
    expect(reachOf([8, 10, 12, 14, 16], true)[0]).toBe(true);
  });

  test('stand with nothing in sight', () => {
    const [trace] = composeTraces([rendered('1', part('m', [1, 2]))], emptyWorkings, panels, looked(50, 60));
    expect([trace.low, trace.high]).toEqual([0, 1]);
  });

  test('show their zero where that is asked for', () => {
    const [trace] = composeTraces(
      [rendered('1', part('m', [5, 6, 7]))],
      emptyWorkings,
      panels,
      looked(0, 10, true),
    );
    expect(trace.low).toBeLessThanOrEqual(0);
    expect(trace.high).toBeGreaterThan(7);
  });

  const second = (unit: string, y: number[], symbol: string): CompleteTrace => ({ ...part(unit, y), symbol });
  const both = [{ ...panelOf('channel:x'), series: ['channel:x' as const, 'channel:F' as const] }];
  const run = (f: CompleteTrace): CompleteRun => ({
    runId: '1',
    traces: { 'channel:x': part('m', [0, 1, 2]), 'channel:F': f },
    residuals: {},
    graphs: {},
  });

  test('read what is in another unit on a second axis, and what is in the same one on the first', () => {
    const [trace] = composeTraces([run(second('N', [10, 20, 30], 'F'))], emptyWorkings, both, all);
    expect(trace.quantities).toEqual([
      { reference: 'channel:x', symbol: 'x', quantity: 'position', side: 'left' },
      { reference: 'channel:F', symbol: 'F', quantity: 'position', side: 'right' },
    ]);
    expect([trace.symbol, trace.right?.symbol]).toEqual(['x', 'F']);
    expect(trace.high).toBeLessThan(3);
    expect(trace.right?.low).toBeGreaterThan(8);
    const [shared] = composeTraces([run(second('cm', [100, 150, 300], 'y'))], emptyWorkings, both, all);
    expect(shared.right).toBeNull();
    expect(shared.symbol).toBe('x, y');
    expect([...shared.lines[1].y]).toEqual([1, 1.5, 3]);
    expect(shared.high).toBeGreaterThan(3);
  });

  test('name what is in a third unit, and do not draw it', () => {
    const three = [{ ...both[0], series: [...both[0].series, 'channel:U' as const] }];
    const { traces, ...rest } = run(second('N', [1, 2], 'F'));
    const measured = { ...rest, traces: { ...traces, 'channel:U': second('V', [1, 2], 'U') } };
    const [trace] = composeTraces([measured], emptyWorkings, three, all);
    expect(trace.lacking).toEqual(['U']);
    expect(trace.lines).toHaveLength(2);
  });

  test('leave runs out that are not wanted in them', () => {
    const without = [{ ...panelOf('channel:x'), without: ['2'] }];
    const runs = [rendered('1', part('m', [0, 1])), rendered('2', part('m', [5, 6]))];
    const [trace] = composeTraces(runs, emptyWorkings, without, all);
    expect(trace.lines.map(({ runId }) => runId)).toEqual(['1']);
    expect(trace.high).toBeLessThan(2);
  });

  test('stand as a hand has set them, each axis by itself', () => {
    const frame = { ...all, scales: { 'channel:x/right': { from: -5, to: 50 } } };
    const [trace] = composeTraces([run(second('N', [10, 20], 'F'))], emptyWorkings, both, frame);
    expect([trace.right?.low, trace.right?.high]).toEqual([-5, 50]);
    expect(trace.high).toBeLessThan(3);
  });

  test('hold all of the data where that is asked for, also what is not in sight', () => {
    const whole = { ...part('m', [3, 4]), whole: { low: -2, high: 9 } };
    const [trace] = composeTraces([rendered('1', whole)], emptyWorkings, panels, { ...all, reach: 'all' });
    expect(trace.low).toBeLessThan(-2);
    expect(trace.high).toBeGreaterThan(9);
  });
});

describe('the axis of a run that is recorded', () => {
  const reached = (to: number): Extent => ({ ...extent('s', 0, to, 0.02) });
  test('reaches to where the run will end, where that is known', () =>
    expect(frameOf([reached(1.2)], true, { isGrowing: true, expected: 8 }).whole).toEqual({
      from: 0,
      to: 8,
    }));
  test('otherwise grows now and then, and fits when the run has ended', () => {
    let before = frameOf([reached(1)], true, { isGrowing: true });
    let moves = 0;
    for (let t = 1; t < 60; t += 0.04) {
      const frame = frameOf([reached(t)], true, { isGrowing: true, before });
      if (frame.whole.to !== before.whole.to) moves++;
      expect(frame.whole.to).toBeGreaterThanOrEqual(t);
      before = frame;
    }
    expect(moves).toBeLessThan(25);
    expect(frameOf([reached(60)], true, { before }).whole.to).toBe(60);
  });
});

test.each([
  [0, { from: -1, to: 1 }, 640],
  [1.7e9 + 0.25, { from: 1.7e9, to: 1.7e9 + 1 }, 640],
  [-3, { from: -2, to: 8 }, 320],
])('the pixel of %p leads back to it', (value, sight, width) =>
  expect(valueAtPixel(pixelOf(value, sight, width), sight, width)).toBeCloseTo(value, 6),
);
