import { parseUnit, printedUnit } from '../units/unit';
import { normalRandom } from '../random';
import { regular } from '../series/sampling';
import { type Entry, type Workings } from './entries';
import { Evaluator, evaluate } from './evaluate';
import { type NamedResult } from './outcome';
import { type RunData } from './run';

const [metre, second] = [parseUnit('m'), parseUnit('s')];

function run(position: (t: number) => number, count = 400): RunData {
  return {
    id: 'r1',
    channels: [
      {
        key: 'x',
        symbol: 'x',
        quantity: 'position',
        unit: metre,
        timeUnit: second,
        sampling: regular(0, 0.02, count),
        values: Float64Array.from({ length: count }, (_, i) => position(i * 0.02)),
        low: 0.15,
        high: 6,
        noise: null,
      },
    ],
  };
}

const A: Entry = { kind: 'region', id: 'A', name: 'steady', letter: 'A', along: 't', start: 1, end: 6 };
const v: Entry = { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 9 };
const a: Entry = { kind: 'derivative', id: 'a', name: 'a', of: 'entry:v', windowPoints: 9 };
const onA = { region: 'A', name: '' } as const;
const swing = (t: number) => 0.8 + 0.04 * Math.sin((2 * Math.PI * t) / 1.2);

function results(workings: Workings, data: RunData, id: string): Record<string, NamedResult> {
  const outcome = evaluate(workings, data).outcomes.get(id);
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  return Object.fromEntries(outcome.results.map((result) => [result.key, result]));
}
const sentence = (workings: Workings, data: RunData, id: string) => {
  const outcome = evaluate(workings, data).outcomes.get(id);
  return outcome?.kind === 'refused' ? outcome.sentence : `not refused: ${outcome?.kind}`;
};

test('a swing gives its period, its derivatives their units, and a against x the slope −ω²', () => {
  const normal = normalRandom(1);
  const fit: Entry = {
    ...onA,
    kind: 'fit',
    id: 'f',
    relation: 'sine',
    of: 'channel:x',
    against: 't',
    showResiduals: false,
    weights: 'equal',
  };
  const slope: Entry = { ...onA, kind: 'slope', id: 's', of: 'entry:a', against: 'channel:x' };
  const workings = { entries: [fit, slope, A, a, v] };
  const data = run((t) => swing(t) + 0.0003 * normal());
  const { period } = results(workings, data, 'f');
  expect(period.quantity.value).toBeCloseTo(1.2, 3);
  expect(printedUnit(period.quantity.unit)).toBe('s');
  const { slope: minusOmegaSquared } = results(workings, data, 's');
  // A 9-point window flattens this swing by a known few per cent, twice over; the rest is noise.
  expect(-minusOmegaSquared.quantity.value / ((2 * Math.PI) / 1.2) ** 2).toBeGreaterThan(0.94);
  expect(printedUnit(minusOmegaSquared.quantity.unit)).toBe('s⁻²');
});

test('lost echoes at the far limit neither become the maximum nor pull the fit, and are said', () => {
  const data = run(swing);
  data.channels[0].values[100] = data.channels[0].values[101] = 6;
  const stats: Entry = { ...onA, kind: 'statistics', id: 'm', of: 'channel:x' };
  const { max } = results({ entries: [A, stats] }, data, 'm');
  expect(max.quantity.value).toBeLessThan(0.85);
  const outcome = evaluate({ entries: [A, stats] }, data).outcomes.get('m');
  expect(outcome?.kind === 'results' && outcome.notes[0]).toBe(
    '2 of 251 readings are missing or no measurement (at a limit, a wrong echo); they were left out.',
  );
});

test('slope and area of a steady walk: 0.3 m/s and ½·0.3·(6² − 1²) m s', () => {
  const slope: Entry = { ...onA, kind: 'slope', id: 's', of: 'channel:x', against: 't' };
  const area: Entry = { ...onA, kind: 'area', id: 'ar', of: 'channel:x', against: 't' };
  const data = run((t) => 0.2 + 0.3 * t);
  expect(results({ entries: [A, slope] }, data, 's').slope.quantity.value).toBeCloseTo(0.3, 12);
  const { area: found } = results({ entries: [A, area] }, data, 'ar');
  expect(found.quantity.value).toBeCloseTo(0.2 * 5 + 0.15 * 35, 10);
  expect(printedUnit(found.quantity.unit)).toBe('m s');
});

describe('a sentence in place of a number', () => {
  const fit: Entry = {
    ...onA,
    kind: 'fit',
    id: 'f',
    relation: 'line',
    of: 'channel:x',
    against: 't',
    showResiduals: false,
    weights: 'equal',
  };
  const moved = (start: number, end: number): Workings => ({ entries: [{ ...A, start, end }, fit] });
  test('for a region without readings, with one reading, with constant readings', () => {
    expect(sentence(moved(50, 60), run(swing), 'f')).toMatch('no reading in this region');
    expect(sentence(moved(1, 1.01), run(swing), 'f')).toMatch('needs at least 3 readings; the region has 1');
    expect(
      sentence(
        moved(1, 2),
        run(() => 0.5),
        'f',
      ),
    ).toMatch('are the same (0.5)');
  });
  test('for all readings missing, and for a run of no reading at all', () => {
    expect(
      sentence(
        moved(1, 2),
        run(() => NaN),
        'f',
      ),
    ).toMatch('All readings in this region are missing');
    expect(sentence(moved(1, 2), run(swing, 0), 'f')).toMatch('no reading in this region');
  });
  test('for a removed region, a removed series, a channel this run lacks, an entry about itself', () => {
    expect(sentence({ entries: [fit] }, run(swing), 'f')).toMatch('region of this entry was removed');
    expect(sentence({ entries: [A, { ...fit, of: 'entry:v' }] }, run(swing), 'f')).toMatch('was removed');
    expect(sentence({ entries: [A, { ...fit, of: 'channel:F' }] }, run(swing), 'f')).toMatch('has no F');
    expect(sentence({ entries: [{ ...v, of: 'entry:v' }] }, run(swing), 'v')).toMatch(
      'worked out from itself',
    );
  });
});

test('remembering changes nothing: an evaluator led through edits says what a fresh evaluation says', () => {
  const data = run(swing);
  const evaluator = new Evaluator(data);
  const fit: Entry = {
    ...onA,
    kind: 'fit',
    id: 'f',
    relation: 'sine',
    of: 'entry:v',
    against: 't',
    showResiduals: false,
    weights: 'equal',
  };
  for (const windowPoints of [5, 9, 5])
    for (const end of [4, 6, 6.004, 4]) {
      const workings: Workings = { entries: [{ ...A, end }, { ...v, windowPoints }, fit] };
      // What can be asked of a result later is a function; the numbers are compared.
      const numbers = (outcome: unknown) => JSON.parse(JSON.stringify(outcome)) as unknown;
      expect(numbers(evaluator.evaluate(workings).outcomes.get('f'))).toEqual(
        numbers(evaluate(workings, data).outcomes.get('f')),
      );
    }
});

test('only what is sought is worked out, with what it speaks of; what was worked out before stands', () => {
  const mean: Entry = { ...onA, kind: 'statistics', id: 'm', of: 'entry:v' };
  const slope: Entry = { ...onA, kind: 'slope', id: 's', of: 'channel:x', against: 't' };
  const evaluator = new Evaluator(run(swing));
  const all = evaluator.evaluate({ entries: [A, v, mean, slope] });
  const moved = { ...A, end: 5 };
  const { outcomes } = evaluator.evaluate(
    { entries: [moved, v, mean, slope] },
    { moving: true, only: new Set(['m']) },
  );
  expect([...outcomes.keys()]).toEqual(['m']);
  expect(outcomes.get('m')).not.toBe(all.outcomes.get('m'));
  // Back where it was, the one that was not sought is the same as ever.
  const back = evaluator.evaluate({ entries: [A, v, mean, slope] });
  expect(back.outcomes.get('s')).toBe(all.outcomes.get('s'));
});

test('sentences that take long to work out stay while a hand moves, and are worked out anew at rest', () => {
  const wide: Entry = { ...v, windowPoints: 25 };
  const mean: Entry = { ...onA, kind: 'statistics', id: 'm', of: 'entry:v' };
  const evaluator = new Evaluator(run(swing));
  const notes = (end: number, moving: boolean, derived = wide) => {
    const outcome = evaluator
      .evaluate({ entries: [{ ...A, end }, derived, mean] }, { moving })
      .outcomes.get('m');
    return outcome?.kind === 'results' ? outcome.notes.filter((note) => /takes|flattens/.test(note)) : [];
  };
  const [told] = notes(6, false);
  expect(told).toMatch(/The window of v (takes|flattens)/);
  expect(notes(5.5, true)).toEqual([told]);
  expect(notes(5.2, true)).toEqual([told]);
  // Of another window nobody has said anything yet.
  expect(notes(5.2, true, { ...wide, windowPoints: 31 })).toEqual([]);
  expect(notes(5.2, false, { ...wide, windowPoints: 31 })[0]).toMatch(/The window of v (takes|flattens)/);
});
