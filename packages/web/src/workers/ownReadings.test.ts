import { type WorkingsDocument, emptyWorkings, panelOf } from '@heuristor/contracts';
import { HeldRuns } from '@heuristor/evaluation';
import { uniformRandom } from '@heuristor/core';
import { runOf, stored, swing } from '../testing/runs';
import { composeGraphs } from '../traces/ownGraphs/composeGraphs';
import { exportColumns } from './exportColumns';
import { KnownLines } from '../traces/knownLines';
import { isWithin, nearPoint, readingsWithin } from './nearPoint';
import { type RenderRequest } from './protocol';
import { renderRun } from '../drawing/renderRun';
import { tablePart, tableRow, tableShape, tableText } from './tableRows';
import { LastSent } from '../drawing/lastSent';

const workings: WorkingsDocument = {
  ...emptyWorkings,
  entries: [
    { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 5 },
    { kind: 'spectrum', id: 's', name: '', of: 'channel:x', region: null, window: 'hann', padding: '4' },
    { kind: 'histogram', id: 'h', name: '', of: 'channel:x', region: null, rule: 'typed', width: 0.02 },
  ],
};
const count = 400;

function held(values = swing(count)) {
  const store = new HeldRuns();
  const run = runOf('a', ['x']);
  store.put(run, { values: [values], times: [null] });
  const evaluator = store.evaluator('a');
  if (evaluator === null) throw new Error('the run is not there');
  return { evaluator, recorded: store.recorded('a') };
}

describe('graphs of their own', () => {
  const graphs = { 'entry:s': null, 'entry:h': null };
  const request: RenderRequest = {
    workings,
    horizontal: 't',
    traces: [],
    graphs,
    sight: { from: 0, to: 8 },
    axisUnit: [],
    width: 600,
    moving: false,
    visible: null,
    conditions: {},
    frontRunId: null,
    asksForAll: false,
    heights: {},
  };
  const drawn = (values?: Float64Array, unit = 'm') => {
    const run = stored(runOf(unit, ['x'], { unit }), [values ?? swing(count)]);
    const told = new LastSent();
    return { rendered: renderRun(run, request, told), run, told };
  };

  test('those that stand are not told again; a region that cuts otherwise tells them anew', () => {
    const { rendered, run, told } = drawn();
    expect(rendered.graphs['entry:s']?.line?.x.length).toBeGreaterThan(100);
    const again = renderRun(run, request, told);
    expect(again.graphs['entry:s']?.line).toBeNull();
    const other = renderRun(run, { ...request, graphs: { 'entry:s': { from: 0, to: 2 } } }, told);
    expect(other.graphs['entry:s']?.line).not.toBeNull();
    expect(other.graphs['entry:h']).toBeUndefined();
  });

  test('runs in other units stand on one axis, with the same peak; bars begin and end at zero', () => {
    const rendered = [
      drawn().rendered,
      drawn(
        swing(count).map((value) => 100 * value),
        'cm',
      ).rendered,
    ];
    const complete = new KnownLines().complete(rendered) ?? [];
    const [spectrum, histogram] = composeGraphs(
      complete,
      ['entry:s', 'entry:h'].map((one) => panelOf(one as 'entry:s')),
      graphs,
      {},
    );
    const peaks = spectrum.lines.map(({ y }) => Math.max(...y));
    // 0.1 rad a reading at 50 Hz is 0.7958 Hz, of 4 cm.
    expect(peaks[0]).toBeCloseTo(0.04, 3);
    expect(peaks[1]).toBeCloseTo(peaks[0], 9);
    expect(spectrum.lines[0].marks[0].at).toBeCloseTo((50 * 0.1) / (2 * Math.PI), 4);
    const { x, y } = histogram.lines[0];
    expect([y[0], y[y.length - 1]]).toEqual([0, 0]);
    expect(histogram.lines[1].x[1]).toBeCloseTo(x[1], 9);
    // Each bar stands twice in its outline.
    expect(y.reduce((sum, value) => sum + value, 0) / 2).toBe(count);
  });
});

describe('the table of numbers', () => {
  const references = ['channel:x' as const, 'entry:v' as const];

  test('every row has what the file of columns has, also of a reading that is no measurement', () => {
    const values = swing(count);
    values[120] = 900;
    const asked = { ...held(values), workings, references };
    const shape = tableShape(asked);
    expect(shape?.count).toBe(count);
    const [times, x, v] = exportColumns(asked.evaluator, asked.recorded, '', workings);
    for (const first of [0, 100, 350]) {
      const part = tablePart(asked, first, 100);
      if (part === null) throw new Error('no rows');
      part.times.forEach((time, i) => expect(time).toBe(times.values[first + i]));
      part.columns[0]?.forEach((value, i) => expect(value).toBe(x.values[first + i]));
      part.columns[1]?.forEach((value, i) => expect(value).toBe(v.values[first + i]));
    }
    expect(tablePart(asked, 120, 1)?.leftOut[0]?.[0]).toBe(1);
    expect(tablePart(asked, 390, 100)?.times).toHaveLength(10);
  });

  test('a time finds its row; the ends hold what lies beyond them', () => {
    const asked = { ...held(), workings, references };
    expect(tableRow(asked, 3.149)).toBe(157);
    expect(tableRow(asked, -5)).toBe(0);
    expect(tableRow(asked, 99)).toBe(count - 1);
  });

  test('rows are copied with headings and units; a series that the run has not is left out', () => {
    const text = tableText({ ...held(), workings, references: ['channel:U', ...references] }, 10, 12);
    const [heading, first, second, end] = text.split('\r\n');
    expect(heading).toContain('t / s,x / m,v / (m.s-1)');
    expect(Number(first.split(',')[0])).toBeCloseTo(0.2, 12);
    expect(Number(second.split(',')[1])).toBe(swing(count)[11]);
    expect(end).toBe('');
    expect(tableShape({ ...held(), workings, references: ['channel:U'] })).toBeNull();
  });
});

describe('points that are pointed at and drawn around', () => {
  const units = { x: [{ atom: 's', power: 1 }], y: [{ atom: 'm', power: 1 }] };
  const about = { of: 'channel:x' as const, along: 't' as const, units };

  test('the nearest point is the one that a search over all of them finds', () => {
    const { evaluator } = held();
    const random = uniformRandom(6);
    const values = swing(count);
    const axes = { x: { from: 0, to: 8, pixels: 600 }, y: { from: 0.75, to: 0.85, pixels: 200 } };
    for (let i = 0; i < 200; i++) {
      const place = { x: 8 * random(), y: 0.75 + 0.1 * random() };
      const pixel = { x: 8 / 600, y: 0.1 / 200 };
      const found = nearPoint(evaluator, workings, { ...about, place, axes, reach: 1e9 });
      const distance = (t: number) =>
        Math.hypot((t - place.x) / pixel.x, (values[Math.round(t / 0.02)] - place.y) / pixel.y);
      const best = Math.min(...Array.from(values, (_, k) => distance(k * 0.02)));
      expect(distance(found ?? NaN)).toBeCloseTo(best, 6);
    }
    expect(nearPoint(evaluator, workings, { ...about, axes, place: { x: 4, y: 5 }, reach: 40 })).toBeNull();
  });

  test('on a logarithmic axis near is what lies near on the screen', () => {
    const { evaluator } = held();
    const axes = {
      x: { from: 0.01, to: 10, pixels: 900, isLogarithmic: true },
      y: { from: 0.7, to: 0.9, pixels: 1 },
    } as const;
    // Half way between readings at 0.02 s and at 0.04 s is their geometric mean, 0.0283 s.
    const nearest = (x: number) =>
      nearPoint(evaluator, workings, { ...about, axes, place: { x, y: 0.8 }, reach: 900 });
    expect(nearest(0.0279)).toBeCloseTo(0.02, 9);
    expect(nearest(0.0285)).toBeCloseTo(0.04, 9);
  });

  test('what lies in an outline is found, in a notched one too', () => {
    // A square with a notch: worked by hand.
    const outline = [
      { x: 0, y: 0 },
      { x: 4, y: 0 },
      { x: 4, y: 4 },
      { x: 2, y: 1 },
      { x: 0, y: 4 },
    ];
    expect(isWithin(2, 0.5, outline)).toBe(true);
    expect(isWithin(2, 2, outline)).toBe(false);
    expect(isWithin(0.5, 2, outline)).toBe(true);
    expect(isWithin(5, 1, outline)).toBe(false);
    const found = readingsWithin(held().evaluator, workings, {
      ...about,
      outline: [
        { x: 0.99, y: 0 },
        { x: 1.05, y: 0 },
        { x: 1.05, y: 2 },
        { x: 0.99, y: 2 },
      ],
    });
    expect(found).toEqual({ channel: 'x', ranges: [[50, 53]], total: count });
  });
});
