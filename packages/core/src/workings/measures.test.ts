import { normalRandom } from '../random';
import { halfWidth } from '../results/quantity';
import { channelOf, constantEntry } from '../testing/sheet';
import { type Entry } from './entries';
import { evaluate } from './evaluate';
import { type RunData } from './run';

const runOf = (n: number, interval: number, value: (t: number) => number): RunData => ({
  id: 'r',
  channels: [
    channelOf(
      'x',
      'm',
      Float64Array.from({ length: n }, (_, i) => value(i * interval)),
      interval,
    ),
  ],
});
const outcomeOf = (entries: Entry[], run: RunData, id: string) => {
  const outcome = evaluate({ entries }, run).outcomes.get(id);
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  return outcome;
};
const quantity = (entries: Entry[], run: RunData, id: string, key: string) => {
  const found = outcomeOf(entries, run, id).results.find((result) => result.key === key);
  if (found === undefined) throw new Error(`no ${key}`);
  return found.quantity;
};
describe('a comparison', () => {
  const compare: Entry = {
    kind: 'comparison',
    id: 'c',
    name: '',
    first: 'result:a/value',
    second: 'result:b/value',
  };
  const still = runOf(5, 0.1, () => 1);
  const said = (a: Entry, b: Entry) => {
    const { results, notes } = outcomeOf([a, b, compare], still, 'c');
    return { difference: results[0].quantity, share: results[1].quantity, sentence: notes[0] };
  };

  // By hand: 9.79 and 9.81 with 0.03 and 0.04 are 0.02 apart, of 0.05; 0.02/9.81 = 0.20 %.
  test('says how far apart two values are, and how often chance does that', () => {
    const { difference, share, sentence } = said(
      constantEntry('a', 9.79, 0.03, 'm/s2'),
      constantEntry('b', 9.81, 0.04, 'm/s2'),
    );
    expect(difference.value).toBeCloseTo(-0.02, 12);
    expect(difference.standardUncertainty).toBeCloseTo(0.05, 12);
    expect(share.value).toBeCloseTo(-0.2039, 4);
    expect(sentence).toBe(
      'They agree within their uncertainties: they are 0.020 m s⁻² apart, and the standard uncertainty of that is 0.050 m s⁻²; chance alone makes a difference as large in 69 of 100 cases.',
    );
  });

  test.each([
    [9.74, 'They are compatible'],
    [9.69, 'They hardly agree'],
    [9.5, 'They differ'],
  ])('%p against 9.81 ± 0.04: %s', (value, words) =>
    expect(
      said(constantEntry('a', value, 0.03, 'm/s2'), constantEntry('b', 9.81, 0.04, 'm/s2')).sentence,
    ).toContain(words),
  );

  test('brings units together, and refuses what measures something else', () => {
    expect(
      said(constantEntry('a', 71, 0, '[in_i]'), constantEntry('b', 1.8, 0.01, 'm')).difference.value,
    ).toBeCloseTo(0.1339, 3);
    const refused = evaluate(
      { entries: [constantEntry('a', 1, 0, 'm'), constantEntry('b', 1, 0, 's'), compare] },
      still,
    ).outcomes.get('c');
    expect(refused).toMatchObject({
      kind: 'refused',
      sentence: expect.stringContaining('only what measures the same'),
    });
  });

  test('without uncertainties nothing is claimed', () => {
    expect(said(constantEntry('a', 1, 0, 'm'), constantEntry('b', 2, 0, 'm')).sentence).toContain(
      'cannot be said',
    );
  });
});

describe('cycles', () => {
  const region: Entry = { kind: 'region', id: 'A', name: '', letter: 'A', along: 't', start: 0, end: 100 };
  const entry: Entry = { kind: 'cycles', id: 'q', name: '', of: 'channel:x', region: 'A' };
  const swing = (t: number) => 0.05 * Math.exp(-0.04 * t) * Math.sin(2 * Math.PI * 0.8 * t - 0.4) + 1.2;

  test('periods, amplitude and decrement of a damped swing come back', () => {
    const run = runOf(600, 0.02, swing);
    const told = (key: string) => quantity([region, entry], run, 'q', key).value;
    expect(told('count')).toBe(9);
    expect(told('period')).toBeCloseTo(1.25, 3);
    expect(told('frequency')).toBeCloseTo(0.8, 3);
    // Λ = δ T (any textbook of mechanics).
    expect(told('decrement')).toBeCloseTo(0.04 * 1.25, 3);
    expect(told('amplitude')).toBeGreaterThan(0.03);
    expect(told('amplitude')).toBeLessThan(0.05);
  });

  test('the interval of the period covers 65 to 71 % of 1000 noisy swings', () => {
    const random = normalRandom(31);
    let inside = 0;
    for (let i = 0; i < 1000; i++) {
      const phase = random();
      const run = runOf(300, 0.02, (t) => 0.05 * Math.sin(2 * Math.PI * 0.8 * t + phase) + 0.0008 * random());
      const period = quantity([region, entry], run, 'q', 'period');
      if (Math.abs(period.value - 1.25) <= (halfWidth(period) ?? 0)) inside++;
    }
    expect(inside / 1000).toBeGreaterThan(0.65);
    expect(inside / 1000).toBeLessThan(0.71);
  }, 60_000);

  test('less than a cycle is refused', () => {
    const outcome = evaluate({ entries: [region, entry] }, runOf(40, 0.02, swing)).outcomes.get('q');
    expect(outcome).toMatchObject({ kind: 'refused', sentence: expect.stringContaining('No whole cycle') });
  });
});

test('a smoothed series has the noise of its filter: a ninth-point parabola leaves 59/231 of the variance', () => {
  // Savitzky and Golay (Analytical Chemistry 36 (1964) 1627), table I: the middle weight of 9 points, degree 2, is 59/231, and that
  // is the sum of the squared weights of a projection.
  const smooth: Entry = { kind: 'smoothing', id: 's', name: 'x_s', of: 'channel:x', windowPoints: 9 };
  const at: Entry = { kind: 'readout', id: 'q', name: '', of: 'entry:s', at: 2 };
  const raw: Entry = { kind: 'readout', id: 'p', name: '', of: 'channel:x', at: 2 };
  const random = normalRandom(2);
  const run = runOf(300, 0.02, (t) => 0.1 * t + 0.001 * random());
  const [smoothed, own] = ['q', 'p'].map(
    (id) => quantity([smooth, at, raw], run, id, 'value').standardUncertainty ?? NaN,
  );
  expect((smoothed / own) ** 2).toBeCloseTo(59 / 231, 2);
  const line = evaluate(
    { entries: [smooth] },
    runOf(50, 0.02, (t) => 3 * t * t),
  ).outcomes.get('s');
  if (line?.kind !== 'series') throw new Error('no series');
  line.series.values.forEach((value, i) => expect(value).toBeCloseTo(3 * (i * 0.02) ** 2, 9));
});
