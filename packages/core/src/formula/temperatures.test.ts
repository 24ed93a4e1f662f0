import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { channelOf, constantEntry } from '../testing/sheet';
import { parseUnit, printedUnit } from '../units/unit';
import { type Entry } from '../workings/entries';
import { evaluate } from '../workings/evaluate';
import { type Outcome } from '../workings/outcome';
import { type ChannelData } from '../workings/run';

// The table of docs/formulas.md: its numbers follow by hand from 0 °C = 273.15 K, 0 °F = 459.67 × 5/9 K (SI Brochure, 9th
// edition, 2.3.1) and from the constants that stand in it.
const table = readFileSync(join(__dirname, '../../../../docs/formulas.md'), 'utf8')
  .split('\n')
  .map((line) => line.split('|').map((cell) => cell.trim()))
  .filter(([, formula, names]) => formula?.startsWith('`') && names !== undefined)
  .map(([, formula, names, shown, result]) => ({ formula: formula.replace(/`/g, ''), names, shown, result }));

const calculation = (text: string, unit: string): Entry => ({
  kind: 'calculation',
  id: 'r',
  name: 'r',
  formula: { text, names: {} },
  unit,
});

const written = /^([−\-\d.e]+)\s*(.*)$/;

test('the table of temperatures has its rows', () => {
  expect(table.length).toBeGreaterThanOrEqual(15);
});

test.each(table)('$formula with $names in “$shown” is $result', ({ formula, names, shown, result }) => {
  const constants = names
    .split(', ')
    .filter((one) => one !== '')
    .map((one) => {
      const [name, told] = one.split(' = ');
      const [, value, unit] = written.exec(told) ?? [];
      return constantEntry(name, Number(value), 0, unit);
    });
  const outcome = evaluate(
    { entries: [...constants, calculation(formula, shown)] },
    { id: 'r', channels: [] },
  ).outcomes.get('r');
  if (result === 'refused') {
    expect(outcome?.kind).toBe('refused');
    return;
  }
  const [, value, unit] = written.exec(result) ?? [];
  expect(outcome).toMatchObject({ kind: 'results' });
  if (outcome?.kind !== 'results') return;
  const { quantity } = outcome.results[0];
  const figures = value.replace(/\D/g, '').length;
  expect(quantity.value).toBeCloseTo(Number(value), Math.max(figures - 3, 3));
  expect(printedUnit(quantity.unit)).toBe(printedUnit(parseUnit(unit)));
});

/** A swing of 8 K about 60 °C, which dies away, with a little of everything. */
const seconds = Float64Array.from({ length: 401 }, (_, i) => i * 0.1);
const swing = (unit: string): ChannelData => ({
  ...channelOf(
    'T',
    unit,
    seconds.map((t) => {
      const celsius = 60 + 8 * Math.exp(-t / 30) * Math.sin(t) + 0.01 * Math.sin(97.3 * t);
      return unit === '°F' ? 32 + 1.8 * celsius : unit === 'K' ? 273.15 + celsius : celsius;
    }),
    0.1,
  ),
  quantity: 'temperature',
});
const outcomesOf = (entries: Entry[], channel: ChannelData) =>
  evaluate({ entries }, { id: 'r', channels: [channel] }).outcomes;
const resultsOf = (outcome: Outcome | undefined) => {
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  return Object.fromEntries(outcome.results.map((one) => [one.key, one.quantity]));
};

const entry = (kind: string, id: string, fields: object = {}) =>
  ({ kind, id, name: id, of: 'channel:T', region: null, ...fields }) as unknown as Entry;
const fitEntry = (relation: string, id: string) =>
  entry('fit', id, { relation, against: 't', weights: 'equal', showResiduals: false });

const points = ['mean', 'median', 'min', 'max'];
const intervals = ['sd', 'range'];

describe.each(['°C', '°F', 'K'])('of a temperature read in %s', (unit) => {
  const interval = unit === '°F' ? 'Δ°F' : 'K';
  const channel = swing(unit);

  test('means and extremes are points, spreads, amplitudes and changes intervals', () => {
    const found = outcomesOf(
      [
        entry('statistics', 's'),
        entry('cycles', 'c'),
        entry('peaks', 'p'),
        entry('changeAcross', 'd'),
        fitEntry('sine', 'f'),
        fitEntry('line', 'l'),
        entry('spectrum', 'a', { window: 'none', padding: '2' }),
      ],
      channel,
    );
    const unitOf = (id: string, key: string) => printedUnit(resultsOf(found.get(id))[key].unit);
    for (const key of points) expect(unitOf('s', key)).toBe(unit);
    for (const key of intervals) expect(unitOf('s', key)).toBe(interval);
    expect(unitOf('c', 'amplitude')).toBe(interval);
    expect(unitOf('p', 'peak')).toBe(unit);
    expect(unitOf('p', 'amplitude')).toBe(interval);
    expect(unitOf('d', 'change')).toBe(interval);
    expect(unitOf('d', 'start')).toBe(unit);
    expect(unitOf('d', 'rate')).toBe(`${interval} s⁻¹`);
    expect(unitOf('f', 'amplitude')).toBe(interval);
    expect(unitOf('f', 'offset')).toBe(unit);
    expect(unitOf('f', 'residualSd')).toBe(interval);
    expect(unitOf('l', 'slope')).toBe(`${interval} s⁻¹`);
    expect(unitOf('l', 'intercept')).toBe(unit);
    expect(unitOf('a', 'amplitude')).toBe(interval);
  });

  test('the same heat follows from its range on every scale', () => {
    const heat = calculation('c m {range of s}', 'J');
    const found = outcomesOf(
      [
        entry('statistics', 's'),
        constantEntry('c', 4180, 0, 'J/(kg.K)'),
        constantEntry('m', 0.1, 0, 'kg'),
        heat,
      ],
      channel,
    );
    const values = swing('°C').values;
    const range = Math.max(...values) - Math.min(...values);
    expect(resultsOf(found.get('r')).value.value).toBeCloseTo(418 * range, 6);
  });

  test('a formula of the series knows them too: T less its mean is an interval, T and 5 K more a point', () => {
    const seriesBy = (id: string, text: string): Entry => ({
      kind: 'formulaSeries',
      id,
      name: id,
      formula: { text, names: {} },
      unit: '',
      windowPoints: 5,
    });
    const found = outcomesOf(
      [entry('statistics', 's'), seriesBy('d', 'T - {mean of s}'), seriesBy('u', 'T + 5 [K]')],
      channel,
    );
    const [d, u] = ['d', 'u'].map((id) => found.get(id));
    if (d?.kind !== 'series' || u?.kind !== 'series') throw new Error(JSON.stringify([d, u]));
    expect(printedUnit(d.series.unit)).toBe('K');
    expect(printedUnit(u.series.unit)).toBe(unit);
    const { mean } = resultsOf(found.get('s'));
    const perKelvin = unit === '°F' ? 1.8 : 1;
    expect(d.series.values[17]).toBeCloseTo((channel.values[17] - mean.value) / perKelvin, 9);
    expect(u.series.values[17]).toBeCloseTo(channel.values[17] + 5 * perKelvin, 9);
  });
});

// Newton's law of cooling: T = T0 + D e^(−t/τ), 21 °C and 60 K.
test.each([
  ['D + A exp(-t/tau)', { D: 21, A: 60 }, { D: '°C', A: 'K' }],
  ['A exp(-t/tau) + D', { D: 21, A: 60 }, { D: '°C', A: 'K' }],
  ['E + (B - E) exp(-t/tau)', { E: 21, B: 81 }, { E: '°C', B: '°C' }],
])('a cooling that is fitted by %s has points and intervals where they belong', (text, values, units) => {
  const channel = {
    ...channelOf(
      'T',
      '°C',
      seconds.map((t) => 21 + 60 * Math.exp(-t / 12)),
      0.1,
    ),
    quantity: 'temperature',
  };
  const found = resultsOf(
    outcomesOf(
      [
        entry('formulaFit', 'f', {
          formula: { text, names: {} },
          against: 't',
          parameters: {},
          weights: 'equal',
          showResiduals: false,
        }),
      ],
      channel,
    ).get('f'),
  );
  for (const [name, value] of Object.entries(values)) expect(found[name].value).toBeCloseTo(value, 6);
  for (const [name, unit] of Object.entries(units)) expect(printedUnit(found[name].unit)).toBe(unit);
});

describe('two results that are temperatures', () => {
  const pair = (a: [number, string], b: [number, string], operation: string) =>
    evaluate(
      {
        entries: [
          constantEntry('a', a[0], 0.3, a[1]),
          constantEntry('b', b[0], 0.4, b[1]),
          {
            kind: 'combination',
            id: 'r',
            name: 'r',
            first: 'result:a/value',
            second: 'result:b/value',
            operation,
          } as Entry,
          {
            kind: 'comparison',
            id: 'c',
            name: 'c',
            first: 'result:a/value',
            second: 'result:b/value',
          } as Entry,
        ],
      },
      { id: 'r', channels: [] },
    ).outcomes;
  const valueOf = (outcome: Outcome | undefined) => resultsOf(outcome).value;

  test('have a difference in K, also between scales, and their quotient is that of kelvins, as in a formula', () => {
    const both = pair([60, '°C'], [20, '°C'], 'difference');
    expect(valueOf(both.get('r')).value).toBeCloseTo(40, 12);
    expect(printedUnit(valueOf(both.get('r')).unit)).toBe('K');
    expect(valueOf(both.get('r')).standardUncertainty).toBeCloseTo(0.5, 12);
    expect(printedUnit(resultsOf(both.get('c')).difference.unit)).toBe('K');
    const across = pair([68, '°F'], [0, '°C'], 'difference');
    // 68 °F is 20 °C; a difference of what is read in °F is in Δ°F: 36.
    expect(valueOf(across.get('r')).value).toBeCloseTo(36, 9);
    expect(resultsOf(across.get('c')).difference.value).toBeCloseTo(36, 9);
    const ratio = pair([100, '°C'], [0, '°C'], 'quotient');
    expect(valueOf(ratio.get('r')).value).toBeCloseTo(373.15 / 273.15, 12);
    expect(valueOf(ratio.get('r')).standardUncertainty).toBeCloseTo(
      Math.hypot(0.3 / 273.15, (0.4 * 373.15) / 273.15 ** 2),
      12,
    );
  });

  test('are not added; an interval may be', () => {
    expect(pair([60, '°C'], [20, '°C'], 'sum').get('r')?.kind).toBe('refused');
    const more = pair([60, '°C'], [9, 'Δ°F'], 'sum');
    expect(valueOf(more.get('r')).value).toBeCloseTo(65, 12);
    expect(printedUnit(valueOf(more.get('r')).unit)).toBe('°C');
    expect(pair([5, 'Δ°C'], [20, '°C'], 'difference').get('r')?.kind).toBe('refused');
    expect(pair([5, 'Δ°C'], [20, '°C'], 'sum').get('c')?.kind).toBe('refused');
  });
});
