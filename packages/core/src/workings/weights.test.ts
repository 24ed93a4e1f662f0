import { varianceOf } from '../results/quantity';
import { channelOf } from '../testing/sheet';
import { type Entry } from './entries';
import { evaluate } from './evaluate';
import { type RunData } from './run';

// Source: Pearson's points with York's weights, as in `fitting/weighted.test.ts`.
const weights = (all: number[]) => Float64Array.from(all, (w) => 1 / Math.sqrt(w));
const pearson: RunData = {
  id: 'r',
  channels: [
    {
      ...channelOf('x', 'm', Float64Array.of(0, 0.9, 1.8, 2.6, 3.3, 4.4, 5.2, 6.1, 6.5, 7.4), 1, ''),
      uncertainties: weights([1000, 1000, 500, 800, 200, 80, 60, 20, 1.8, 1]),
    },
    {
      ...channelOf('y', 'N', Float64Array.of(5.9, 5.4, 4.4, 4.6, 3.5, 3.7, 2.8, 2.8, 2.4, 1.5), 1, ''),
      uncertainties: weights([1, 1.8, 4, 8, 20, 20, 70, 70, 100, 500]),
    },
  ],
};
const line: Entry = {
  kind: 'fit',
  id: 'f',
  name: '',
  relation: 'line',
  of: 'channel:y',
  against: 'channel:x',
  region: null,
  weights: 'own',
  showResiduals: false,
};
const typed: Entry = {
  kind: 'formulaFit',
  id: 'g',
  name: '',
  formula: { text: 'k x + b', names: {} },
  parameters: {},
  of: 'channel:y',
  against: 'channel:x',
  region: null,
  weights: 'own',
  showResiduals: false,
};
const resultsOf = (entry: Entry, run = pearson) => {
  const outcome = evaluate({ entries: [entry] }, run).outcomes.get(entry.id);
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  return outcome;
};

test.each([line, typed])('points that count by their uncertainties give York’s line: $kind', (entry) => {
  const [slope, intercept] = resultsOf(entry).results.map(({ quantity }) => quantity);
  expect(slope.value).toBeCloseTo(-0.480533407, 7);
  expect(intercept.value).toBeCloseTo(5.479910224, 6);
  const chi = resultsOf(entry).results.find(({ key }) => key === 'chiSquared');
  // The weighted sum 11.8663532 of Reed (1992) over 8 degrees of freedom.
  expect(chi?.quantity.value).toBeCloseTo(11.8663532 / 8, 6);
  expect(slope.standardUncertainty).toBeCloseTo(0.058, 3);
  const sum = slope.influences().reduce((total, influence) => total + varianceOf(influence), 0);
  expect(Math.sqrt(sum)).toBeCloseTo(slope.standardUncertainty ?? NaN, 9);
});

test('points that scatter more than they should are reported', () => {
  const [x, y] = pearson.channels;
  const sure = { ...y, uncertainties: y.uncertainties?.map((u) => u / 5) ?? new Float64Array(0) };
  const run = { ...pearson, channels: [{ ...x, uncertainties: new Float64Array(10).fill(0.001) }, sure] };
  expect(resultsOf(line, run).notes.join()).toContain('times as far as their uncertainties say');
  expect(resultsOf(line).notes.join()).not.toContain('uncertainties say');
});

test('values without uncertainties of their own are refused by name', () => {
  const [x, y] = pearson.channels;
  const plain = { id: 'r', channels: [x, channelOf('y', 'N', y.values, 1, '')] };
  expect(evaluate({ entries: [line] }, plain).outcomes.get('f')).toMatchObject({
    kind: 'refused',
    sentence: expect.stringContaining('The values of y have no uncertainties of their own'),
  });
});
