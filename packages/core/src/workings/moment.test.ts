import { normalRandom } from '../random';
import { regular, timed } from '../series/sampling';
import { parseUnit } from '../units/unit';
import { type Entry } from './entries';
import { evaluate } from './evaluate';
import { type ChannelData } from './run';

const channel = (values: Float64Array, interval = 0.02, changes: Partial<ChannelData> = {}): ChannelData => ({
  key: 'x',
  symbol: 'x',
  quantity: 'position',
  unit: parseUnit('m'),
  timeUnit: parseUnit('s'),
  sampling: regular(0, interval, values.length),
  values,
  low: null,
  high: null,
  noise: null,
  ...changes,
});

function told(entry: Entry, own: ChannelData) {
  const outcome = evaluate({ entries: [entry] }, { id: 'run', channels: [own] }).outcomes.get(entry.id);
  if (outcome?.kind === 'refused') throw new Error(outcome.sentence);
  if (outcome?.kind !== 'results') throw new Error('no results');
  return Object.fromEntries(outcome.results.map(({ key, quantity }) => [key, quantity]));
}

const readout = (at: number): Entry => ({ kind: 'readout', id: 'r', name: '', of: 'channel:x', at });
const change = (from: number, to: number): Entry => ({
  kind: 'change',
  id: 'c',
  name: '',
  of: 'channel:x',
  from,
  to,
});
const tangent = (at: number, windowPoints = 9): Entry => ({
  kind: 'tangent',
  id: 't',
  name: '',
  of: 'channel:x',
  at,
  windowPoints,
});

// x = 1.5 t² from rest: 6 m at 2 s, where the speed is 6 m/s; 1.5 m at 1 s (worked by hand).
const falling = Float64Array.from({ length: 151 }, (_, i) => 1.5 * (i * 0.02) ** 2);

test('a parabola is read as it was worked out by hand: values, the change between them, the slope of the chord', () => {
  expect(told(readout(2), channel(falling)).value.value).toBeCloseTo(6, 12);
  const { change: rise, slope, duration } = told(change(1, 2), channel(falling));
  expect(rise.value).toBeCloseTo(4.5, 12);
  expect(slope.value).toBeCloseTo(4.5, 12);
  expect(slope.unit).toEqual(parseUnit('m/s'));
  expect(duration.value).toBe(1);
});

test('the tangent of a parabola has its speed exactly, at the ends too, whatever the window', () => {
  for (const windowPoints of [3, 9, 51])
    for (const at of [0, 1, 2, 3])
      expect(told(tangent(at, windowPoints), channel(falling)).slope.value).toBeCloseTo(3 * at, 9);
});

test('between two readings the straight line is read', () => {
  const two = channel(Float64Array.of(1, 3, 7), 1);
  expect(told(readout(0.25), two).value.value).toBeCloseTo(1.5, 12);
  expect(told(readout(1.5), two).value.value).toBeCloseTo(5, 12);
});

test('a moment outside of the run, or beside a missing reading, is refused in words', () => {
  const gappy = channel(Float64Array.of(1, NaN, 7, 8), 1);
  expect(() => told(readout(3.5), gappy)).toThrow('x was read from 0 s to 3 s');
  expect(() => told(readout(-1), gappy)).toThrow('not -1 s');
  expect(() => told(readout(0.5), gappy)).toThrow('missing');
  expect(() => told(change(2, 2), gappy)).toThrow('same one');
  expect(() => told(tangent(2, 9), gappy)).toThrow('needs as many');
  expect(() => told(tangent(2, 3), gappy)).toThrow('missing');
});

test('the uncertainties of values, changes and tangents are those that repeated runs scatter by', () => {
  const sigma = 0.003;
  const random = normalRandom(19);
  const seen: Record<string, number[]> = { value: [], between: [], change: [], slope: [] };
  const said: Record<string, number[]> = { value: [], between: [], change: [], slope: [] };
  for (let repeat = 0; repeat < 600; repeat++) {
    const own = channel(falling.map((x) => x + sigma * random()));
    const quantities = {
      value: told(readout(1.5), own).value,
      between: told(readout(1.51), own).value,
      change: told(change(0.5, 2.5), own).change,
      slope: told(tangent(1.5), own).slope,
    };
    for (const [key, { value, standardUncertainty }] of Object.entries(quantities)) {
      seen[key].push(value);
      said[key].push(standardUncertainty ?? NaN);
    }
  }
  for (const key of Object.keys(seen)) {
    const mean = seen[key].reduce((sum, value) => sum + value, 0) / seen[key].length;
    const scatter = Math.sqrt(seen[key].reduce((sum, value) => sum + (value - mean) ** 2, 0) / 599);
    const u = said[key].reduce((sum, value) => sum + value, 0) / said[key].length;
    // The scatter of 600 repeats is known to 3 %.
    expect(u / scatter).toBeGreaterThan(0.9);
    expect(u / scatter).toBeLessThan(1.1);
  }
  const byHand = { value: sigma, between: sigma / Math.SQRT2, change: sigma * Math.SQRT2 };
  for (const [key, u] of Object.entries(byHand))
    expect(said[key].reduce((sum, value) => sum + value, 0) / 600 / u).toBeCloseTo(1, 1);
});

test('a value that was taken with an uncertainty of its own keeps it', () => {
  const spots = channel(Float64Array.of(1, 2, 4), 1, {
    sampling: timed(Float64Array.of(1, 2, 5)),
    uncertainties: Float64Array.of(0.1, 0.3, 0.4),
  });
  expect(told(readout(2), spots).value.standardUncertainty).toBeCloseTo(0.3, 12);
  // √(0.3² + 0.4²)
  expect(told(change(2, 5), spots).change.standardUncertainty).toBeCloseTo(0.5, 12);
});
