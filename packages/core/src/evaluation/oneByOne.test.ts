import { normalRandom } from '../random';
import { repetitions } from '../testing/effort';
import { channelOf } from '../testing/sheet';
import { type Entry } from '../workings/entries';
import { evaluate } from '../workings/evaluate';
import { type EachFound, type Outcome } from '../workings/outcome';
import { restrictedTo } from './restricted';
import { storedEvaluation } from './stored';

// A swing of known period under noise of known size, cycle by cycle.
const [period, height, sigma, interval] = [1.2, 0.05, 0.0008, 0.02];
const entry: Entry = { kind: 'cycles', id: 'swing', name: '', of: 'channel:x', region: null };
const runOf = (seed: number) => {
  const normal = normalRandom(seed);
  const values = Float64Array.from(
    { length: 600 },
    (_, i) => height * Math.sin((2 * Math.PI * i * interval) / period + 0.4) + sigma * normal(),
  );
  return { id: 'run', channels: [{ ...channelOf('x', 'm', values, interval, 's'), noise: sigma }] };
};
const outcomesOf = (seed: number): ReadonlyMap<string, Outcome> =>
  evaluate({ entries: [entry] }, runOf(seed)).outcomes;
function eachOf(outcome: Outcome | undefined): [period: EachFound, amplitude: EachFound, mean: number] {
  if (outcome?.kind !== 'results' || outcome.each === undefined) throw new Error('no cycles');
  const [periods, amplitudes] = outcome.each();
  return [periods, amplitudes, outcome.results[0].quantity.value];
}

test('every cycle has its period and its amplitude, whose mean is that of all of them', () => {
  const [periods, amplitudes, mean] = eachOf(outcomesOf(3).get('swing'));
  const values = periods.quantities.map(({ value }) => value);
  expect(values.length).toBeGreaterThanOrEqual(8);
  expect(values.reduce((sum, value) => sum + value, 0) / values.length).toBeCloseTo(mean, 12);
  for (const value of values) expect(Math.abs(value - period)).toBeLessThan(0.02);
  expect(amplitudes.quantities).toHaveLength(values.length);
  for (const { value } of amplitudes.quantities) expect(Math.abs(value - height)).toBeLessThan(5 * sigma);
});

test('what ends one period begins the next: all of them together are as uncertain as their mean', () => {
  const outcome = outcomesOf(3).get('swing');
  const [{ quantities, together }] = eachOf(outcome);
  const whole = quantities.map(({ standardUncertainty }) => (standardUncertainty ?? 0) ** 2);
  const alone = whole.map((variance, i) =>
    Math.max(variance - together.reduce((sum, { effects }) => sum + effects[i] ** 2, 0), 0),
  );
  const ofSum =
    alone.reduce((sum, variance) => sum + variance, 0) +
    together.reduce((sum, { effects }) => sum + effects.reduce((all, effect) => all + effect, 0) ** 2, 0);
  const mean = outcome?.kind === 'results' ? outcome.results[0].quantity.standardUncertainty : null;
  expect(Math.sqrt(ofSum) / quantities.length / (mean ?? 0)).toBeCloseTo(1, 1);
  // As if each were a measurement of its own, they would be three times as uncertain.
  expect(whole.reduce((sum, variance) => sum + variance, 0) / ofSum).toBeGreaterThan(4);
});

test('a period lies within its uncertainty of the true one in 65 to 71 of a hundred cases', () => {
  let [within, all] = [0, 0];
  const rounds = repetitions(150, 600);
  for (let i = 0; i < rounds; i++)
    for (const { value, standardUncertainty } of eachOf(outcomesOf(500 + i).get('swing'))[0].quantities) {
      all++;
      if (Math.abs(value - period) < (standardUncertainty ?? 0)) within++;
    }
  expect(within / all).toBeGreaterThan(0.65);
  expect(within / all).toBeLessThan(0.71);
});

test('they are kept with the results of a run, and go with their entry', () => {
  const outcomes = outcomesOf(3);
  const stored = storedEvaluation('run', [{ workings: { entries: [entry] }, outcomes }]);
  expect(stored.repeats.map(({ of, symbol, unit }) => [of, symbol, unit])).toEqual([
    ['entry:swing/period', 'period of x', 's'],
    ['entry:swing/amplitude', 'amplitude of x', 'm'],
  ]);
  expect(JSON.parse(JSON.stringify(stored))).toEqual(stored);
  expect(restrictedTo(stored, () => false).repeats).toEqual([]);
  expect(restrictedTo(stored, (_, id) => id === 'swing').repeats).toEqual(stored.repeats);
});
