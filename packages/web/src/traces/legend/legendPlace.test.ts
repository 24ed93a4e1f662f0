import { type DrawnTrace } from '../drawn';
import { emptiestCorner, legendRows } from './legendPlace';

/** A trace from 0 to 1 both ways, with these points. */
const traceOf = (points: readonly (readonly [number, number])[]): DrawnTrace => ({
  key: 'a',
  reference: 'channel:x',
  symbol: 'x, v',
  unit: [],
  quantities: [
    { reference: 'channel:x', symbol: 'x', quantity: 'position', side: 'left' },
    { reference: 'entry:v', symbol: 'v', quantity: 'v', side: 'left' },
  ],
  right: null,
  lacking: [],
  weight: 1,
  lines: [
    {
      runId: 'r',
      side: 'left',
      place: 0,
      isBand: false,
      x: Float64Array.from(points, ([x]) => x),
      y: Float64Array.from(points, ([, y]) => y),
    },
  ],
  wholes: [],
  curves: [],
  others: [],
  low: 0,
  high: 1,
});
const sight = { from: 0, to: 1 };

test('a legend goes to the corner in which no point lies, whichever it is', () => {
  const corners = [
    [0.05, 0.95],
    [0.95, 0.95],
    [0.05, 0.05],
    [0.95, 0.05],
  ] as const;
  const places = [
    { x: 0, y: 0 },
    { x: 1, y: 0 },
    { x: 0, y: 1 },
    { x: 1, y: 1 },
  ];
  corners.forEach((_, free) => {
    const others = corners.filter((_corner, i) => i !== free);
    expect(emptiestCorner(traceOf(others), sight)).toEqual(places[free]);
  });
});

test('points out of sight, and readings that are missing, push it nowhere', () => {
  const away = traceOf([
    [0.95, 1.5],
    [1.2, 0.95],
    [0.95, NaN],
    [0.05, 0.95],
  ]);
  expect(emptiestCorner(away, sight)).toEqual({ x: 1, y: 0 });
});

test('it says each quantity once, in words where it has any, and nothing where there is one alone', () => {
  const both = traceOf([]);
  expect(legendRows(both).map(({ text }) => text)).toEqual(['x position', 'v']);
  expect(legendRows({ quantities: both.quantities.slice(0, 1) })).toEqual([]);
});
