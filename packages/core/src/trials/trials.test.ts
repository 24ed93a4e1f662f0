import norris from '../../reference/norris.json';
import pontius from '../../reference/pontius.json';
import { normalRandom } from '../random';
import { budgetOf, covarianceOf, halfWidth } from '../results/quantity';
import { repetitions } from '../testing/effort';
import { columnOf, lineOf, meanEntry, movedBy, resultsOver, runOfTable } from '../testing/trials';
import { parseUnit } from '../units/unit';
import { type Entry } from '../workings/entries';
import { evaluate } from '../workings/evaluate';
import { compared } from '../workings/kinds/comparison';
import { calculatedCell } from './columnFormula';
import { type Cell, numberCell } from './cell';
import { summaryOf } from './summary';

const exact = (unit: string, values: readonly number[]) => values.map((value) => movedBy(value, unit, {}));

// Source: Pearson's points with York's weights, as in `fitting/weighted.test.ts`.
test('York’s line through two columns of a table', () => {
  const x = [0, 0.9, 1.8, 2.6, 3.3, 4.4, 5.2, 6.1, 6.5, 7.4];
  const y = [5.9, 5.4, 4.4, 4.6, 3.5, 3.7, 2.8, 2.8, 2.4, 1.5];
  const ofX = [1000, 1000, 500, 800, 200, 80, 60, 20, 1.8, 1];
  const ofY = [1, 1.8, 4, 8, 20, 20, 70, 70, 100, 500];
  const uncertain = (values: number[], weights: number[], name: string) =>
    values.map((value, i) => movedBy(value, 'm', { [`${name}${i}`]: 1 / Math.sqrt(weights[i]) }));
  const { slope, intercept, chiSquared } = resultsOver(
    [columnOf('x', 'm', uncertain(x, ofX, 'x')), columnOf('y', 'm', uncertain(y, ofY, 'y'))],
    lineOf('y', 'x'),
  );
  expect(slope.quantity.value).toBeCloseTo(-0.480533407, 7);
  expect(slope.quantity.standardUncertainty).toBeCloseTo(0.058, 3);
  expect(intercept.quantity.value).toBeCloseTo(5.479910224, 6);
  expect(intercept.quantity.standardUncertainty).toBeCloseTo(0.295, 2);
  expect(chiSquared.quantity.value).toBeCloseTo(11.8663532 / 8, 5);
});

// A weighted line through exact places explains the square of the weighted correlation (any textbook of regression).
test('R² of points that count by their uncertainties is that of their weighted scatter', () => {
  const x = [1, 2, 3, 4, 5];
  const y = [2.2, 3.1, 6.5, 7.4, 30];
  const u = [0.1, 0.1, 0.2, 0.2, 20];
  const { rSquared } = resultsOver(
    [
      columnOf('x', 's', exact('s', x)),
      columnOf(
        'y',
        'm',
        y.map((value, i) => movedBy(value, 'm', { [`o${i}`]: u[i] })),
      ),
    ],
    lineOf('y', 'x'),
  );
  const weights = u.map((one) => 1 / (one * one));
  const mean = (all: number[]) =>
    all.reduce((sum, value, i) => sum + weights[i] * value, 0) / weights.reduce((sum, one) => sum + one, 0);
  const product = (a: number[], b: number[]) =>
    mean(a.map((value, i) => (value - mean(a)) * (b[i] - mean(b))));
  const correlation = product(x, y) / Math.sqrt(product(x, x) * product(y, y));
  expect(rSquared.quantity.value).toBeCloseTo(correlation * correlation, 9);
});

// Source: NIST Statistical Reference Datasets (StRD), linear regression, Norris: certified values from memory.
test('NIST’s Norris as two typed columns', () => {
  const { slope, intercept } = resultsOver(
    [columnOf('x', 'm', exact('m', norris.x)), columnOf('y', 'm', exact('m', norris.y))],
    lineOf('y', 'x', 'equal'),
  );
  expect(slope.quantity.value).toBeCloseTo(1.00211681802045, 9);
  expect(slope.quantity.standardUncertainty).toBeCloseTo(0.429796848199937e-3, 11);
  expect(intercept.quantity.value).toBeCloseTo(-0.262323073774029, 8);
  expect(intercept.quantity.standardUncertainty).toBeCloseTo(0.232818234301152, 8);
});

// Source: NIST Statistical Reference Datasets (StRD), linear regression, Pontius, with the certified values in the reference file; the
// curvature is twice the third parameter.
test('NIST’s Pontius as two typed columns', () => {
  const { valueAtZero, slopeAtZero, curvature } = resultsOver(
    [columnOf('x', 'm', exact('m', pontius.x)), columnOf('y', 'm', exact('m', pontius.y))],
    { ...lineOf('y', 'x', 'equal'), relation: 'parabola' } as Entry,
  );
  const { parameters, standardDeviations } = pontius.certified;
  [valueAtZero, slopeAtZero, curvature].forEach(({ quantity }, i) => {
    const times = i === 2 ? 2 : 1;
    expect(quantity.value / (times * parameters[i])).toBeCloseTo(1, 8);
    expect((quantity.standardUncertainty ?? 0) / (times * standardDeviations[i])).toBeCloseTo(1, 8);
  });
});

// Source: NIST Statistical Reference Datasets (StRD), univariate: NumAcc1, NumAcc3 and NumAcc4, which are made by a rule and have
// exact certified values; from memory.
test.each([
  ['NumAcc1', [10000001, 10000003, 10000002], 10000002, 1],
  ['NumAcc3', steps(1000000.2, 1000000.1, 1000000.3), 1000000.2, 0.1],
  ['NumAcc4', steps(10000000.2, 10000000.1, 10000000.3), 10000000.2, 0.1],
])('mean and sd of NIST’s %s as a column', (_, values, mean, sd) => {
  const summary = summaryOf(exact('m', values), parseUnit('m'));
  const results = resultsOver([columnOf('x', 'm', exact('m', values))], meanEntry('x'));
  expect(Math.abs(results.mean.quantity.value - mean)).toBeLessThan(1e-8 * mean);
  for (const found of [summary.mean?.value, results.mean.quantity.value]) expect(found).toBeCloseTo(mean, 7);
  for (const found of [summary.standardDeviation?.value, results.sd.quantity.value])
    expect(found).toBeCloseTo(sd, 7);
  expect(summary.count).toBe(values.length);
});

function steps(first: number, low: number, high: number): number[] {
  return [first, ...Array.from({ length: 1000 }, (_, i) => (i % 2 === 0 ? low : high))];
}

// Source: Student, The probable error of a mean, Biometrika 6 (1908) 1: hours of sleep gained by two drugs (Cushny and Peebles).
// Welch's test of the two groups: t = −1.8608 with 17.776 degrees of freedom, p = 0.07939; from memory of any statistics package's
// documentation.
test('two groups of Student’s sleepers compared', () => {
  const first = [0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0, 2];
  const second = [1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4];
  const [a, b] = [first, second].map((values, i) => summaryOf(exact('h', values), parseUnit('h'), `g${i}`));
  if (a.mean === null || b.mean === null) throw new Error('no mean');
  expect(a.mean.value).toBeCloseTo(0.75, 12);
  expect(b.mean.value).toBeCloseTo(2.33, 12);
  const { difference, words } = compared(
    { name: 'first', quantity: a.mean },
    { name: 'second', quantity: b.mean },
  );
  expect(difference.value / (difference.standardUncertainty ?? NaN)).toBeCloseTo(-1.8608, 4);
  expect(difference.degreesOfFreedom).toBeCloseTo(17.776, 3);
  expect(words).toContain('one case of 13');
});

describe('what rows owe to one source', () => {
  const random = normalRandom(2026);
  const tries = repetitions(1000, 4000);
  const share = (inside: number) => {
    expect(inside / tries).toBeGreaterThan(0.65);
    expect(inside / tries).toBeLessThan(0.71);
  };
  /** One speed from a flag whose length is uncertain by 2 %, and a time of its own. */
  const speedOf = (true_: number, lengthError: number) => {
    const own = 0.01;
    const value = true_ * (1 + 0.02 * lengthError) + own * random();
    return { value, moves: (root: string) => movedBy(value, 'm/s', { length: 0.02 * true_, [root]: own }) };
  };

  test.each(['own', 'equal'] as const)(
    'the slope over ten runs that share an uncertain length holds the truth (points count: %s)',
    (weights) => {
      let inside = 0;
      const x = Array.from({ length: 10 }, (_, i) => 0.2 + 0.1 * i);
      for (let i = 0; i < tries; i++) {
        const error = random();
        const y = x.map((at, k) => speedOf(1.5 * at, error).moves(`own${k}`));
        const { slope } = resultsOver(
          [columnOf('x', 's', exact('s', x)), columnOf('v', 'm/s', y)],
          lineOf('v', 'x', weights),
        );
        if (Math.abs(slope.quantity.value - 1.5) <= (halfWidth(slope.quantity) ?? 0)) inside++;
      }
      share(inside);
    },
  );

  test('a weighted mean and a plain one hold the truth', () => {
    let [weighted, plain] = [0, 0];
    for (let i = 0; i < tries; i++) {
      const error = random();
      const values = Array.from({ length: 6 }, (_, k) => speedOf(0.8, error).moves(`own${k}`));
      const { weightedMean, mean } = summaryOf(values, parseUnit('m/s'));
      if (Math.abs((weightedMean?.value ?? NaN) - 0.8) <= (weightedMean?.standardUncertainty ?? 0))
        weighted++;
      if (mean !== null && Math.abs(mean.value - 0.8) <= (halfWidth(mean) ?? 0)) plain++;
    }
    share(weighted);
    share(plain);
  });

  test('the difference of two groups is not uncertain by what both share', () => {
    let inside = 0;
    for (let i = 0; i < tries; i++) {
      const error = random();
      const group = (true_: number, name: string) =>
        summaryOf(
          Array.from({ length: 6 }, (_, k) => speedOf(true_, error).moves(`${name}${k}`)),
          parseUnit('m/s'),
          name,
        ).mean;
      const [a, b] = [group(0.8, 'a'), group(0.81, 'b')];
      if (a === null || b === null) throw new Error('no mean');
      const { difference } = compared({ name: 'a', quantity: a }, { name: 'b', quantity: b });
      if (Math.abs(difference.value + 0.01) <= (halfWidth(difference) ?? 0)) inside++;
    }
    share(inside);
  });

  test('the budget of a mean names the source once, by its whole size', () => {
    const values = Array.from({ length: 5 }, (_, k) =>
      movedBy(0.8 + 0.01 * k, 'm/s', { length: 0.05, [`own${k}`]: 0.001 }),
    );
    const { mean } = resultsOver([columnOf('v', 'm/s', values)], meanEntry('v'));
    const row = budgetOf(mean.quantity).find(({ label }) => label === 'length');
    expect(row?.standardUncertainty).toBeCloseTo(0.05, 12);
  });

  test('a column that is shifted and scaled stays uncertain in the same parts', () => {
    const values = [1, 2, 3.5, 4].map((value, k) => movedBy(value, 'm', { scale: 0.1, [`own${k}`]: 0.02 }));
    const x = columnOf('x', 's', exact('s', [1, 2, 3, 4]));
    const moved: Entry = {
      kind: 'shifted',
      id: 'moved',
      name: 'y2',
      of: 'channel:y',
      less: 'number',
      number: 1,
      factor: 2,
    };
    const line = { ...lineOf('y', 'x'), of: 'entry:moved' } as Entry;
    const run = runOfTable([x, columnOf('y', 'm', values)]);
    const outcome = evaluate({ entries: [moved, line] }, run).outcomes.get('line');
    if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
    const plain = resultsOver([x, columnOf('y', 'm', values)], lineOf('y', 'x'));
    for (const { key, quantity } of outcome.results.filter(
      (one) => one.key in plain && one.key !== 'residualSd',
    )) {
      const times = key === 'slope' || key === 'intercept' ? 2 : 1;
      const [u, own] = [quantity.standardUncertainty, plain[key].quantity.standardUncertainty];
      if (own === null) expect(u).toBeNull();
      else expect(u).toBeCloseTo(times * own, 9);
    }
  });

  test('points that count by ratios are uncertain by their scatter, and by what they share as a whole', () => {
    const x = Array.from({ length: 6 }, (_, i) => i + 1);
    const y = x.map((at, k) => movedBy(2 * at + 0.01 * (k % 2), 'm', { scale: 0.1 * at, [`o${k}`]: 0.05 }));
    const columns = [columnOf('x', 's', exact('s', x)), columnOf('y', 'm', y)];
    const { slope } = resultsOver(columns, { ...lineOf('y', 'x'), weights: 'relative' } as Entry);
    const rows = budgetOf(slope.quantity);
    expect(rows.find(({ label }) => label === 'scale')?.standardUncertainty).toBeCloseTo(0.1, 2);
    const scatter = rows.find(({ label }) => label !== 'scale')?.standardUncertainty ?? NaN;
    expect(scatter).toBeGreaterThan(1e-4);
    expect(scatter).toBeLessThan(0.005);
  });

  test('points whose uncertainty is all of one source do not scatter by it', () => {
    const x = Array.from({ length: 8 }, (_, i) => i + 1);
    const y = x.map((at, k) => movedBy(2 * at + 0.001 * (k % 2), 'm', { scale: 0.1 * at, [`o${k}`]: 0.001 }));
    const { slope, chiSquared } = resultsOver(
      [columnOf('x', 's', exact('s', x)), columnOf('y', 'm', y)],
      lineOf('y', 'x'),
    );
    expect(slope.quantity.standardUncertainty).toBeCloseTo(0.1, 3);
    expect(chiSquared.quantity.value).toBeGreaterThan(0.05);
    expect(chiSquared.quantity.value).toBeLessThan(2);
  });
});

test('a slope holds the truth where the errors of both columns of a row go together', () => {
  const random = normalRandom(7);
  const tries = repetitions(1000, 4000);
  let inside = 0;
  const places = Array.from({ length: 9 }, (_, i) => i);
  for (let i = 0; i < tries; i++) {
    const rows = places.map((at, k) => {
      const [common, a, b] = [random(), random(), random()];
      return {
        x: movedBy(at + 0.09 * common + 0.03 * a, 'm', { [`run${k}`]: 0.09, [`a${k}`]: 0.03 }),
        y: movedBy(2 * at + 0.2 * common + 0.05 * b, 'm', { [`run${k}`]: 0.2, [`b${k}`]: 0.05 }),
      };
    });
    const { slope } = resultsOver(
      [
        columnOf(
          'x',
          'm',
          rows.map(({ x }) => x),
        ),
        columnOf(
          'y',
          'm',
          rows.map(({ y }) => y),
        ),
      ],
      lineOf('y', 'x'),
    );
    if (Math.abs(slope.quantity.value - 2) <= (slope.quantity.standardUncertainty ?? 0)) inside++;
  }
  expect(inside / tries).toBeGreaterThan(0.65);
  expect(inside / tries).toBeLessThan(0.71);
});

describe('a formula over columns', () => {
  const row = (cells: Readonly<Record<string, Cell>>) => ({ called: (name: string) => cells[name] ?? null });

  test('has units, and the covariance of what it is made of', () => {
    const m = movedBy(2, 'kg', { mass: 0.1 });
    const cells = {
      m: numberCell(m),
      a: numberCell(movedBy(3, 'm/s2', { mass: -0.15 })),
    };
    const cell = calculatedCell('m a', '', row(cells));
    if (cell.kind !== 'number') throw new Error(JSON.stringify(cell));
    expect(cell.quantity.value).toBe(6);
    // d(m a) = 3 · 0.1 − 2 · 0.15: they take each other away.
    expect(cell.quantity.standardUncertainty).toBeCloseTo(0, 12);
    expect(covarianceOf(cell.quantity, m)).toBeCloseTo(0, 12);
  });

  test('is empty, with the reason, where something is missing, a word, or unknown', () => {
    const cells: Record<string, Cell> = {
      T: { kind: 'nothing', why: null },
      w: { kind: 'word', text: 'soft' },
      x: numberCell(movedBy(-1, 'm', {})),
    };
    const why = (formula: string) => {
      const cell = calculatedCell(formula, '', row(cells));
      return cell.kind === 'nothing' ? cell.why : null;
    };
    expect(why('T^2')).toBe('T is empty here.');
    expect(why('w + 1')).toBe('w is a word here (“soft”), no number.');
    expect(why('q^2')).toBe('Nothing is called q here. Use the name of a column, or of a constant.');
    expect(why('sqrt(x)')).not.toBeNull();
    expect(why('x +')).not.toBeNull();
    expect(why('')).toBeNull();
  });
});

test('rows without a number, with another unit or without an uncertainty are no points that count wrongly', () => {
  const columns = [
    { ...columnOf('x', 'm', exact('m', [1, 2, 3])) },
    {
      key: 'y',
      unit: parseUnit('cm'),
      cells: [
        numberCell(movedBy(1, 'm', { a: 0.1 })),
        { kind: 'word' as const, text: 'none' },
        numberCell(movedBy(7, 's', {})),
      ],
    },
  ];
  const [, y] = runOfTable(columns).channels;
  expect(y.values).toEqual(Float64Array.of(100, NaN, NaN));
  expect(y.uncertainties?.[0]).toBeCloseTo(10, 12);
});
