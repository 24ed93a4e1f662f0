import { channelOf } from '../testing/sheet';
import { normalRandom } from '../random';
import { openedEvaluation } from '../evaluation/opened';
import { storedEvaluation } from '../evaluation/stored';
import { covarianceOf } from '../results/quantity';
import { columnOf, lineOf, movedBy, resultsOver } from '../testing/trials';
import { type Entry, type EntryOfKind } from './entries';
import { Evaluator } from './evaluate';
import { valuesAcross, withConstantAt } from './acrossConstant';

const c: EntryOfKind<'constant'> = {
  kind: 'constant',
  id: 'c',
  name: 'c',
  value: 2,
  uncertainty: 0.1,
  unit: '',
  source: '',
  ends: '',
  shift: 0.03,
};

test('values go twice the uncertainty to either side, or between the ends that are typed', () => {
  expect(valuesAcross(c, '', 5)).toEqual([1.8, 1.9, 2, 2.1, 2.2].map((value) => expect.closeTo(value, 12)));
  expect(valuesAcross({ ...c, ends: '1 to 3' }, '', 3)).toEqual([1, 2, 3]);
  expect(valuesAcross(c, '−1 to 1', 3)).toEqual([-1, 0, 1]);
  expect(() => valuesAcross({ ...c, uncertainty: 0 }, '', 3)).toThrow('c has no uncertainty');
  expect(() => valuesAcross(c, '3 to 1', 3)).toThrow('Type the lower and the upper end');
});

describe('what follows from each value of a constant', () => {
  const normal = normalRandom(4);
  const values = Float64Array.from({ length: 400 }, () => 3 + 0.2 * normal());
  const entries: Entry[] = [
    c,
    { kind: 'statistics', id: 'mean', name: 'm', of: 'channel:x', region: null },
    { kind: 'calculation', id: 'times', name: 'p', formula: { text: 'c m', names: {} }, unit: '' },
  ];
  const at = [1, 2, 3, 4];
  const evaluator = new Evaluator({ id: 'run', channels: [channelOf('x', 'm', values, 0.01, 's')] });
  const sheets = at.map((value) => {
    const workings = withConstantAt({ entries }, 'c', value);
    return { workings, outcomes: evaluator.evaluate(workings).outcomes };
  });
  const found = openedEvaluation(storedEvaluation('run', sheets)).filter(({ entry }) => entry === 'times');
  const mean = openedEvaluation(storedEvaluation('run', sheets)).find(
    ({ entry, field }) => entry === 'mean' && field === 'mean',
  );
  const [m, u] = [mean?.quantity.value ?? NaN, mean?.quantity.standardUncertainty ?? NaN];

  test('is that value times what was measured, uncertain by the measurement alone', () => {
    at.forEach((value, i) => {
      expect(found[i].quantity.value / (value * m)).toBeCloseTo(1, 12);
      expect((found[i].quantity.standardUncertainty ?? NaN) / (value * u)).toBeCloseTo(1, 9);
    });
  });

  test('owes all its rows to the same readings: a line through them is as uncertain as the measurement', () => {
    expect(covarianceOf(found[0].quantity, found[3].quantity) / (1 * 4 * u * u)).toBeCloseTo(1, 9);
    const { factor } = resultsOver(
      [
        columnOf(
          'c',
          '',
          at.map((value) => movedBy(value, '', {})),
        ),
        columnOf(
          'p',
          'm',
          found.map(({ quantity }) => quantity),
        ),
      ],
      { ...lineOf('p', 'c'), relation: 'proportional' } as Entry,
    );
    expect(factor.quantity.value / m).toBeCloseTo(1, 9);
    // As if the rows were four measurements, it would be half as uncertain.
    expect((factor.quantity.standardUncertainty ?? NaN) / u).toBeCloseTo(1, 6);
  });
});
