import { drawnIn } from '../workings/asked';
import { evaluate, Evaluator } from '../workings/evaluate';
import { type Entry } from '../workings/entries';
import { constantEntry } from '../testing/sheet';
import { combined } from './combined';
import { covarianceOf } from './quantity';
import { drawsOf, summaryOfDraws } from './drawn';

const result = (entries: Entry[], id: string) => {
  const outcome = evaluate({ entries }, { id: 'r', channels: [] }).outcomes.get(id);
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  return outcome.results[0].quantity;
};
const product = (text: string): Entry => ({
  kind: 'calculation',
  id: 'y',
  name: 'y',
  formula: { text, names: {} },
  unit: '',
});
const drawn = (entries: Entry[]) =>
  drawnIn(new Evaluator({ id: 'r', channels: [] }), { entries }, 'y', 200_000);

describe('draws', () => {
  it('have the means, deviations and correlations of what is drawn', () => {
    const [a, b] = [
      result([constantEntry('a', 2, 0.1, '')], 'a'),
      result([constantEntry('b', 3, 0.2, '')], 'b'),
    ];
    const sum = combined(
      5,
      [],
      [
        { quantity: a, derivative: 1 },
        { quantity: b, derivative: 1 },
      ],
    );
    const [x, y] = drawsOf([a, sum], 100_000);
    const mean = (all: Float64Array) => all.reduce((total, value) => total + value, 0) / all.length;
    const joint = x.reduce((total, value, i) => total + (value - 2) * (y[i] - 5), 0) / x.length;
    expect(mean(x)).toBeCloseTo(2, 2);
    expect(mean(y)).toBeCloseTo(5, 2);
    expect(joint / covarianceOf(a, sum)).toBeCloseTo(1, 1);
  });

  // JCGM 101:2008, 9.2: four normal inputs of mean 0 and unit deviation add up to deviation 2.00, first order and drawn alike.
  it('of a sum are those of first order', () => {
    const inputs = ['a', 'b', 'c', 'd'].map((name) => constantEntry(name, 0, 1, ''));
    const found = drawn([...inputs, product('a + b + c + d')]);
    expect(found.mean).toBeCloseTo(0, 1);
    expect(found.standardDeviation / 2).toBeCloseTo(1, 2);
    expect((found.high - found.low) / 4).toBeCloseTo(1, 1);
  });

  // The square of a normal variable of mean 0 and deviation 1 has mean 1 and deviation √2 (chi-squared, one degree of freedom).
  it('show where a formula is not straight', () => {
    const found = drawn([constantEntry('a', 0, 1, ''), product('a^2')]);
    expect(found.mean).toBeCloseTo(1, 1);
    expect(found.standardDeviation / Math.SQRT2).toBeCloseTo(1, 1);
  });

  it('count those without a value', () => {
    const { count, lost } = drawn([constantEntry('a', 0.5, 0.5, ''), product('sqrt(a)')]);
    // A normal variable is below its mean less one deviation in 15.87 of a hundred.
    expect(lost / (count + lost)).toBeCloseTo(0.1587, 2);
  });

  it('of one name that stands twice are the same draw', () => {
    const found = drawn([constantEntry('a', 5, 1, ''), product('a - a + 2')]);
    expect(found.standardDeviation).toBeLessThan(1e-9);
  });

  it('are summed up by their middle', () => {
    const { low, high, mean } = summaryOfDraws(Float64Array.from({ length: 1001 }, (_, i) => i));
    expect([mean, low, high]).toEqual([500, 159, 841]);
  });
});
