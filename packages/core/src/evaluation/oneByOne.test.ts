import { normalRandom } from '../random';
import { repetitions } from '../testing/effort';
import { channelOf } from '../testing/sheet';
import { ballHeights } from '../testing/ball';
import { type Entry } from '../workings/entries';
import { evaluate } from '../workings/evaluate';
import { type EachFound, type Outcome } from '../workings/outcome';
import { type Systematic } from '../workings/run';
import { restrictedTo } from './restricted';
import { storedEvaluation } from './stored';
import { togetherOf } from './together';

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
  const [periods] = eachOf(outcome);
  const { quantities } = periods;
  const together = togetherOf('run', 'swing/period', periods);
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

describe('each bounce of a ball', () => {
  // Between bounces it flies freely: heights and times follow from g and the share of the speed that a bounce gives back.
  const [rate, noise] = [100, 0.0008];
  const bounces: Entry = { kind: 'peaks', id: 'bounces', name: '', of: 'channel:h', region: null };
  const ball = (seed: number, systematic: readonly Systematic[] = []) => {
    const normal = normalRandom(seed);
    const truth = ballHeights({ drop: 1.2, bounce: 0.8, released: 0.5 + 0.001 * (seed % 20), count: 6 });
    const values = Float64Array.from({ length: 3 * rate }, (_, i) => truth.at(i / rate) + noise * normal());
    const channel = { ...channelOf('h', 'm', values, 1 / rate, 's'), noise, systematic };
    const { outcomes } = evaluate({ entries: [bounces] }, { id: 'run', channels: [channel] });
    return { truth, outcomes };
  };
  const rowsOf = (outcome: Outcome | undefined): Record<string, EachFound> => {
    if (outcome?.kind !== 'results' || outcome.each === undefined) throw new Error('no bounces');
    return Object.fromEntries(outcome.each().map((found) => [found.key, found]));
  };

  test('has its height, its time of flight and its moment, within their uncertainties', () => {
    let [within, all] = [0, 0];
    for (let seed = 1; seed <= repetitions(60, 400); seed++) {
      const { truth, outcomes } = ball(seed);
      const { peak, betweenTroughs: flight, troughAt } = rowsOf(outcomes.get('bounces'));
      for (let k = 0; k < 3; k++) {
        const cases = [
          [peak.quantities[k], truth.heights[k + 1]],
          [flight.quantities[k], truth.impacts[k + 1] - truth.impacts[k]],
          [troughAt.quantities[k], truth.impacts[k]],
        ] as const;
        for (const [{ value, standardUncertainty }, is] of cases) {
          all++;
          if (Math.abs(value - is) < (standardUncertainty ?? 0)) within++;
          expect(Math.abs(value - is)).toBeLessThan(5 * (standardUncertainty ?? 0));
        }
      }
    }
    // Where it meets the floor the readings jump from one flight to the next, which their noise is taken to be larger for.
    expect(within / all).toBeGreaterThan(0.65);
  });

  test('flights begin where others end, and heights share the zero of their sensor', () => {
    const zero: Systematic = { root: 'zero/s1/h', label: 'zero of h', offset: 0.004, perUnit: 0 };
    const { outcomes } = ball(5, [zero]);
    const { peak, betweenTroughs: flight } = rowsOf(outcomes.get('bounces'));
    const ofPeaks = togetherOf('run', 'bounces/peak', peak);
    const shared = ofPeaks.find(({ root }) => root === zero.root);
    expect([...(shared?.effects ?? [])]).toEqual(peak.quantities.map(() => expect.closeTo(0.004, 9)));
    const ofFlights = togetherOf('run', 'bounces/betweenTroughs', flight);
    expect(ofFlights.some(({ root }) => root === zero.root)).toBe(false);
    // The moment of a bounce makes one flight longer and the next shorter.
    for (const { effects } of ofFlights) {
      const moved = [...effects].filter((effect) => effect !== 0);
      expect(moved).toHaveLength(2);
      expect(moved[0] * moved[1]).toBeLessThan(0);
    }
    const stored = storedEvaluation('run', [{ workings: { entries: [bounces] }, outcomes }]);
    expect(stored.repeats.map(({ symbol }) => symbol)).toEqual([
      'peak of h',
      'time of the peak of h',
      'time between the troughs of h',
      'trough of h',
      'time of the trough of h',
      'time between the peaks of h',
    ]);
  });
});
