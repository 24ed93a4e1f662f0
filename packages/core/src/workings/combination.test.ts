import { normalRandom } from '../random';
import { halfWidth } from '../results/quantity';
import { channelOf, constantEntry } from '../testing/sheet';
import { printedUnit } from '../units/unit';
import { type Entry, type EntryOfKind } from './entries';
import { Evaluator, evaluate } from './evaluate';
import { type Outcome } from './outcome';
import { type ResultRef } from './references';
import { type RunData } from './run';

const runOf = (values: Float64Array): RunData => ({ id: 'r', channels: [channelOf('x', 'm', values, 0.1)] });

const combination = (
  id: string,
  first: ResultRef,
  operation: EntryOfKind<'combination'>['operation'],
  second: ResultRef,
): Entry => ({ kind: 'combination', id, name: '', first, operation, second });

const resultsOf = (outcome: Outcome | undefined) => {
  if (outcome?.kind !== 'results')
    throw new Error(outcome?.kind === 'refused' ? outcome.sentence : 'nothing');
  return outcome;
};
const sentenceOf = (outcome: Outcome | undefined) => (outcome?.kind === 'refused' ? outcome.sentence : null);

const still = runOf(new Float64Array(30).fill(1));
const constants = [
  constantEntry('m', 0.25, 0.001, 'kg'),
  constantEntry('a', 2, 0.05, 'm.s-2'),
  constantEntry('long', 3, 0.02, 'm'),
  constantEntry('short', 40, 1, 'cm'),
  constantEntry('none', 0, 0, 'm'),
];

describe('two results', () => {
  const of = (operation: EntryOfKind<'combination'>['operation'], first: string, second: string) =>
    evaluate(
      {
        entries: [
          ...constants,
          combination('c', `result:${first}/value`, operation, `result:${second}/value`),
        ],
      },
      still,
    ).outcomes.get('c');

  test.each([
    ['product', 'm', 'a', 0.5, Math.hypot(0.001 * 2, 0.05 * 0.25), 'kg m s⁻²'],
    ['quotient', 'long', 'a', 1.5, Math.hypot(0.02 / 2, (3 * 0.05) / 4), 's²'],
    ['sum', 'long', 'short', 3.4, Math.hypot(0.02, 0.01), 'm'],
    ['difference', 'short', 'long', -260, Math.hypot(1, 2), 'cm'],
    ['quotient', 'long', 'short', 7.5, 7.5 * Math.hypot(0.02 / 3, 1 / 40), ''],
    ['product', 'long', 'short', 1.2, 1.2 * Math.hypot(0.02 / 3, 1 / 40), 'm²'],
  ] as const)('%s of %s and %s: value, uncertainty and unit', (operation, first, second, value, u, unit) => {
    const [{ quantity }] = resultsOf(of(operation, first, second)).results;
    expect(quantity.value).toBeCloseTo(value, 10);
    expect(quantity.standardUncertainty).toBeCloseTo(u, 10);
    expect(printedUnit(quantity.unit)).toBe(unit);
  });

  test('what cannot be is refused by name, with what would do', () => {
    expect(sentenceOf(of('sum', 'm', 'a'))).toBe(
      'The m is in kg and The a in m s⁻²; they have no sum. Multiply or divide them, or choose results that measure the same.',
    );
    expect(sentenceOf(of('quotient', 'm', 'none'))).toBe('The none is 0, and nothing can be divided by it.');
    expect(sentenceOf(of('sum', 'm', 'gone'))).toMatch('was removed');
  });

  test('that speak of each other are refused, not worked out for ever', () => {
    const { outcomes } = evaluate(
      {
        entries: [
          combination('p', 'result:q/value', 'sum', 'result:q/value'),
          combination('q', 'result:p/value', 'sum', 'result:p/value'),
          combination('s', 'result:s/value', 'sum', 'result:s/value'),
        ],
      },
      still,
    );
    for (const id of ['p', 'q', 's']) expect(sentenceOf(outcomes.get(id))).toMatch('worked out from itself');
  });

  test('of a combination go on from it, whatever stands first on the sheet', () => {
    const { outcomes } = evaluate(
      {
        entries: [
          combination('twice', 'result:force/value', 'sum', 'result:force/value'),
          combination('force', 'result:m/value', 'product', 'result:a/value'),
          ...constants,
        ],
      },
      still,
    );
    const [{ quantity }] = resultsOf(outcomes.get('twice')).results;
    expect(quantity.value).toBeCloseTo(1, 12);
    // Both halves are one and the same: they add as they are, not in squares.
    expect(quantity.standardUncertainty).toBeCloseTo(2 * Math.hypot(0.002, 0.0125), 12);
  });
});

const sheet: Entry[] = [
  { kind: 'region', id: 'A', name: '', letter: 'A', along: 't', start: 0.45, end: 2.15 },
  { kind: 'statistics', id: 'mean', name: '', region: null, of: 'channel:x' },
  { kind: 'slope', id: 'slope', name: '', region: 'A', of: 'channel:x', against: 't' },
  {
    kind: 'fit',
    id: 'fit',
    name: '',
    region: null,
    of: 'channel:x',
    against: 't',
    relation: 'line',
    showResiduals: false,
    weights: 'equal',
  },
];

/** Time at which the line passes nought, and a value at t = 1.9 s: sums whose terms come from the same readings. */
const correlated: Entry[] = [
  ...sheet,
  constantEntry('at', 1.9, 0, 's'),
  combination('crossing', 'result:fit/intercept', 'quotient', 'result:fit/slope'),
  combination('rise', 'result:fit/slope', 'product', 'result:at/value'),
  combination('there', 'result:fit/intercept', 'sum', 'result:rise/value'),
  combination('part', 'result:slope/slope', 'difference', 'result:fit/slope'),
];

test('over 2000 simulated runs ±u covers the truth of results that share their readings 65 to 71 % of the time', () => {
  const normal = normalRandom(41);
  const evaluator = () => {
    const values = Float64Array.from({ length: 30 }, (_, i) => 2 + 0.7 * (i * 0.1) + 0.02 * normal());
    return evaluate({ entries: correlated }, runOf(values)).outcomes;
  };
  const truths: [string, number][] = [
    ['crossing', 2 / 0.7],
    ['there', 2 + 0.7 * 1.9],
    ['part', 0],
  ];
  const inside = new Map(truths.map(([id]) => [id, 0]));
  const runs = 2000;
  for (let k = 0; k < runs; k++) {
    const outcomes = evaluator();
    for (const [id, truth] of truths) {
      const [{ quantity }] = resultsOf(outcomes.get(id)).results;
      if (Math.abs(quantity.value - truth) <= (halfWidth(quantity) ?? 0))
        inside.set(id, (inside.get(id) ?? 0) + 1);
    }
  }
  for (const [id] of truths) {
    expect((inside.get(id) ?? 0) / runs).toBeGreaterThan(0.65);
    expect((inside.get(id) ?? 0) / runs).toBeLessThan(0.71);
  }
});

test('a result without an uncertainty of its own counts as exact, and that is said', () => {
  const normal = normalRandom(5);
  const values = Float64Array.from({ length: 30 }, () => 1 + 0.1 * normal());
  const entries = [
    ...sheet,
    ...constants,
    combination('c', 'result:fit/residualSd', 'product', 'result:long/value'),
  ];
  const { notes, results } = resultsOf(evaluate({ entries }, runOf(values)).outcomes.get('c'));
  expect(notes).toEqual(['The residual sd has no uncertainty of its own; it counts as exact here.']);
  expect(results[0].quantity.standardUncertainty).toBeGreaterThan(0);
});

test('is worked out anew when a result that it uses changes, and only then', () => {
  const normal = normalRandom(6);
  const values = Float64Array.from({ length: 30 }, (_, i) => i + 0.1 * normal());
  const evaluator = new Evaluator(runOf(values));
  const first = evaluator.evaluate({ entries: correlated }).outcomes;
  const again = evaluator.evaluate({ entries: [...correlated] }).outcomes;
  expect(again.get('part')).toBe(first.get('part'));
  const moved = correlated.map((entry) => (entry.id === 'A' ? ({ ...entry, end: 2.75 } as Entry) : entry));
  const after = evaluator.evaluate({ entries: moved }).outcomes;
  expect(after.get('part')).not.toBe(first.get('part'));
  expect(after.get('crossing')).toBe(first.get('crossing'));
  const anew = evaluate({ entries: moved }, runOf(values)).outcomes;
  const valueOf = (outcome: Outcome | undefined) => resultsOf(outcome).results[0].quantity.value;
  expect(valueOf(after.get('part'))).toBe(valueOf(anew.get('part')));
  expect(valueOf(after.get('part'))).not.toBe(valueOf(first.get('part')));
});
