import { normalRandom } from '../random';
import { budgetOf, covarianceOf } from '../results/quantity';
import { regular } from '../series/sampling';
import { printedUnit } from '../units/unit';
import { type Entry } from './entries';
import { Evaluator, evaluate } from './evaluate';
import { type RunData } from './run';
import {
  interval,
  channel,
  made,
  constants,
  constant,
  series,
  result,
  region,
  velocity,
  outcomeIn,
  seriesIn,
  quantityIn,
  refusalIn,
  acceleration,
  cart,
} from '../testing/formulaSheets';

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
