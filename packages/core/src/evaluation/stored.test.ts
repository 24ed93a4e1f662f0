import { repetitions } from '../testing/effort';
import { covarianceOf } from '../results/quantity';
import { combined } from '../results/combined';
import { normalRandom } from '../random';
import { randomRun, randomSheet } from '../testing/randomSheets';
import { channelOf, constantEntry } from '../testing/sheet';
import { type Entry } from '../workings/entries';
import { evaluate } from '../workings/evaluate';
import { type NamedResult } from '../workings/outcome';
import { type RunData } from '../workings/run';
import { type OpenedResult, openedEvaluation, ownCovariance } from './opened';
import { type StoredEvaluation, storedEvaluation } from './stored';

const sent = (evaluation: StoredEvaluation): StoredEvaluation =>
  JSON.parse(JSON.stringify(evaluation)) as StoredEvaluation;

/** The results of a run, as they are and as they come back from storage. */
function both(entries: Entry[], run: RunData): { plain: NamedResult[]; opened: OpenedResult[] } {
  const workings = { entries };
  const { outcomes } = evaluate(workings, run);
  const plain = entries.flatMap(({ id }) => {
    const outcome = outcomes.get(id);
    return outcome?.kind === 'results' ? outcome.results : [];
  });
  return { plain, opened: openedEvaluation(sent(storedEvaluation(run.id, [{ workings, outcomes }]))) };
}

const sizeOf = ({ quantity }: NamedResult) => Math.sqrt(covarianceOf(quantity, quantity));

/** The covariance of two results, as a share of what it could be at most. */
function differenceOf(a: [NamedResult, OpenedResult], b: [NamedResult, OpenedResult]): number {
  const most = sizeOf(a[0]) * sizeOf(b[0]);
  if (!(most > 0) || !Number.isFinite(most)) return 0;
  return (
    Math.abs(covarianceOf(a[0].quantity, b[0].quantity) - covarianceOf(a[1].quantity, b[1].quantity)) / most
  );
}

describe('a stored evaluation', () => {
  test('of any sheet over any two runs keeps every value, every ± and every covariance', () => {
    const sheets = repetitions(100, 250);
    let pairs = 0;
    let across = 0;
    let worst = 0;
    for (let seed = 0; seed < sheets; seed++) {
      const entries = randomSheet(seed);
      const first = both(entries, randomRun(seed));
      // What was typed of both runs is the same, so they share it.
      const { conditions } = randomRun(seed);
      const second = both(entries, { ...randomRun(seed + 1000), id: 'other', conditions });
      const all = [first, second].flatMap(({ plain, opened }, run) => {
        expect(opened).toHaveLength(plain.length);
        return plain.map((result, i) => ({ run, pair: [result, opened[i]] as [NamedResult, OpenedResult] }));
      });
      for (const {
        pair: [plain, opened],
      } of all) {
        expect(opened.field).toBe(plain.key);
        expect(opened.quantity.value).toBe(plain.quantity.value);
        expect(opened.quantity.standardUncertainty).toBe(plain.quantity.standardUncertainty);
        expect(opened.quantity.degreesOfFreedom).toBe(plain.quantity.degreesOfFreedom);
      }
      for (const [i, one] of all.entries())
        for (const other of all.slice(0, i + 1)) {
          pairs++;
          if (one.run !== other.run && covarianceOf(one.pair[0].quantity, other.pair[0].quantity) !== 0)
            across++;
          worst = Math.max(worst, differenceOf(one.pair, other.pair));
        }
    }
    expect(worst).toBeLessThan(1e-12);
    expect(pairs).toBeGreaterThan(40 * sheets);
    expect(across).toBeGreaterThan(0.1 * sheets);
  });

  test('of ten results over many readings is small', () => {
    const normal = normalRandom(1);
    const values = (level: number) =>
      Float64Array.from({ length: 200_000 }, (_, i) => level + 1e-6 * i + normal());
    const run: RunData = {
      id: 'r',
      channels: [channelOf('x', 'm', values(1), 0.01), channelOf('F', 'N', values(5), 0.01)],
    };
    const entries: Entry[] = [
      constantEntry('m', 0.5, 0.001, 'kg'),
      { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 7 },
      { kind: 'slope', id: 'k', name: 'k', of: 'channel:x', against: 't', region: null },
      { kind: 'statistics', id: 'f', name: 'f', of: 'channel:F', region: null },
      { kind: 'statistics', id: 'p', name: 'p', of: 'entry:v', region: null },
    ];
    const workings = { entries };
    const stored = storedEvaluation('r', [{ workings, outcomes: evaluate(workings, run).outcomes }]);
    expect(stored.results.length).toBeGreaterThanOrEqual(10);
    expect(JSON.stringify(stored).length).toBeLessThan((50_000 * stored.results.length) / 10);
    expect(stored.own.map(({ label }) => label)).toEqual(['readings of x', 'readings of F']);
  });

  test('tells its results by entry, region and field, whatever they are called', () => {
    const run: RunData = { id: 'r', channels: [channelOf('x', 'm', Float64Array.of(1, 2, 4, 3, 5), 0.1)] };
    const named = (name: string): Entry[] => [
      { kind: 'region', id: 'A', name: '', letter: 'A', along: 't', start: 0, end: 1 },
      { kind: 'slope', id: 'k', name, of: 'channel:x', against: 't', region: 'A' },
    ];
    const whichOf = (entries: Entry[]) =>
      storedEvaluation('r', [
        { workings: { entries }, outcomes: evaluate({ entries }, run).outcomes },
      ]).results.map(({ entry, region, field }) => [entry, region, field]);
    expect(whichOf(named('speed'))).toEqual(whichOf(named('pace of the cart')));
    expect(whichOf(named('speed'))).toContainEqual(['k', 'A', 'slope']);
  });

  test('of several sheets over one run knows what their results owe to the same readings', () => {
    const normal = normalRandom(3);
    const run: RunData = {
      id: 'r',
      channels: [
        channelOf(
          'x',
          'm',
          Float64Array.from({ length: 40 }, () => 2 + normal()),
          0.1,
        ),
      ],
    };
    const mean = (id: string): Entry[] => [
      { kind: 'statistics', id, name: '', of: 'channel:x', region: null },
    ];
    const evaluated = [mean('mine'), mean('yours')].map((entries) => ({
      workings: { entries },
      outcomes: evaluate({ entries }, run).outcomes,
    }));
    const stored = sent(storedEvaluation('r', evaluated));
    const [mine, yours] = ['mine', 'yours'].map((entry) =>
      openedEvaluation(stored).find((one) => one.entry === entry && one.field === 'mean'),
    );
    if (mine === undefined || yours === undefined) throw new Error('no mean');
    // It is the same mean of the same readings: their difference is not uncertain at all.
    const difference = combined(
      0,
      [],
      [
        { quantity: mine.quantity, derivative: 1 },
        { quantity: yours.quantity, derivative: -1 },
      ],
    );
    expect(mine.quantity.standardUncertainty).toBeGreaterThan(0.05);
    expect(difference.standardUncertainty).toBeLessThan(1e-9);
    const matrix = ownCovariance(stored);
    const [i, j] = [mine, yours].map((one) =>
      stored.results.findIndex(({ entry, field }) => entry === one.entry && field === 'mean'),
    );
    expect(matrix[i][j] / matrix[i][i]).toBeCloseTo(1, 12);

    // Evaluated and stored apart, nothing is known of that, and nothing is made up.
    const [alone, other] = evaluated.map(
      (one) =>
        openedEvaluation(sent(storedEvaluation('r', [one]))).find(({ field }) => field === 'mean')?.quantity,
    );
    if (alone === undefined || other === undefined) throw new Error('no mean');
    expect(covarianceOf(alone, other)).toBe(0);
  });

  // JCGM 100:2008, F.1.2.3, example 1: what two values share through a root adds up by its sensitivities; checked by repeating it all.
  test('of two runs under one zero and one calibration: their mean is as uncertain as it scatters', () => {
    const [level, zero, gain, noise, count] = [2, 0.03, 0.01, 0.05, 25];
    const entries: Entry[] = [{ kind: 'statistics', id: 'm', name: '', of: 'channel:F', region: null }];
    const meanOfTwo = (seed: number) => {
      const normal = normalRandom(seed);
      const [z, g] = [zero * normal(), 1 + gain * normal()];
      const [first, second] = ['one', 'two'].map((id) => {
        const values = Float64Array.from({ length: count }, () => z + g * level + noise * normal());
        const channel = {
          ...channelOf('F', 'N', values, 0.1),
          systematic: [
            { root: 'zero/K7/F', label: 'zero of F', offset: zero, perUnit: 0 },
            { root: 'gain/K7/F', label: 'calibration of F', offset: 0, perUnit: gain },
          ],
        };
        const result = both(entries, { id, channels: [channel] }).opened.find(
          ({ field }) => field === 'mean',
        );
        if (result === undefined) throw new Error('no mean');
        return result.quantity;
      });
      return combined((first.value + second.value) / 2, first.unit, [
        { quantity: first, derivative: 0.5 },
        { quantity: second, derivative: 0.5 },
      ]);
    };
    const found = Array.from({ length: 600 }, (_, i) => meanOfTwo(5000 + 7 * i));
    const away = found.map(({ value }) => value - level);
    const scatter = Math.sqrt(away.reduce((sum, one) => sum + one * one, 0) / away.length);
    const told = Math.sqrt(
      found.reduce((sum, { standardUncertainty }) => sum + (standardUncertainty ?? NaN) ** 2, 0) / 600,
    );
    // The zero and the gain do not average out over the runs; the noise does.
    expect(told).toBeCloseTo(Math.sqrt(zero ** 2 + (gain * level) ** 2 + noise ** 2 / (2 * count)), 3);
    expect(scatter / told).toBeGreaterThan(0.9);
    expect(scatter / told).toBeLessThan(1.1);
  });
});
