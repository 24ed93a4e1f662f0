import { normalRandom, uniformRandom } from '../random';
import { type Sampling, countOf, regular, timeAt, timed } from '../series/sampling';
import { parseUnit } from '../units/unit';
import { type Entry } from './entries';
import { Evaluator, evaluate } from './evaluate';
import { type Outcome } from './outcome';
import { type ChannelData, type RunData } from './run';

// An influence says how one standard deviation of each reading moves a result. Checked by moving every reading by a little
// and evaluating the whole anew: the central difference is the derivative, whatever way the result is worked out.

const irregularTimes = (seed: number, count: number) => {
  const uniform = uniformRandom(seed);
  let t = 0;
  return Float64Array.from({ length: count }, () => (t += 0.02 + 0.06 * uniform()));
};

const samplings: [name: string, sampling: Sampling][] = [
  ['regular times', regular(0, 0.05, 48)],
  ['irregular times', timed(irregularTimes(3, 48))],
];

function channel(key: string, sampling: Sampling, seed: number, value: (t: number) => number): ChannelData {
  const normal = normalRandom(seed);
  return {
    key,
    symbol: key,
    quantity: key === 'x' ? 'position' : key,
    unit: parseUnit(key === 'x' ? 'm' : 'N'),
    timeUnit: parseUnit('s'),
    sampling,
    values: Float64Array.from(
      { length: countOf(sampling) },
      (_, i) => value(timeAt(sampling, i)) + 1e-4 * normal(),
    ),
    low: null,
    high: null,
    noise: null,
  };
}

const runOn = (sampling: Sampling, missing: readonly number[]): RunData => {
  const x = channel('x', sampling, 1, (t) => 0.5 + 0.2 * t + 0.1 * Math.sin(3 * t));
  for (const index of missing) x.values[index] = NaN;
  return { id: 'r', channels: [x, channel('F', sampling, 2, (t) => 4 + t - 0.3 * t * t)] };
};

const region: Entry = {
  kind: 'region',
  id: 'A',
  name: '',
  letter: 'A',
  along: 't',
  start: 0.31,
  end: 1.87,
};
const derived: Entry[] = [
  region,
  { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 7 },
  { kind: 'derivative', id: 'a', name: 'a', of: 'entry:v', windowPoints: 5 },
  { kind: 'integral', id: 'J', name: 'J', of: 'channel:x' },
];
const on = { id: 'q', name: '', region: 'A' } as const;

const asked: [name: string, entry: Entry][] = [
  ['mean of x', { ...on, kind: 'statistics', of: 'channel:x' }],
  ['mean of v', { ...on, kind: 'statistics', of: 'entry:v' }],
  ['mean of a', { ...on, kind: 'statistics', of: 'entry:a' }],
  ['mean of ∫x dt', { ...on, kind: 'statistics', of: 'entry:J' }],
  ['slope of x', { ...on, kind: 'slope', of: 'channel:x', against: 't' }],
  ['slope of v', { ...on, kind: 'slope', of: 'entry:v', against: 't' }],
  ['slope of ∫x dt', { ...on, kind: 'slope', of: 'entry:J', against: 't' }],
  ['area under x', { ...on, kind: 'area', of: 'channel:x', against: 't' }],
  ['area under v', { ...on, kind: 'area', of: 'entry:v', against: 't' }],
  [
    'parabola through x',
    {
      ...on,
      kind: 'fit',
      of: 'channel:x',
      against: 't',
      relation: 'parabola',
      showResiduals: false,
      weights: 'equal',
    },
  ],
  [
    'parabola through v',
    {
      ...on,
      kind: 'fit',
      of: 'entry:v',
      against: 't',
      relation: 'parabola',
      showResiduals: false,
      weights: 'equal',
    },
  ],
];

/** What an entry is about, and that in turn. */
function withWhatItNeeds(entry: Entry): Entry[] {
  const ids = Object.values(entry).flatMap((said) =>
    typeof said === 'string' ? [said.replace('entry:', '')] : [],
  );
  const needed = derived.filter(({ id }) => id !== entry.id && ids.includes(id));
  return [...new Set([...needed.flatMap(withWhatItNeeds), entry])];
}

/** The main result of the entry that is asked about. */
function mainOf(outcome: Outcome | undefined) {
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  const found = outcome.results.find(({ main }) => main) ?? outcome.results[0];
  return found.quantity;
}

function movedBy(run: RunData, entry: Entry, key: string, index: number, step: number): number {
  const channels = run.channels.map((own) =>
    own.key === key ? { ...own, values: own.values.with(index, own.values[index] + step) } : own,
  );
  return mainOf(evaluate({ entries: withWhatItNeeds(entry) }, { ...run, channels }).outcomes.get('q')).value;
}

/** How readings of one channel move the result, by central differences. */
function sensitivities(run: RunData, entry: Entry, key: string): number[] {
  // Small, so that the degree through which windows are read (unflattened.ts) stays as it is.
  const step = 1e-7;
  const { values } = run.channels.find((own) => own.key === key) ?? { values: new Float64Array(0) };
  return Array.from(values, (value, i) =>
    Number.isNaN(value)
      ? 0
      : (movedBy(run, entry, key, i, step) - movedBy(run, entry, key, i, -step)) / (2 * step),
  );
}

function influencesOf(run: RunData, entry: Entry): Map<string, number[]> {
  const quantity = mainOf(evaluate({ entries: [...derived, entry] }, run).outcomes.get('q'));
  const found = new Map<string, number[]>();
  for (const { root, effect } of quantity.influences()) {
    const whole = new Array<number>(run.channels[0].values.length).fill(0);
    effect.weights.forEach((weight, k) => (whole[effect.first + k] += weight));
    found.set(root, whole);
  }
  return found;
}

const norm = (values: readonly number[]) => Math.sqrt(values.reduce((sum, value) => sum + value * value, 0));

/** Cosine of the angle between two directions, and so 1 where one is a positive multiple of the other. */
const alike = (a: readonly number[], b: readonly number[]) =>
  a.reduce((sum, value, i) => sum + value * b[i], 0) / (norm(a) * norm(b));

describe.each(samplings)('%s', (_name, sampling) => {
  describe.each([
    ['no reading missing', []],
    ['readings missing inside and at the region’s edge', [7, 20, 21, 37]],
  ])('%s', (_which, missing) => {
    test.each(asked)('the influences on the %s are its derivatives by the readings', (_what, entry) => {
      const run = runOn(sampling, missing);
      const [told] = influencesOf(run, entry).values();
      const found = sensitivities(run, entry, 'x');
      expect(norm(found)).toBeGreaterThan(0);
      expect(alike(told, found)).toBeGreaterThan(0.9999);
      told.forEach((weight, i) => {
        if (missing.includes(i)) expect(weight).toBe(0);
      });
    });
  });

  test('the influences on ∫ F dx of both sensors are its derivatives by their readings', () => {
    const entry: Entry = { ...on, kind: 'area', of: 'channel:F', against: 'channel:x' };
    const run = runOn(sampling, []);
    const told = influencesOf(run, entry);
    expect([...told.keys()].sort()).toEqual(['r/F', 'r/x']);
    for (const key of ['F', 'x'])
      expect(alike(told.get(`r/${key}`) ?? [], sensitivities(run, entry, key))).toBeGreaterThan(0.9999);
  });

  test('the squares of the influences add up to the squared uncertainty', () => {
    for (const [name, entry] of asked) {
      const run = runOn(sampling, []);
      const quantity = mainOf(evaluate({ entries: [...derived, entry] }, run).outcomes.get('q'));
      const variance = quantity
        .influences()
        .reduce((sum, { effect }) => sum + norm([...effect.weights]) ** 2, 0);
      expect([name, Math.sqrt(variance) / (quantity.standardUncertainty ?? NaN)]).toEqual([
        name,
        expect.closeTo(1, 6),
      ]);
    }
  });
});

test('an evaluator that has grown through a run, in steps of any size, says what a fresh one says', () => {
  const uniform = uniformRandom(8);
  for (const [, sampling] of samplings) {
    const run = runOn(sampling, [7, 20, 21]);
    const entries = [...derived, ...asked.map(([, entry], i) => ({ ...entry, id: `q${i}` }))];
    const cut = (count: number): Sampling =>
      sampling.kind === 'regular'
        ? regular(sampling.start, sampling.interval, count)
        : timed(sampling.kind === 'timed' ? sampling.times.slice(0, count) : new Float64Array(0));
    const partOf = (own: ChannelData, count: number): ChannelData => ({
      ...own,
      sampling: cut(count),
      values: own.values.slice(0, count),
    });
    const grown = new Evaluator({ ...run, channels: run.channels.map((own) => partOf(own, 2)) });
    for (let count = 2; count < 48;) {
      count = Math.min(48, count + 1 + Math.floor(9 * uniform()));
      for (const own of run.channels) grown.grow(own.key, cut(count), own.values.slice(0, count));
      const now = { ...run, channels: run.channels.map((own) => partOf(own, count)) };
      const fresh = evaluate({ entries }, now);
      const told = grown.evaluate({ entries });
      for (const { id } of entries) {
        const [a, b] = [told.outcomes.get(id), fresh.outcomes.get(id)];
        expect(a?.kind).toBe(b?.kind);
        if (a?.kind === 'results' && b?.kind === 'results')
          a.results.forEach(({ quantity }, i) => {
            const other = b.results[i].quantity;
            expect(quantity.value).toBeCloseTo(other.value, 9);
            if (other.standardUncertainty !== null && Number.isFinite(other.standardUncertainty))
              expect((quantity.standardUncertainty ?? NaN) / other.standardUncertainty).toBeCloseTo(1, 6);
          });
      }
    }
  }
});
