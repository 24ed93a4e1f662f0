import { type WorkingsDocument, emptyWorkings } from '@heuristor/contracts';
import { HeldRuns } from '@heuristor/evaluation';
import { type SeriesRef, arrayOf, readTable, writeColumns } from '@heuristor/core';
import { pictureOf } from '../testing/picture';
import { runOf, stored, swing } from '../testing/runs';
import { exportColumns } from '../workers/exportColumns';
import { type RenderRequest } from '../workers/protocol';
import { renderRun } from './renderRun';
import { LastSent } from './lastSent';

const x: SeriesRef[] = ['channel:x'];

describe('what is drawn', () => {
  test('a lone lost echo does not flatten the trace: the scale keeps to the motion', () => {
    const values = swing(400);
    values[200] = 600;
    const { traces } = pictureOf([stored(runOf('a', ['x']), [values])], emptyWorkings, x);
    expect(traces[0].high).toBeLessThan(0.86);
    expect(traces[0].low).toBeGreaterThan(0.74);
  });

  test('readings at a limit are shown with their place and side, and counted where a person wants them to be', () => {
    const values = swing(400);
    for (const i of [50, 200]) values[i] = 600;
    values[300] = 0.1;
    values[301] = NaN;
    const run = runOf('a', ['x']);
    const { traces } = pictureOf([stored(run, [values])], emptyWorkings, x);
    const [{ pinned }] = traces[0].lines;
    expect([...(pinned?.x ?? [])].map((at) => Number(at.toFixed(6)))).toEqual([1, 4, 6]);
    expect([...(pinned?.y ?? [])]).toEqual([1, 1, -1]);
    const counted = { ...emptyWorkings, runs: [{ run: 'a', keepPinned: true as const }] };
    const kept = pictureOf([stored(run, [values])], counted, x).traces[0];
    expect(kept.lines[0].pinned).toBeUndefined();
    expect(kept.high).toBeGreaterThan(600);
  });

  test('a spot reading at the limit does not hide the others: the scale reaches to every bar', () => {
    const single = [{ uncertainties: Float64Array.of(0.01, 0.02, 0.01), pinned: Uint8Array.of(1, 0, 0) }];
    const values = [Float64Array.of(600, 0.9, 0.7)];
    const { traces } = pictureOf([stored(runOf('a', ['x']), values, single)], emptyWorkings, x);
    const [{ bars, isDots }] = traces[0].lines;
    expect(isDots).toBe(true);
    expect([...(bars?.y ?? [])]).toEqual([0.9, 0.7]);
    expect(traces[0].high).toBeGreaterThan(0.92);
    expect(traces[0].high).toBeLessThan(1);
    expect(traces[0].low).toBeLessThan(0.69);
  });

  test('a run of 10⁵ readings becomes a band of a few hundred pairs that keeps its extremes', () => {
    const values = swing(100_000);
    values[54_321] = 0.95;
    const { traces } = pictureOf([stored(runOf('a', ['x']), [values])], emptyWorkings, x);
    const [{ y, isBand }] = traces[0].lines;
    expect(isBand).toBe(true);
    expect(y.length).toBeLessThan(1300);
    expect(Math.max(...y)).toBe(0.95);
    for (let i = 0; i < y.length; i += 2) expect(y[i]).toBeLessThanOrEqual(y[i + 1]);
  });

  test('a missing reading breaks a band', () => {
    const values = swing(100_000);
    values.fill(NaN, 40_000, 45_000);
    const { traces } = pictureOf([stored(runOf('a', ['x']), [values])], emptyWorkings, x);
    expect(traces[0].lines[0].y.some(Number.isNaN)).toBe(true);
  });

  test('while a hand moves half as much is drawn', () => {
    const evaluators = [stored(runOf('a', ['x']), [swing(100_000)])];
    const rest = pictureOf(evaluators, emptyWorkings, x).traces[0].lines[0].x.length;
    const moving = pictureOf(evaluators, emptyWorkings, x, { moving: true }).traces[0].lines[0].x.length;
    expect(moving).toBeLessThanOrEqual(rest / 2 + 2);
  });

  test('the scale follows what is in sight', () => {
    const values = Float64Array.from({ length: 400 }, (_, i) => 0.5 + i * 0.001);
    const { traces, frame } = pictureOf([stored(runOf('a', ['x']), [values])], emptyWorkings, x, {
      sight: { from: 2, to: 4 },
    });
    expect(frame.whole.to).toBeCloseTo(399 * 0.02, 9);
    expect(traces[0].low).toBeCloseTo(0.6 - 0.006, 6);
    expect(traces[0].high).toBeCloseTo(0.7 + 0.006, 6);
  });

  test('one quantity can be drawn against another, and a closer look loses no point that is in sight', () => {
    const force = swing(2000).map((value) => 10 * (value - 0.8) + 1);
    const evaluators = [stored(runOf('a', ['x', 'F']), [swing(2000), force])];
    const sight = { from: 0.8, to: 0.81 };
    const { traces } = pictureOf(evaluators, emptyWorkings, ['channel:F'], {
      sight,
      horizontal: 'channel:x',
    });
    const [line] = traces[0].lines;
    const across = line.x.filter((_, i) => !Number.isNaN(line.y[i]));
    const y = line.y.filter((value) => !Number.isNaN(value));
    expect(across).toHaveLength([...swing(2000)].filter((value) => value >= 0.8 && value <= 0.81).length);
    across.forEach((value, i) => expect(y[i]).toBeCloseTo(10 * (value - 0.8) + 1, 12));
  });

  test('runs in metres and centimetres share an axis in one unit, along both axes', () => {
    const inMetres = stored(runOf('a', ['x', 'F']), [swing(100), swing(100)]);
    const inCentimetres = stored(runOf('b', ['x', 'F'], { unit: 'cm', firstId: 10 }), [
      swing(100).map((value) => value * 100),
      swing(100),
    ]);
    const { traces } = pictureOf([inMetres, inCentimetres], emptyWorkings, x);
    const [a, b] = traces[0].lines;
    a.y.forEach((value, i) => expect(b.y[i]).toBeCloseTo(value, 12));
    const { traces: plots } = pictureOf([inMetres, inCentimetres], emptyWorkings, ['channel:F'], {
      horizontal: 'channel:x',
    });
    const [c, d] = plots[0].lines;
    c.x.forEach((value, i) => expect(d.x[i]).toBeCloseTo(value, 12));
  });

  test('a run that measures something else under the same name is not drawn, and said', () => {
    const { traces } = pictureOf(
      [
        stored(runOf('a', ['x']), [swing(50)]),
        stored(runOf('b', ['x'], { unit: 'V', firstId: 10 }), [swing(50)]),
      ],
      emptyWorkings,
      x,
    );
    expect(traces[0].lines.map(({ runId }) => runId)).toEqual(['a']);
    expect(traces[0].others).toEqual(['b']);
  });

  const fitted: WorkingsDocument = {
    ...emptyWorkings,
    entries: [
      {
        kind: 'fit',
        id: 'f',
        name: '',
        region: null,
        of: 'channel:x',
        against: 't',
        relation: 'sine',
        showResiduals: true,
        weights: 'equal',
      },
    ],
  };

  test('a fit brings its curve, and its residuals where they are wanted', () => {
    const { traces } = pictureOf([stored(runOf('a', ['x']), [swing(400)])], fitted, x);
    expect(traces.map(({ key }) => key)).toEqual(['channel:x', 'residuals:f']);
    expect(traces[0].curves[0].x).toHaveLength(240);
    expect(Math.max(...traces[1].lines[0].y.map(Math.abs))).toBeLessThan(1e-9);
  });

  test('so does the fit of a formula that was typed', () => {
    const typed: WorkingsDocument = {
      ...emptyWorkings,
      entries: [
        {
          kind: 'formulaFit',
          id: 'f',
          name: '',
          region: null,
          of: 'channel:x',
          against: 't',
          formula: { text: 'A sin(w t + q) + c', names: {} },
          parameters: {},
          showResiduals: true,
          weights: 'equal',
        },
      ],
    };
    const { traces } = pictureOf([stored(runOf('a', ['x']), [swing(400)])], typed, x);
    expect(traces.map(({ key }) => key)).toEqual(['channel:x', 'residuals:f']);
    expect(traces[0].curves[0].x).toHaveLength(240);
    expect(Math.max(...traces[1].lines[0].y.map(Math.abs))).toBeLessThan(1e-6);
  });

  test('what has not changed is not sent again', () => {
    const evaluator = stored(runOf('a', ['x']), [swing(400)]);
    const told = new LastSent();
    const request: RenderRequest = {
      workings: fitted,
      horizontal: 't',
      traces: x,
      sight: { from: 0, to: 8 },
      axisUnit: [],
      width: 600,
      moving: false,
      visible: null,
      conditions: {},
      frontRunId: null,
      asksForAll: false,
      heights: {},
      graphs: {},
    };
    const first = renderRun(evaluator, request, told);
    expect(first.changed.f).toMatchObject({ kind: 'results' });
    const second = renderRun(evaluator, { ...request, sight: { from: 1, to: 2 } }, told);
    expect(second.changed).toEqual({});
    expect(second.entryIds).toEqual(['f']);
  });

  test('while a hand moves, only what is seen is told, and what is drawn of the run in front', () => {
    const fitShowing = (showResiduals: boolean) =>
      fitted.entries.map((entry) => (entry.kind === 'fit' ? { ...entry, showResiduals } : entry));
    const workings: WorkingsDocument = {
      ...fitted,
      entries: [
        ...fitShowing(false),
        { kind: 'statistics', id: 'm', name: '', of: 'channel:x', region: null },
        { kind: 'statistics', id: 'n', name: '', of: 'channel:x', region: null },
      ],
    };
    const request: RenderRequest = {
      workings,
      horizontal: 't',
      traces: x,
      sight: { from: 0, to: 8 },
      axisUnit: [],
      width: 600,
      moving: true,
      visible: { everywhere: ['m'], inFront: ['n'] },
      conditions: {},
      frontRunId: 'a',
      asksForAll: false,
      heights: {},
      graphs: {},
    };
    const [front, other] = ['a', 'b'].map((id) => {
      const evaluator = stored(runOf(id, ['x']), [swing(400)]);
      return (part: Partial<RenderRequest>, told = new LastSent()) =>
        renderRun(evaluator, { ...request, ...part }, told);
    });
    expect(Object.keys(front({}).changed).sort()).toEqual(['f', 'm', 'n']);
    expect(front({}).traces['channel:x'].curves).toHaveLength(1);
    expect(Object.keys(other({}).changed)).toEqual(['m']);
    // A trace of what is left over is drawn of every run.
    const withResiduals = { ...workings, entries: [...fitShowing(true), ...workings.entries.slice(1)] };
    expect(Object.keys(other({ workings: withResiduals }).changed).sort()).toEqual(['f', 'm']);
    // Where something got lost, everything is told; what was told is not forgotten for not being sought.
    expect(Object.keys(other({ asksForAll: true }).changed).sort()).toEqual(['f', 'm', 'n']);
    const told = new LastSent();
    other({ visible: null }, told);
    other({}, told);
    expect(Object.keys(other({ visible: null }, told).changed)).toEqual([]);
  });

  test('no run at all is drawn as ten empty seconds, not as a fault', () => {
    const { frame, traces } = pictureOf([], emptyWorkings, []);
    expect(frame.whole).toEqual({ from: 0, to: 10 });
    expect(traces).toEqual([]);
  });
});

describe('readings that come live', () => {
  const numbers = (first: number, count: number) => Float64Array.from({ length: count }, (_, i) => first + i);
  const held = (store: HeldRuns) => [...(store.recorded('a').get('x') ?? [])];

  test('go on where the stored ones end; what is known already is passed over', () => {
    const store = new HeldRuns();
    store.put(runOf('a', ['x']), { values: [numbers(1, 3)], times: [null] });
    expect(store.append(1, 1, numbers(2, 4), null)).toBeNull();
    expect(store.append(1, 0, numbers(1, 1), null)).toBeNull();
    expect(held(store)).toEqual([1, 2, 3, 4, 5]);
  });

  test('with a hole before them are not taken: it is told where readings are missing', () => {
    const store = new HeldRuns();
    store.put(runOf('a', ['x']), { values: [numbers(0, 2)], times: [null] });
    expect(store.append(1, 4, numbers(4, 2), null)).toBe(2);
    expect(held(store)).toEqual([0, 1]);
  });

  test('reach the evaluator, frame by frame, without making it anew', () => {
    const store = new HeldRuns();
    store.put(runOf('a', ['x']), { values: [swing(30)], times: [null] });
    const evaluator = store.evaluator('a');
    for (let first = 30; first < 3000; first += 30) {
      store.append(1, first, swing(3000).subarray(first, first + 30), null);
      expect(store.evaluator('a')).toBe(evaluator);
    }
    const series = evaluator?.series(emptyWorkings, 'channel:x');
    expect([...(series?.values ?? [])]).toEqual([...swing(3000)]);
    store.drop('a');
    expect(store.evaluator('a')).toBeNull();
  });

  test('at times of their own keep their times', () => {
    const run = runOf('a', ['x']);
    run.channels[0].sampling = { kind: 'events' };
    const store = new HeldRuns();
    store.put(run, { values: [Float64Array.of(1, 0)], times: [Float64Array.of(0.5, 0.7)] });
    store.append(1, 2, Float64Array.of(1), Float64Array.of(1.1));
    const series = store.evaluator('a')?.series(emptyWorkings, 'channel:x');
    expect(series?.sampling).toMatchObject({ kind: 'events', times: Float64Array.of(0.5, 0.7, 1.1) });
  });
});

describe('the table that leaves', () => {
  const workings: WorkingsDocument = {
    ...emptyWorkings,
    entries: [{ kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 5 }],
  };
  const columnsOf = (text: string) => {
    const reading = readTable(text);
    if (reading.kind !== 'table') throw new Error('a question');
    return reading.table.columns;
  };
  const recorded = (keys: string[], values: Float64Array[]) =>
    new Map(keys.map((key, i) => [key, values[i]]));

  test('has its time once, its channels as recorded, pinned readings too, and its derived series, with units', () => {
    const pinned = swing(30);
    pinned[4] = 600;
    const evaluator = stored(runOf('a', ['x', 'F']), [pinned.slice(), swing(30)]);
    const text = writeColumns(
      exportColumns(evaluator, recorded(['x', 'F'], [pinned, swing(30)]), '', workings),
    );
    expect(text.split('\r\n')[0]).toBe('t / s,x / m,F / N,v / (m.s-1)');
    const [t, back] = columnsOf(text);
    expect([...arrayOf(back.values)]).toEqual([...pinned]);
    arrayOf(t.values).forEach((time, i) => expect(time).toBeCloseTo(0.02 * i, 12));
  });

  test('has several runs side by side under their names, the shorter one with empty cells', () => {
    const soft = exportColumns(
      stored(runOf('a', ['x']), [swing(30)]),
      recorded(['x'], [swing(30)]),
      'soft: ',
      workings,
    );
    const stiff = exportColumns(
      stored(runOf('b', ['x']), [swing(10)]),
      recorded(['x'], [swing(10)]),
      'stiff, wet: ',
      workings,
    );
    const text = writeColumns([...soft, ...stiff]);
    expect(text.split('\r\n')[0]).toBe(
      'soft: t / s,soft: x / m,soft: v / (m.s-1),"stiff, wet: t / s","stiff, wet: x / m","stiff, wet: v / (m.s-1)"',
    );
    const columns = columnsOf(text);
    const position = arrayOf(columns[4].values);
    expect(position[9]).toBe(swing(10)[9]);
    expect(position[10]).toBeNaN();
  });
});
