import { type WorkingsDocument, emptyWorkings } from '@heuristor/contracts';
import { type SeriesRef, printedUnit } from '@heuristor/core';
import { pictureOf } from '../testing/picture';
import { runOf, stored } from '../testing/runs';

// The same cart, in metres and in feet, beside a force that grows by 2 N a metre.
describe('runs in other units over an axis that is no time', () => {
  const F: SeriesRef[] = ['channel:F'];
  const places = Float64Array.from({ length: 50 }, (_, i) => 0.2 + 0.01 * i);
  const forces = places.map((place) => 2 * place);
  const inMetres = stored(runOf('m', ['x', 'F']), [places, forces]);
  const inFeet = stored(runOf('ft', ['x', 'F'], { unit: '[ft_i]', firstId: 3 }), [
    places.map((place) => place / 0.3048),
    forces,
  ]);
  const fit = {
    kind: 'fit',
    id: 'fit',
    name: '',
    relation: 'proportional',
    of: 'channel:F',
    against: 'channel:x',
    region: null,
    weights: 'equal',
    showResiduals: true,
  } as unknown as WorkingsDocument['entries'][number];
  const sheet = { ...emptyWorkings, entries: [fit] };

  test('lie over one another, with their fits and what these leave', () => {
    const { frame, traces } = pictureOf([inFeet, inMetres], sheet, F, { horizontal: 'channel:x' });
    // The unit of the newest run is that of the axis.
    expect(printedUnit(frame.horizontal.unit)).toBe('m');
    const [trace, residuals] = traces;
    expect(residuals.symbol).toBe('residuals of F');
    for (const { x: along, y } of [...trace.lines, ...trace.curves]) {
      expect(along.length).toBeGreaterThan(1);
      along.forEach((place, i) => expect(y[i]).toBeCloseTo(2 * place, 9));
    }
    for (const { x: along } of residuals.lines)
      expect([along[0], along[along.length - 1]].map((place) => Number(place.toFixed(6)))).toEqual([
        0.2, 0.69,
      ]);
  });

  test('what a fit leaves stands only over the axis that it is against', () => {
    const { traces } = pictureOf([inMetres], sheet, F);
    expect(traces.map(({ symbol }) => symbol)).toEqual(['F']);
  });

  test('a run in which that is something else is not drawn, and said to be so', () => {
    const other = stored(runOf('N', ['x', 'F'], { unit: 'N', firstId: 5 }), [places, forces]);
    const { traces } = pictureOf([inMetres, other], sheet, F, { horizontal: 'channel:x' });
    expect(traces[0].lines.map(({ runId }) => runId)).toEqual(['m']);
    expect(traces[0].others).toEqual(['N']);
  });

  test('a temperature in K stands where it is in °C', () => {
    const warm = places.map((_, i) => 20 + i);
    const [celsius, kelvin] = [
      stored(runOf('C', ['x', 'F'], { unit: 'Cel' }), [warm, forces]),
      stored(runOf('K', ['x', 'F'], { unit: 'K', firstId: 3 }), [warm.map((T) => T + 273.15), forces]),
    ];
    const { frame, traces } = pictureOf([kelvin, celsius], emptyWorkings, F, { horizontal: 'channel:x' });
    expect(printedUnit(frame.horizontal.unit)).toBe('°C');
    expect([frame.whole.from, frame.whole.to].every((end) => end > 15 && end < 75)).toBe(true);
    expect(traces[0].lines).toHaveLength(2);
    for (const { x: along } of traces[0].lines) expect(Math.min(...along)).toBeCloseTo(20, 9);
  });
});
