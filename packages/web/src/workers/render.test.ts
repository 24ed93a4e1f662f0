import { type Run, type WorkingsDocument, emptyWorkings } from '@heuristor/contracts';
import { type Evaluator, readColumns } from '@heuristor/core';
import { exportTable } from './exportTable';
import { render } from './render';
import { RunStore } from './runStore';

const runOf = (id: string, keys: string[], interval: number | null = 0.02): Run => ({
  id,
  investigationId: 'i',
  number: 1,
  name: id,
  origin: 'recorded',
  state: 'ended',
  shown: true,
  style: 0,
  startedAt: '2026-11-23T10:00:00Z',
  removed: false,
  gaps: [],
  channels: keys.map((key, i) => ({
    id: i + 1,
    key,
    symbol: key,
    quantity: key === 'x' ? 'position' : key,
    unit: key === 'x' ? 'm' : 'N',
    timeUnit: 's',
    interval,
    start: 0,
    low: 0.15,
    high: 6,
    deviceCode: 'K7-D',
    zero: 0,
    reversed: false,
  })),
});

const swing = (count: number) =>
  Float64Array.from({ length: count }, (_, i) => 0.8 + 0.04 * Math.sin(i * 0.1));

function stored(id: string, values: Float64Array[], keys = ['x']): Evaluator {
  const store = new RunStore();
  store.put(
    runOf(id, keys),
    values,
    values.map(() => null),
  );
  const evaluator = store.evaluator(id);
  if (evaluator === null) throw new Error('the run is not there');
  return evaluator;
}

const request = (workings: WorkingsDocument, viewport: { from: number; to: number } | null = null) => ({
  workings,
  runIds: [],
  viewport,
  width: 600,
});

describe('what is drawn', () => {
  test('a lone lost echo does not flatten the trace: the scale keeps to the motion', () => {
    const values = swing(400);
    values[200] = 6;
    const { traces } = render([stored('a', [values])], request(emptyWorkings));
    expect(traces[0].high).toBeLessThan(0.86);
    expect(traces[0].low).toBeGreaterThan(0.74);
  });

  test('a run of 10⁵ readings becomes a few thousand points that keep its extremes', () => {
    const values = swing(100_000);
    values[54_321] = 0.95;
    const { traces } = render([stored('a', [values])], request(emptyWorkings));
    const [{ y }] = traces[0].lines;
    expect(y.length).toBeLessThan(2000);
    expect(Math.max(...y)).toBe(0.95);
  });

  test('the scale follows what is in sight', () => {
    const values = Float64Array.from({ length: 400 }, (_, i) => 0.5 + i * 0.001);
    const { traces, viewport, whole } = render(
      [stored('a', [values])],
      request(emptyWorkings, { from: 2, to: 4 }),
    );
    expect(viewport).toEqual({ from: 2, to: 4 });
    expect(whole.to).toBeCloseTo(399 * 0.02, 9);
    expect(traces[0].low).toBeCloseTo(0.6 - 0.006, 6);
    expect(traces[0].high).toBeCloseTo(0.7 + 0.006, 6);
  });

  test('one quantity can be drawn against another', () => {
    const force = swing(50).map((value) => 10 * (value - 0.8) + 1);
    const workings = { ...emptyWorkings, horizontal: 'channel:x' as const };
    const { traces, horizontal } = render([stored('a', [swing(50), force], ['x', 'F'])], request(workings));
    expect(horizontal.symbol).toBe('x');
    expect(traces.map(({ symbol }) => symbol)).toEqual(['F']);
    const [{ x, y }] = traces[0].lines;
    x.forEach((value, i) => expect(y[i]).toBeCloseTo(10 * (value - 0.8) + 1, 12));
  });

  test('a fit brings its curve, and its residuals where they are wanted', () => {
    const workings: WorkingsDocument = {
      ...emptyWorkings,
      lines: [
        {
          kind: 'fit',
          id: 'f',
          name: '',
          region: null,
          of: 'channel:x',
          against: 't',
          relation: 'sine',
          showResiduals: true,
        },
      ],
    };
    const { traces, outcomes } = render([stored('a', [swing(400)])], request(workings));
    expect(traces.map(({ key }) => key)).toEqual(['channel:x', 'residuals:f']);
    expect(traces[0].curves[0].x).toHaveLength(240);
    expect(Math.max(...traces[1].lines[0].y.map(Math.abs))).toBeLessThan(1e-9);
    expect(outcomes.a.f.kind).toBe('results');
  });

  test('no run at all is drawn as ten empty seconds, not as a fault', () => {
    expect(render([], request(emptyWorkings))).toMatchObject({ traces: [], whole: { from: 0, to: 10 } });
  });
});

describe('readings that come live', () => {
  test('go on where the stored ones end; what is known already is passed over', () => {
    const store = new RunStore();
    store.put(runOf('a', ['x']), [Float64Array.of(1, 2, 3)], [null]);
    store.append(1, 1, Float64Array.of(2, 3, 4, 5));
    store.append(1, 0, Float64Array.of(1));
    expect([...(store.evaluator('a')?.run.channels[0].values ?? [])]).toEqual([1, 2, 3, 4, 5]);
  });

  test('a hole between stored and live ones stays a hole', () => {
    const store = new RunStore();
    store.put(runOf('a', ['x']), [Float64Array.of(1)], [null]);
    store.append(1, 3, Float64Array.of(4));
    expect([...(store.evaluator('a')?.run.channels[0].values ?? [])]).toEqual([1, NaN, NaN, 4]);
    expect([...(store.evaluator('a')?.run.channels[0].times ?? [])]).toEqual([0, 0.02, 0.04, 0.06]);
  });

  test('channels that were sampled together share their times, and a run that is gone has no evaluator', () => {
    const store = new RunStore();
    store.put(runOf('a', ['x', 'F']), [swing(5), swing(5)], [null, null]);
    const [x, force] = store.evaluator('a')?.run.channels ?? [];
    expect(x.times).toBe(force.times);
    store.drop('a');
    expect(store.evaluator('a')).toBeNull();
  });
});

describe('the table that leaves', () => {
  const workings: WorkingsDocument = {
    ...emptyWorkings,
    lines: [{ kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 5 }],
  };

  test('one run has its time once, its channels and its derived series, with units', () => {
    const text = exportTable(
      [{ name: 'run 1', evaluator: stored('a', [swing(30), swing(30)], ['x', 'F']) }],
      workings,
    );
    expect(text.split('\r\n')[0]).toBe('t / s,x / m,F / N,v / (m.s-1)');
    const [, x] = readColumns(text);
    expect([...x.values]).toEqual([...swing(30)]);
  });

  test('several runs stand side by side under their names, the shorter one with empty cells', () => {
    const runs = [
      { name: 'soft', evaluator: stored('a', [swing(30)]) },
      { name: 'stiff, wet', evaluator: stored('b', [swing(10)]) },
    ];
    const text = exportTable(runs, workings);
    expect(text.split('\r\n')[0]).toBe(
      'soft: t / s,soft: x / m,soft: v / (m.s-1),"stiff, wet: t / s","stiff, wet: x / m","stiff, wet: v / (m.s-1)"',
    );
    const columns = readColumns(text);
    expect(columns[4].values[9]).toBe(swing(10)[9]);
    expect(columns[4].values[10]).toBeNaN();
  });
});
