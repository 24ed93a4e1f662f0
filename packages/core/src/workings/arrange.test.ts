import { regular } from '../series/sampling';
import { parseUnit } from '../units/unit';
import { type Entry, type Workings } from './entries';
import { Evaluator, evaluate } from './evaluate';
import { type RunData } from './run';

const values = Float64Array.from({ length: 101 }, (_, i) => 2 + 0.5 * (i * 0.1));
values[50] = 40;
const run = (id: string): RunData => ({
  id,
  channels: [
    {
      key: 'F',
      symbol: 'F',
      quantity: 'force',
      unit: parseUnit('N'),
      timeUnit: parseUnit('s'),
      sampling: regular(0, 0.1, values.length),
      values,
      low: null,
      high: null,
      noise: null,
    },
  ],
});
const entries: Entry[] = [
  { kind: 'region', id: 'A', name: '', letter: 'A', along: 't', start: 4, end: 6 },
  { kind: 'slope', id: 's', name: '', of: 'channel:F', against: 't', region: 'A' },
  { kind: 'statistics', id: 'm', name: '', of: 'channel:F', region: 'A' },
  { kind: 'readout', id: 'r', name: '', of: 'channel:F', at: 3 },
];
const result = (workings: Workings, evaluator: Evaluator, id: string, key: string) => {
  const outcome = evaluator.evaluate(workings).outcomes.get(id);
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  const found = outcome.results.find((one) => one.key === key);
  return { value: found?.quantity.value ?? NaN, notes: outcome.notes };
};
const wrongOne = [{ run: 'a', channel: 'F', ranges: [[50, 51]] as const }];

test('a reading that is set aside counts in nothing, is counted beside every result, and comes back', () => {
  const evaluator = new Evaluator(run('a'));
  const before = result({ entries }, evaluator, 's', 'slope').value;
  const aside = { entries, aside: wrongOne };
  expect(result(aside, evaluator, 's', 'slope').value).toBeCloseTo(0.5, 9);
  expect(result(aside, evaluator, 'm', 'max').value).toBeCloseTo(5, 9);
  for (const id of ['s', 'm'])
    expect(result(aside, evaluator, id, id === 's' ? 'slope' : 'mean').notes).toContain(
      '1 reading was set aside.',
    );
  expect(evaluator.asideOf('F')).toEqual([{ index: 50, value: 40 }]);
  const back = result({ entries, aside: [] }, evaluator, 's', 'slope');
  expect(back.value).toBe(before);
  expect(back.notes.join()).not.toContain('aside');
});

test('what is set aside in one run is not in another', () => {
  const other = new Evaluator(run('b'));
  const before = result({ entries }, other, 'm', 'mean').value;
  expect(result({ entries, aside: wrongOne }, other, 'm', 'mean').value).toBe(before);
});

test('readings that come afterwards go on where they were', () => {
  const evaluator = new Evaluator(run('a'));
  const aside = { entries, aside: wrongOne, shifts: [{ run: 'a', by: 2 }] };
  evaluator.evaluate(aside);
  const longer = new Float64Array(200).fill(1);
  longer.set(values);
  evaluator.grow('F', regular(0, 0.1, 200), longer);
  const series = evaluator.series(aside, 'channel:F');
  expect(series.values).toHaveLength(200);
  expect(series.values[50]).toBeNaN();
  expect(series.sampling).toMatchObject({ start: 2 });
});

test('a run that is moved is read where it lies now: as a run that was recorded so', () => {
  const moved = { entries, shifts: [{ run: 'a', by: -1.5 }] };
  const evaluator = new Evaluator(run('a'));
  // F(t) = 2 + 0.5 t was at 4.5 s what is at 3 s now.
  expect(result(moved, evaluator, 'r', 'value').value).toBeCloseTo(4.25, 9);
  const { channels } = run('c');
  const recorded = { id: 'c', channels: [{ ...channels[0], sampling: regular(-1.5, 0.1, values.length) }] };
  const outcomes = evaluate({ entries }, recorded).outcomes;
  const [here, there] = [evaluator.evaluate(moved).outcomes.get('m'), outcomes.get('m')];
  if (here?.kind !== 'results' || there?.kind !== 'results') throw new Error('no results');
  expect(here.results[0].quantity.value).toBe(there.results[0].quantity.value);
  expect(evaluator.shift).toBe(-1.5);
  expect(result({ entries }, evaluator, 'r', 'value').value).toBeCloseTo(3.5, 9);
});
