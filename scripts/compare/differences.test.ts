import { type Evaluation, type Outcome, parseUnit } from '@heuristor/core';
import { differencesOf } from './differences';

const resultsOf = (value: number, u: number | null): Outcome => ({
  kind: 'results',
  results: [
    {
      key: 'mean',
      name: 'mean',
      quantity: {
        value,
        unit: parseUnit('m'),
        standardUncertainty: u,
        degreesOfFreedom: Infinity,
        influences: () => [],
      },
      roundTo: null,
      main: true,
    },
  ],
  notes: [],
  fitted: null,
});
const of = (outcomes: Record<string, Outcome>): Evaluation => ({
  runId: 'r',
  outcomes: new Map(Object.entries(outcomes)),
});

test('what differs by more than rounding is listed by entry and name, with both numbers', () => {
  const before = of({ q: resultsOf(2, 0.1), same: resultsOf(1, null), rounding: resultsOf(3, 0.2) });
  const now = of({
    q: resultsOf(2 + 1e-9, 0.1),
    same: resultsOf(1, null),
    rounding: resultsOf(3 * (1 + 1e-14), 0.2),
  });
  expect(differencesOf(before, now)).toEqual([{ entry: 'q', what: 'mean', before: 2, now: 2 + 1e-9 }]);
});

test('an uncertainty that is gone, a refusal, an entry that one of them does not know', () => {
  const refused: Outcome = { kind: 'refused', sentence: 'No.' };
  expect(differencesOf(of({ q: resultsOf(2, 0.1) }), of({ q: resultsOf(2, null) }))).toEqual([
    { entry: 'q', what: '± of mean', before: 0.1, now: 'none' },
  ]);
  expect(differencesOf(of({ q: refused }), of({ q: resultsOf(2, null) })).map(({ what }) => what)).toEqual([
    'refused',
    'mean',
    '± of mean',
  ]);
  expect(differencesOf(of({}), of({ q: refused }))).toEqual([
    { entry: 'q', what: 'refused', before: undefined, now: 'No.' },
  ]);
});
