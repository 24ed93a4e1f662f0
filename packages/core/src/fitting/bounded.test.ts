import { uniformRandom } from '../random';
import { channelOf } from '../testing/sheet';
import { type Entry } from '../workings/entries';
import { evaluate } from '../workings/evaluate';
import { type ChannelData } from '../workings/run';
import { type ParameterSetting } from './models/typedFunction';

const fitOf = (
  text: string,
  parameters: Record<string, Partial<ParameterSetting>>,
  weights: 'equal' | 'own' = 'equal',
): Entry =>
  ({
    kind: 'formulaFit',
    id: 'f',
    name: '',
    formula: { text, names: {} },
    of: 'channel:y',
    against: 't',
    region: null,
    parameters: Object.fromEntries(
      Object.entries(parameters).map(([name, setting]) => [
        name,
        { start: null, held: false, low: null, high: null, ...setting },
      ]),
    ),
    showResiduals: false,
    weights,
  }) as Entry;

function fitted(entry: Entry, channel: ChannelData) {
  const outcome = evaluate({ entries: [entry] }, { id: 'r', channels: [channel] }).outcomes.get('f');
  if (outcome?.kind !== 'results' || outcome.fitted === null) throw new Error(JSON.stringify(outcome));
  const { parameters } = outcome.fitted;
  const residuals = outcome.fitted.residuals().y;
  return { outcome, parameters, sum: residuals.reduce((all, one) => all + one * one, 0) };
}

const plainChannel = (values: readonly number[], interval: number): ChannelData =>
  channelOf('y', '', Float64Array.from(values), interval, '');

/** Solves A z = b by elimination with pivoting; small and independent of the solver under test. */
function solvedBy(a: number[][], b: number[]): number[] {
  const rows = a.map((row, i) => [...row, b[i]]);
  const n = b.length;
  for (let k = 0; k < n; k++) {
    const pivot = rows
      .slice(k)
      .reduce((best, row, i) => (Math.abs(row[k]) > Math.abs(rows[best][k]) ? i + k : best), k);
    [rows[k], rows[pivot]] = [rows[pivot], rows[k]];
    for (let i = k + 1; i < n; i++) {
      const factor = rows[i][k] / rows[k][k];
      for (let j = k; j <= n; j++) rows[i][j] -= factor * rows[k][j];
    }
  }
  const out = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--)
    out[i] =
      (rows[i][n] - out.reduce((sum, value, j) => sum + (j > i ? rows[i][j] * value : 0), 0)) / rows[i][i];
  return out;
}

type Bound = [low: number, high: number];

/**
 * The least sum of squares of a + b x + c x² between bounds, by trying every set of bounds at which parameters may stand: the
 * least of those that lie within is the answer of a convex problem.
 */
function leastBetween(x: readonly number[], y: readonly number[], bounds: readonly Bound[]): number {
  const columns = [x.map(() => 1), x, x.map((value) => value * value)];
  let least = Infinity;
  for (let code = 0; code < 27; code++) {
    const states = [code % 3, Math.floor(code / 3) % 3, Math.floor(code / 9)];
    const free = [0, 1, 2].filter((k) => states[k] === 0);
    const z = [0, 1, 2].map((k) => (states[k] === 0 ? 0 : bounds[k][states[k] - 1]));
    const rest = y.map((value, i) => value - z.reduce((sum, one, k) => sum + one * columns[k][i], 0));
    const found = solvedBy(
      free.map((a) => free.map((b) => columns[a].reduce((sum, value, i) => sum + value * columns[b][i], 0))),
      free.map((a) => columns[a].reduce((sum, value, i) => sum + value * rest[i], 0)),
    );
    free.forEach((k, i) => (z[k] = found[i]));
    if (z.some((value, k) => value < bounds[k][0] - 1e-12 || value > bounds[k][1] + 1e-12)) continue;
    const sum = y.reduce((all, value, i) => all + (value - z[0] - z[1] * x[i] - z[2] * x[i] ** 2) ** 2, 0);
    least = Math.min(least, sum);
  }
  return least;
}

test('200 random parabolas between random bounds have the least sum of squares that lies within', () => {
  const random = uniformRandom(411);
  const within = (reach: number) => (2 * random() - 1) * reach;
  for (let trial = 0; trial < 200; trial++) {
    const n = 6 + Math.floor(20 * random());
    const truth = [within(4), within(4), within(4)];
    const x = Array.from({ length: n }, (_, i) => i * 0.2);
    const y = x.map((at) => truth[0] + truth[1] * at + truth[2] * at * at + within(0.5));
    const bounds = [0, 1, 2].map((): Bound => {
      const [a, b] = [within(4), within(4)];
      return [Math.min(a, b), Math.max(a, b) + 0.1];
    });
    const { parameters, sum } = fitted(
      fitOf('a + b reading + c reading^2', {
        a: { low: bounds[0][0], high: bounds[0][1] },
        b: { low: bounds[1][0], high: bounds[1][1] },
        c: { low: bounds[2][0], high: bounds[2][1] },
      }),
      plainChannel(y, 0.2),
    );
    parameters.forEach((value, k) => {
      expect(value).toBeGreaterThanOrEqual(bounds[k][0]);
      expect(value).toBeLessThanOrEqual(bounds[k][1]);
    });
    const least = leastBetween(x, y, bounds);
    expect(sum / least).toBeLessThan(1 + 1e-7);
    expect(sum / least).toBeGreaterThan(1 - 1e-7);
  }
});

// Source: scipy.optimize.least_squares (SciPy 1.17.1, NumPy 2.4.6), method trf, tolerances 1e-15, the best of four starts.
const decay = Array.from({ length: 30 }, (_, i) =>
  Number((3 * Math.exp((-i * 0.2) / 1.7) + 0.4 + 0.05 * Math.sin(37 * i)).toFixed(6)),
);
const deviations = Float64Array.from(decay, (_, i) => (i < 15 ? 0.02 : 0.2));
test.each<[Record<string, Partial<ParameterSetting>>, number[], number | null]>([
  [{ D: { low: 0.5 } }, [2.925071, 1.5459149, 0.5], 0.0820729176],
  [{ A: { high: 2.5 }, tau: { low: 1 } }, [2.5, 1.6998858, 0.5430236], 0.5485983837],
  [
    { A: { low: 0, high: 2.8 }, tau: { low: 2, high: 5 }, D: { low: 0.45, high: 1 } },
    [2.6802018, 2, 0.45],
    0.4554714329,
  ],
  [{ D: { low: 0.5 } }, [2.8955174, 1.5933571, 0.5], null],
  [{ A: { high: 2.5 }, tau: { low: 1.8 } }, [2.5, 1.8, 0.5977891], null],
])('a decay between the bounds %j is that of SciPy', (settings, expected, sum) => {
  const isWeighted = sum === null;
  const found = fitted(fitOf('A exp(-reading/tau) + D', settings, isWeighted ? 'own' : 'equal'), {
    ...plainChannel(decay, 0.2),
    ...(isWeighted ? { uncertainties: deviations } : {}),
  });
  expected.forEach((value, i) => expect(found.parameters[i]).toBeCloseTo(value, 4));
  if (sum !== null) expect(found.sum).toBeCloseTo(sum, 6);
});

test('where all parameters end at their bounds, the numbers stand with a note and without ±', () => {
  const { outcome, parameters } = fitted(
    fitOf('a + b reading', { a: { low: 0, high: 1 }, b: { low: -1, high: 0.5 } }),
    plainChannel([3, 5, 7.2, 9, 11], 1),
  );
  expect(parameters).toEqual([1, 0.5]);
  expect(outcome.results.map(({ quantity }) => quantity.standardUncertainty).slice(0, 2)).toEqual([
    null,
    null,
  ]);
  expect(outcome.notes.filter((note) => note.includes('is at its limit'))).toHaveLength(2);
});

test('a parameter that is held without a value is found, and that is said', () => {
  const { outcome, parameters } = fitted(
    fitOf('a + b reading', { a: { held: true }, b: { held: true } }),
    plainChannel([3, 5, 7.2, 9, 11], 1),
  );
  expect(parameters[1]).toBeCloseTo(2, 1);
  expect(outcome.notes.join(' ')).toContain('Type its value');
});
