import { normalRandom } from '../random';
import { budgetOf, covarianceOf, halfWidth } from '../results/quantity';
import { regular } from '../series/sampling';
import { channelOf, constantEntry } from '../testing/sheet';
import { printedUnit } from '../units/unit';
import { type Entry } from './entries';
import { Evaluator, evaluate } from './evaluate';
import { type FormulaText } from './fields';
import { type Outcome } from './outcome';
import { type RunData } from './run';

const interval = 0.02;
const channel = (key: string, unit: string, values: Float64Array, step = interval) =>
  channelOf(key, unit, values, step);
const made = (n: number, value: (t: number) => number, step = interval) =>
  Float64Array.from({ length: n }, (_, i) => value(i * step));

const formula = (text: string, names: FormulaText['names'] = {}): FormulaText => ({ text, names });
const constant = (name: string, value: number, uncertainty: number, unit: string) =>
  constantEntry(name, value, uncertainty, unit, `c-${name}`);
const series = (
  name: string,
  text: string,
  more: { unit?: string; names?: FormulaText['names'] } = {},
): Entry => ({
  kind: 'formulaSeries',
  id: `s-${name}`,
  name,
  formula: formula(text, more.names),
  unit: more.unit ?? '',
  windowPoints: 9,
});
const result = (name: string, text: string, unit = '', names: FormulaText['names'] = {}): Entry => ({
  kind: 'calculation',
  id: `r-${name}`,
  name,
  formula: formula(text, names),
  unit,
});
const region: Entry = { kind: 'region', id: 'A', name: '', letter: 'A', along: 't', start: 0.2, end: 1.6 };
const velocity: Entry = { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 9 };
const mean = (of: `entry:${string}` | 'channel:x', name = ''): Entry => ({
  kind: 'statistics',
  id: `mean ${of}`,
  name,
  of,
  region: 'A',
});

const outcomeIn = (entries: Entry[], run: RunData, id: string) => evaluate({ entries }, run).outcomes.get(id);
const seriesIn = (outcome: Outcome | undefined) => {
  if (outcome?.kind !== 'series') throw new Error(JSON.stringify(outcome));
  return outcome.series;
};
const quantityIn = (outcome: Outcome | undefined) => {
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  return outcome.results[0].quantity;
};
const refusalIn = (outcome: Outcome | undefined) => (outcome?.kind === 'refused' ? outcome : undefined);

const acceleration = 0.62;
const cart: RunData = {
  id: 'r',
  channels: [
    channel(
      'x',
      'm',
      made(100, (t) => (acceleration * t * t) / 2),
    ),
  ],
};
const constants = [
  constant('m', 0.512, 0.001, 'kg'),
  constant('g', 9.81, 0.01, 'm/s2'),
  constant('x0', 1.6, 0.005, 'm'),
  constant('θ', 3.6, 0.05, 'deg'),
];

describe('a series by a formula', () => {
  test('kinetic and potential energy are worked out reading by reading, in joule', () => {
    const entries = [
      ...constants,
      velocity,
      series('K', '1/2 m v^2'),
      series('V', 'm g (x0 - x) sin(theta)'),
      series('E', 'K + V', { unit: 'mJ' }),
    ];
    const outcomes = evaluate({ entries }, cart).outcomes;
    const [k, v, e] = ['K', 'V', 'E'].map((name) => seriesIn(outcomes.get(`s-${name}`)));
    expect([k, v, e].map(({ unit }) => printedUnit(unit))).toEqual(['J', 'J', 'mJ']);
    for (const i of [10, 50, 90]) {
      const t = i * interval;
      const kinetic = 0.5 * 0.512 * (acceleration * t) ** 2;
      const potential = 0.512 * 9.81 * (1.6 - (acceleration * t * t) / 2) * Math.sin((3.6 * Math.PI) / 180);
      expect(k.values[i]).toBeCloseTo(kinetic, 9);
      expect(v.values[i]).toBeCloseTo(potential, 9);
      expect(e.values[i]).toBeCloseTo(1000 * (kinetic + potential), 6);
    }
  });

  test('a derivative in a formula is that of the entry, and by another series the quotient of two', () => {
    const entries = [
      velocity,
      series('w', 'd(x)/d(t)'),
      series('a', 'd(v)/d(x) v'),
      series('b', 'd^2(x)/d(t)^2'),
    ];
    const outcomes = evaluate({ entries }, cart).outcomes;
    const w = seriesIn(outcomes.get('s-w'));
    seriesIn(outcomes.get('v')).values.forEach((value, i) => expect(w.values[i]).toBeCloseTo(value, 12));
    expect(printedUnit(w.unit)).toBe('m s⁻¹');
    // v dv/dx is the acceleration.
    expect(seriesIn(outcomes.get('s-a')).values[50]).toBeCloseTo(acceleration, 6);
    expect(seriesIn(outcomes.get('s-b')).values[50]).toBeCloseTo(acceleration, 6);
    expect(printedUnit(seriesIn(outcomes.get('s-b')).unit)).toBe('m s⁻²');
    expect(outcomes.get('s-w')).toMatchObject({ notes: ['Derivatives are taken over 9 readings.'] });
  });

  test('a name follows what it was bound to, whatever that is called now', () => {
    const entries = [
      constant('mass', 2, 0, 'kg'),
      velocity,
      series('p', 'm v', { names: { m: 'result:c-mass/value' } }),
    ];
    const p = seriesIn(outcomeIn(entries, cart, 's-p'));
    expect(p.values[50]).toBeCloseTo(2 * acceleration, 6);
  });

  test('channels at other rates are read at the times of the first', () => {
    const run: RunData = {
      id: 'r',
      channels: [
        channel(
          'x',
          'm',
          made(100, (t) => t),
        ),
        channel(
          'F',
          'N',
          made(21, (t) => 3 * t, 0.1),
          0.1,
        ),
      ],
    };
    const w = seriesIn(outcomeIn([series('W', 'F x')], run, 's-W'));
    expect(w.values).toHaveLength(21);
    const y = seriesIn(outcomeIn([series('y', 'x F')], run, 's-y'));
    expect(y.values).toHaveLength(100);
    expect(y.values[37]).toBeCloseTo(3 * 0.74 * 0.74, 9);
  });

  test.each([
    ['1/2 m v^2 + m g', 'cannot be added', { from: 0, to: 15 }],
    ['m h', 'Nothing here is called “h”. Add a constant h', undefined],
    ['mg', 'Is m g meant, with a space?', undefined],
    ['M v', 'Is m meant?', undefined],
    ['m g', 'uses no series', undefined],
    ['v +', 'ends where', { from: 2, to: 3 }],
    ['', 'Type a formula', { from: 0, to: 0 }],
    ['v E', 'worked out from itself', undefined],
    ['d(x)/d(m)', 'one number', { from: 0, to: 9 }],
    ['d^2(x)/d(v)^2', 'series of its own first', { from: 0, to: 13 }],
    ['sin(x)', 'takes an angle', { from: 4, to: 5 }],
  ])('“%s” is refused with what is wrong', (text, sentence, at) => {
    const refused = refusalIn(outcomeIn([...constants, velocity, series('E', text)], cart, 's-E'));
    expect(refused?.sentence).toContain(sentence);
    expect(refused?.at).toEqual(at);
  });

  test('what has no value is missing: nothing infinite goes on', () => {
    const run: RunData = {
      id: 'r',
      channels: [
        channel(
          'x',
          'm',
          made(20, (t) => t - 0.2),
        ),
      ],
    };
    const root = seriesIn(outcomeIn([series('q', 'sqrt(x / 1 [m])')], run, 's-q'));
    expect(root.values[5]).toBeNaN();
    const inverse = seriesIn(outcomeIn([series('q', '1 / x')], run, 's-q'));
    expect(inverse.values[10]).toBeNaN();
    expect(inverse.values[11]).toBeCloseTo(50, 6);
  });

  test('grows with its run, and says the same as the whole at once', () => {
    const whole = made(400, (t) => Math.sin(3 * t));
    const entries = [
      ...constants,
      velocity,
      series('K', '1/2 m v^2'),
      series('a', 'd(v)/d(t) + 0 v / (1 [s])'),
    ];
    const evaluator = new Evaluator({ id: 'r', channels: [channel('x', 'm', whole.slice(0, 50))] });
    evaluator.evaluate({ entries });
    for (let n = 60; n <= 400; n += 17) {
      evaluator.grow('x', regular(0, interval, n), whole.slice(0, n));
      const grown = evaluator.evaluate({ entries }).outcomes;
      const anew = evaluate(
        { entries },
        { id: 'r', channels: [channel('x', 'm', whole.slice(0, n))] },
      ).outcomes;
      for (const id of ['s-K', 's-a'])
        seriesIn(anew.get(id)).values.forEach((value, i) =>
          expect(seriesIn(grown.get(id)).values[i]).toBeCloseTo(value, 9),
        );
    }
    // Another constant is another series.
    const heavier = entries.map((entry) =>
      entry.id === 'c-m' ? { ...entry, value: 1.024 } : entry,
    ) as Entry[];
    const [light, heavy] = [entries, heavier].map((sheet) =>
      Array.from(seriesIn(evaluator.evaluate({ entries: sheet }).outcomes.get('s-K')).values),
    );
    heavy.forEach((value, i) => expect(value).toBeCloseTo(2 * light[i], 12));
  });
});

describe('a result by a formula', () => {
  const a = result('a', 'g sin(theta)');

  test('its value, unit, budget and working', () => {
    const outcome = outcomeIn([...constants, a], cart, 'r-a');
    const quantity = quantityIn(outcome);
    const rad = Math.PI / 180;
    expect(quantity.value).toBeCloseTo(9.81 * Math.sin(3.6 * rad), 12);
    expect(printedUnit(quantity.unit)).toBe('m s⁻²');
    const [byAngle, byG] = [9.81 * Math.cos(3.6 * rad) * 0.05 * rad, Math.sin(3.6 * rad) * 0.01];
    expect(quantity.standardUncertainty).toBeCloseTo(Math.hypot(byAngle, byG), 12);
    expect(budgetOf(quantity).map(({ label }) => label)).toEqual(['θ', 'g']);
    const [shown] = outcome?.kind === 'results' ? outcome.results : [];
    expect(shown.working?.()).toEqual({
      formula: 'a = g\\,\\sin \\theta',
      putIn:
        '= \\left(9.810\\,\\mathrm{m}\\,\\mathrm{s}^{-2}\\right)\\,\\sin\\left(3.600\\,\\mathrm{°}\\right)',
    });
  });

  test('what the same readings do to two results counts with its covariance', () => {
    const random = normalRandom(5);
    const run: RunData = {
      id: 'r',
      channels: [
        channel(
          'x',
          'm',
          made(90, (t) => 2 * t + 1 + 0.01 * random()),
        ),
      ],
    };
    const fit: Entry = {
      kind: 'fit',
      id: 'f',
      name: 'line',
      relation: 'line',
      of: 'channel:x',
      against: 't',
      region: 'A',
      showResiduals: false,
      weights: 'equal',
    };
    const at = result('x1', 'slope (0.9 [s]) + {intercept of line}', '', { slope: 'result:f/slope' });
    const outcomes = evaluate({ entries: [region, fit, at] }, run).outcomes;
    const line = outcomes.get('f');
    if (line?.kind !== 'results') throw new Error('no fit');
    const [slope, intercept] = line.results.map(({ quantity }) => quantity);
    const variance =
      (0.9 * (slope.standardUncertainty ?? 0)) ** 2 +
      (intercept.standardUncertainty ?? 0) ** 2 +
      2 * 0.9 * covarianceOf(slope, intercept);
    // In the middle of the region the line is known far better than its slope and intercept are.
    expect(quantityIn(outcomes.get('r-x1')).standardUncertainty).toBeCloseTo(Math.sqrt(variance), 12);
    expect(Math.sqrt(variance)).toBeLessThan(0.6 * (intercept.standardUncertainty ?? 0));
  });

  test.each([
    ['x', 'is a series here'],
    ['1 / (g - g)', 'has no value'],
    ['sqrt(-g / (1 [m/s2]))', 'has no value'],
    ['g + m', 'cannot be added'],
    ['d(x)/d(t)', 'A derivative is a series'],
  ])('%s is refused: it %s', (text, sentence) =>
    expect(refusalIn(outcomeIn([...constants, result('q', text)], cart, 'r-q'))?.sentence).toContain(
      sentence,
    ),
  );

  test('a unit can be asked for, but not one that measures something else', () => {
    expect(quantityIn(outcomeIn([...constants, result('q', 'm g x0', 'mJ')], cart, 'r-q')).value).toBeCloseTo(
      1000 * 0.512 * 9.81 * 1.6,
      6,
    );
    expect(refusalIn(outcomeIn([...constants, result('q', 'm g', 'J')], cart, 'r-q'))?.sentence).toContain(
      'in N',
    );
  });

  test('conditions of the run stand under their names', () => {
    const conditions = [{ name: 'hanging mass', value: 50, uncertainty: 0.1, unit: 'g' }];
    const entries = [...constants, result('F', '{hanging mass} g', 'N')];
    const evaluator = new Evaluator({ ...cart, conditions });
    const first = evaluator.evaluate({ entries }).outcomes.get('r-F');
    expect(quantityIn(first).value).toBeCloseTo(0.4905, 9);
    evaluator.say([...conditions]);
    expect(evaluator.evaluate({ entries }).outcomes.get('r-F')).toBe(first);
    evaluator.say([{ ...conditions[0], value: 60 }]);
    expect(quantityIn(evaluator.evaluate({ entries }).outcomes.get('r-F')).value).toBeCloseTo(0.5886, 9);
  });
});

describe('what ± means', () => {
  const repetitions = 1000;
  const share = (truth: number, quantities: (i: number) => ReturnType<typeof quantityIn>) => {
    let inside = 0;
    for (let i = 0; i < repetitions; i++) {
      const quantity = quantities(i);
      if (Math.abs(quantity.value - truth) <= (halfWidth(quantity) ?? 0)) inside++;
    }
    return inside / repetitions;
  };
  const random = normalRandom(11);
  const noisyCart = () => made(100, (t) => (acceleration * t * t) / 2 + 0.0005 * random());

  test('the mean of a kinetic energy from noisy positions and an uncertain mass covers 65 to 71 %', () => {
    const entries = (m: number) => [
      constant('m', m, 0.004, 'kg'),
      velocity,
      region,
      series('K', '1/2 m v^2'),
      mean('entry:s-K'),
    ];
    let truth = 0;
    for (let i = 10; i <= 80; i++) truth += (0.5 * 0.5 * (acceleration * i * interval) ** 2) / 71;
    const found = share(truth, () =>
      quantityIn(
        outcomeIn(
          entries(0.5 + 0.004 * random()),
          { id: 'r', channels: [channel('x', 'm', noisyCart())] },
          'mean entry:s-K',
        ),
      ),
    );
    expect(found).toBeGreaterThan(0.65);
    expect(found).toBeLessThan(0.71);
  }, 60_000);

  test('the mean of a power from a noisy force and a noisy position covers 65 to 71 %', () => {
    const entries = [velocity, region, series('P', 'F v'), mean('entry:s-P')];
    let truth = 0;
    for (let i = 10; i <= 80; i++) truth += ((1 + 0.3 * i * interval) * acceleration * i * interval) / 71;
    const found = share(truth, () =>
      quantityIn(
        outcomeIn(
          entries,
          {
            id: 'r',
            channels: [
              channel('x', 'm', noisyCart()),
              channel(
                'F',
                'N',
                made(100, (t) => 1 + 0.3 * t + 0.05 * random()),
              ),
            ],
          },
          'mean entry:s-P',
        ),
      ),
    );
    expect(found).toBeGreaterThan(0.65);
    expect(found).toBeLessThan(0.71);
  }, 60_000);

  test('a slope of a series from two channels, and a formula of two correlated results, cover 65 to 71 %', () => {
    const slope: Entry = { kind: 'slope', id: 'k', name: 'k', of: 'entry:s-y', against: 't', region: 'A' };
    const entries = [
      region,
      series('y', 'x + F / (2 [N/m])'),
      slope,
      mean('entry:s-y', 'middle'),
      result('q', 'middle - k (0.4 [s])'),
    ];
    const run = (): RunData => ({
      id: 'r',
      channels: [
        channel(
          'x',
          'm',
          made(100, (t) => 0.5 * t + 0.004 * random()),
        ),
        channel(
          'F',
          'N',
          made(100, (t) => 1 + 0.2 * t + 0.006 * random()),
        ),
      ],
    });
    const bySlope = share(0.6, () => quantityIn(outcomeIn(entries, run(), 'k')));
    // y at 0.5 s, 0.4 s before the middle of the region.
    const byFormula = share(0.8, () => quantityIn(outcomeIn(entries, run(), 'r-q')));
    for (const found of [bySlope, byFormula]) {
      expect(found).toBeGreaterThan(0.65);
      expect(found).toBeLessThan(0.71);
    }
  }, 60_000);

  test('the deviation of readings from their own mean has none of the uncertainty that both share', () => {
    const entries = [region, mean('channel:x', 'middle'), series('d', 'x - middle'), mean('entry:s-d')];
    const run: RunData = {
      id: 'r',
      channels: [
        channel(
          'x',
          'm',
          made(100, () => 1 + 0.01 * random()),
        ),
      ],
    };
    expect(quantityIn(outcomeIn(entries, run, 'mean entry:s-d')).standardUncertainty ?? 0).toBeLessThan(
      1e-12,
    );
  });
});

test('a missing reading that is bridged takes no uncertainty away from an area under a formula', () => {
  const values = made(100, (t) => 1 + t);
  values[40] = NaN;
  const entries: Entry[] = [
    region,
    constant('m', 2, 0.02, 'kg'),
    series('p', 'm x'),
    { kind: 'area', id: 'a', name: '', of: 'entry:s-p', against: 't', region: 'A' },
  ];
  const area = quantityIn(outcomeIn(entries, { id: 'r', channels: [channel('x', 'm', values)] }, 'a'));
  expect((area.standardUncertainty ?? 0) / area.value).toBeCloseTo(0.01, 4);
});
