import boxbod from '../../reference/boxbod.json';
import norris from '../../reference/norris.json';
import pontius from '../../reference/pontius.json';
import rat42 from '../../reference/rat42.json';
import thurber from '../../reference/thurber.json';
import { type ParameterSetting, usualSetting } from '../fitting/models/typedFunction';
import { normalRandom } from '../random';
import { budgetOf, halfWidth } from '../results/quantity';
import { timed } from '../series/sampling';
import { channelOf, constantEntry } from '../testing/sheet';
import { printedUnit } from '../units/unit';
import { type Entry } from './entries';
import { evaluate } from './evaluate';
import { repetitions } from '../testing/effort';
import { type RunData } from './run';

const channel = (key: string, unit: string, values: Float64Array, timeUnit = 's', step = 0.1) =>
  channelOf(key, unit, values, step, timeUnit);
const fitOf = (
  text: string,
  parameters: Record<string, Partial<ParameterSetting>> = {},
  against: 't' | `channel:${string}` = 't',
  of: `channel:${string}` = 'channel:y',
): Entry => ({
  kind: 'formulaFit',
  id: 'f',
  name: '',
  formula: { text, names: {} },
  of,
  against,
  region: null,
  parameters: Object.fromEntries(
    Object.entries(parameters).map(([name, setting]) => [
      name,
      { start: null, held: false, low: null, high: null, ...setting },
    ]),
  ),
  showResiduals: false,
  weights: 'equal',
});

function fitted(entries: Entry[], run: RunData) {
  const outcome = evaluate({ entries }, run).outcomes.get('f');
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  return outcome;
}
const sentence = (entries: Entry[], run: RunData) => {
  const outcome = evaluate({ entries }, run).outcomes.get('f');
  return outcome?.kind === 'refused' ? outcome.sentence : null;
};

/** Decimal digits that agree: −log₁₀ of the relative error (the measure of the source). */
const digits = (value: number, certified: number) =>
  value === certified ? 16 : -Math.log10(Math.abs(value - certified) / Math.abs(certified));

// Source of data and certified values: NIST Statistical Reference Datasets (StRD).
describe.each([
  { set: norris, text: 'b0 + b1 x', start: null },
  { set: pontius, text: 'b0 + b1 x + b2 x^2', start: null },
  { set: boxbod, text: 'b1 (1 - exp(-b2 x))', start: boxbod.start1 },
  { set: boxbod, text: 'b1 (1 - exp(-b2 x))', start: null },
  { set: rat42, text: 'b1 / (1 + exp(b2 - b3 x))', start: rat42.start1 },
  { set: rat42, text: 'b1 / (1 + exp(b2 - b3 x))', start: null },
  {
    set: thurber,
    text: '(b1 + b2 x + b3 x^2 + b4 x^3) / (1 + b5 x + b6 x^2 + b7 x^3)',
    start: thurber.start1,
  },
])('$set.name as a typed formula, from $start', ({ set, text, start }) => {
  const run: RunData = {
    id: 'r',
    channels: [
      channel('x', '1', Float64Array.from(set.x), '1', 1),
      channel('y', '1', Float64Array.from(set.y), '1', 1),
    ],
  };
  const first = text.includes('b0') ? 0 : 1;
  const settings = Object.fromEntries((start ?? []).map((value, i) => [`b${i + first}`, { start: value }]));
  const { results } = fitted([fitOf(text, settings, 'channel:x')], run);

  test('parameters and their standard deviations agree with the certified ones to 6 digits', () => {
    set.certified.parameters.forEach((certified, i) => {
      const { quantity } = results.find(({ key }) => key === `b${i + first}`) ?? results[0];
      expect(digits(quantity.value, certified)).toBeGreaterThan(6);
      expect(
        digits(quantity.standardUncertainty ?? NaN, set.certified.standardDeviations[i]),
      ).toBeGreaterThan(6);
    });
  });
});

const random = normalRandom(3);
const swing = (n: number, noise: number): RunData => ({
  id: 'r',
  channels: [
    channel(
      'y',
      'cm',
      Float64Array.from(
        { length: n },
        (_, i) => 4 * Math.exp(-i * 0.02) * Math.cos(0.35 * i) + 12 + noise * random(),
      ),
    ),
  ],
});

test('parameters have the units that follow from the axes, and no start is needed', () => {
  const { results } = fitted([fitOf('A exp(-t/tau) cos(w t + phi) + c')], swing(150, 0.05));
  const shown = Object.fromEntries(
    results.map(({ key, quantity }) => [key, [Math.abs(quantity.value), printedUnit(quantity.unit)]]),
  );
  expect(shown).toMatchObject({
    A: [expect.closeTo(4, 1), 'cm'],
    tau: [expect.closeTo(5, 0), 's'],
    w: [expect.closeTo(3.5, 1), 's⁻¹'],
    c: [expect.closeTo(12, 1), 'cm'],
  });
  expect(shown.phi[1]).toBe('');
});

test('a parameter can be held, and kept within bounds, which is said', () => {
  const run = swing(150, 0.05);
  const held = fitted([fitOf('A exp(-t/tau) cos(w t) + c', { tau: { start: 5, held: true } })], run);
  expect(held.results.map(({ key }) => key)).toEqual(['A', 'w', 'c', 'residualSd', 'rSquared']);
  const bounded = fitted([fitOf('A exp(-t/tau) cos(w t) + c', { c: { low: 12.5, high: 20 } })], run);
  expect(bounded.results.find(({ key }) => key === 'c')?.quantity.value).toBe(12.5);
  expect(bounded.notes.join()).toContain('c is at its limit');
});

test('the uncertainty of a constant in the formula is that of the parameter it scales', () => {
  const run: RunData = {
    id: 'r',
    channels: [
      channel(
        'F',
        'N',
        Float64Array.from({ length: 40 }, (_, i) => 0.5 * 9.81 * i * 0.1 + 1e-6 * random()),
      ),
    ],
  };
  const { results } = fitted(
    [constantEntry('g', 9.81, 0.02, 'm/s2'), fitOf('m1 g t', {}, 't', 'channel:F')],
    run,
  );
  const [{ quantity }] = results;
  expect(quantity.value).toBeCloseTo(0.5, 5);
  expect(printedUnit(quantity.unit)).toBe('kg s⁻¹');
  expect((quantity.standardUncertainty ?? 0) / quantity.value).toBeCloseTo(0.02 / 9.81, 6);
  expect(budgetOf(quantity)[0].label).toBe('g');
});

test('a parameter stays one when something on the sheet is called so later', () => {
  const run = swing(150, 0.05);
  const text = 'A exp(-t/tau) cos(w t) + c';
  const tau = constantEntry('tau', 5, 0.1, 's');
  const open = { start: null, held: false, low: null, high: null };
  const keys = (entries: Entry[]) => fitted(entries, run).results.map(({ key }) => key);
  expect(keys([tau, fitOf(text, { A: open, tau: open, w: open, c: open })])).toContain('tau');
  // One that was not there when it was typed takes the value of the constant.
  expect(keys([tau, fitOf(text)])).not.toContain('tau');
});

test('a result may be called as the parameter that it is', () => {
  const tau: Entry = {
    kind: 'calculation',
    id: 'r',
    name: 'tau',
    formula: { text: 'q', names: { q: 'result:f/tau' } },
    unit: '',
  };
  const open = { start: null, held: false, low: null, high: null };
  const fit = fitOf('A exp(-t/tau) cos(w t) + c', { A: open, tau: open, w: open, c: open });
  for (const entries of [
    [tau, fit],
    [fit, tau],
  ])
    expect(evaluate({ entries }, swing(150, 0.05)).outcomes.get('r')).toMatchObject({ kind: 'results' });
});

test.each([
  ['A t + B t^2 + A', 'cannot be added'],
  ['3 [cm]', 'There is nothing to fit in this formula'],
  ['y + a', 'y is a series'],
  ['a sin(b', 'not closed'],
  ['a d(y)/d(t)', 'without derivatives'],
  ['a + b', 'cannot be told apart'],
  ['a sqrt(-1 - t^2/ (1 [s])^2)', 'no finite value'],
])('%s is refused: %s', (text, words) => expect(sentence([fitOf(text)], swing(50, 0.1))).toContain(words));

test('the interval of a typed relation covers what it says, with few readings and unevenly placed', () => {
  const runs = repetitions(300, 1000);
  const times = Float64Array.from([0, 0.2, 0.5, 0.9, 1.4, 2, 2.7, 3.5, 4.4, 5.4]);
  let inside = 0;
  for (let i = 0; i < runs; i++) {
    const values = times.map((t) => 3 * Math.exp(-t / 1.8) + 0.05 * random());
    const run: RunData = {
      id: 'r',
      channels: [{ ...channel('y', 'V', values), sampling: timed(times) }],
    };
    const { results } = fitted([fitOf('U0 exp(-t/tau)')], run);
    const tau = results.find(({ key }) => key === 'tau')?.quantity;
    if (tau !== undefined && Math.abs(tau.value - 1.8) <= (halfWidth(tau) ?? 0)) inside++;
  }
  // 68.27 %, give or take two and a half standard deviations of such a count.
  const room = 2.5 * Math.sqrt((0.6827 * 0.3173) / runs);
  expect(Math.abs(inside / runs - 0.6827)).toBeLessThan(room);
}, 120_000);

test('a letter that is a series on the sheet is found by the fit where it was taken as a parameter', () => {
  const speeds = Float64Array.from({ length: 60 }, (_, i) => 0.4 + 1.5 * 0.02 * i);
  const fitted = (parameters: Record<string, ParameterSetting>): Entry =>
    ({
      kind: 'formulaFit',
      id: 'f',
      name: '',
      formula: { text: 'v_0 + a t', names: { a: 'entry:a' } },
      of: 'channel:v',
      against: 't',
      region: null,
      parameters,
      showResiduals: false,
      weights: 'equal',
    }) as Entry;
  const a = { kind: 'derivative', id: 'a', name: 'a', of: 'channel:v', windowPoints: 9 } as Entry;
  const run = { id: 'r', channels: [channelOf('v', 'm/s', speeds, 0.02)] };
  const refused = evaluate({ entries: [a, fitted({})] }, run).outcomes.get('f');
  expect(refused?.kind === 'refused' ? refused.sentence : '').toBe(
    'a is a series here, and a relation is fitted against t alone. Take a as a parameter, or fit against it.',
  );
  const found = evaluate({ entries: [a, fitted({ a: usualSetting, v_0: usualSetting })] }, run).outcomes.get(
    'f',
  );
  if (found?.kind !== 'results') throw new Error(JSON.stringify(found));
  const valueOf = (key: string) => found.results.find((result) => result.name === key)?.quantity.value;
  expect(valueOf('a')).toBeCloseTo(1.5, 9);
  expect(valueOf('v_0')).toBeCloseTo(0.4, 9);
});
