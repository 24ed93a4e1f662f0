import norris from '../../reference/norris.json';
import { normalRandom, uniformRandom } from '../random';
import { budgetOf, covarianceOf, halfWidth, varianceOf } from '../results/quantity';
import { type Sampling, countOf, regular, timeAt, timed } from '../series/sampling';
import { parseUnit } from '../units/unit';
import { type Entry } from './entries';
import { evaluate } from './evaluate';
import { type NamedResult } from './outcome';
import { type ChannelData, type RunData } from './run';

// The claim behind ±: the interval holds the truth in 68.3 % of repetitions (JCGM 100:2008, annex G). Checked by simulation
// with a known truth; 1000 repetitions tell the share to ±1.5 percentage points.

const s = parseUnit('s');
const channel = (
  key: string,
  unit: string,
  sampling: Sampling,
  value: (t: number, i: number) => number,
): ChannelData => ({
  key,
  symbol: key,
  quantity: key === 'x' ? 'position' : key,
  unit: parseUnit(unit),
  timeUnit: s,
  sampling,
  values: Float64Array.from({ length: countOf(sampling) }, (_, i) => value(timeAt(sampling, i), i)),
  low: null,
  high: null,
  noise: null,
});
const region = (start: number, end: number): Entry => ({
  kind: 'region',
  id: 'A',
  name: '',
  letter: 'A',
  along: 't',
  start,
  end,
});

function resultOf(entries: Entry[], run: RunData, id: string): NamedResult {
  const outcome = evaluate({ entries }, run).outcomes.get(id);
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  return outcome.results[0];
}

/** Share of repetitions in which the interval holds the truth. */
function coverage(
  entries: Entry[],
  truth: number,
  make: (repetition: number) => ChannelData[],
  repetitions = 1000,
): number {
  let inside = 0;
  for (let i = 0; i < repetitions; i++) {
    const { quantity } = resultOf(entries, { id: `r${i}`, channels: make(i) }, 'q');
    if (Math.abs(quantity.value - truth) <= (halfWidth(quantity) ?? 0)) inside++;
  }
  return inside / repetitions;
}
const expectCovered = (share: number) => {
  expect(share).toBeGreaterThan(0.635);
  expect(share).toBeLessThan(0.73);
};

const mean = (of: 'channel:x' | 'entry:v'): Entry => ({
  kind: 'statistics',
  id: 'q',
  name: '',
  region: 'A',
  of,
});
const v: Entry = { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 9 };
const grid = regular(0, 0.02, 200);

test('the mean of something that moves is as certain as its readings', () => {
  const normal = normalRandom(1);
  const truth = Array.from({ length: 151 }, (_, i) => Math.sin(0.5 + i * 0.02)).reduce((a, b) => a + b) / 151;
  expectCovered(
    coverage([region(0.5, 3.5), mean('channel:x')], truth, () => [
      channel('x', 'm', grid, (t) => Math.sin(t) + 0.01 * normal()),
    ]),
  );
});

test('the mean of a derived series has an uncertainty, and it covers', () => {
  const normal = normalRandom(2);
  expectCovered(
    coverage([region(0.5, 3.5), v, mean('entry:v')], 0.3, () => [
      channel('x', 'm', grid, (t) => 0.3 * t + 0.001 * normal()),
    ]),
  );
});

test('work along a path counts the noise of the position: ∫ F dx', () => {
  const normal = normalRandom(3);
  const entry: Entry = {
    kind: 'area',
    id: 'q',
    name: '',
    region: 'A',
    of: 'channel:F',
    against: 'channel:x',
  };
  const x = (t: number) => 0.1 * t;
  const truth = (20 * 0.1 ** 2 * (3.5 ** 2 - 0.5 ** 2)) / 2;
  expectCovered(
    coverage([region(0.5, 3.5), entry], truth, () => [
      channel('x', 'm', grid, (t) => x(t) + 0.003 * normal()),
      channel('F', 'N', grid, (t) => 20 * x(t) + 0.002 * normal()),
    ]),
  );
});

test('a force fitted against a noisy position has the right slope and interval', () => {
  const normal = normalRandom(4);
  const entry: Entry = {
    kind: 'slope',
    id: 'q',
    name: '',
    region: null,
    of: 'channel:F',
    against: 'channel:x',
  };
  const long = regular(0, 0.02, 1000);
  expectCovered(
    coverage(
      [entry],
      20,
      () => [
        channel('x', 'm', long, (t) => 0.05 * Math.sin(t) + 0.003 * normal()),
        channel('F', 'N', long, (t) => Math.sin(t) + 0.02 * normal()),
      ],
      600,
    ),
  );
});

test('a slope over ten values that share their noise covers: Student’s t with the effective degrees of freedom', () => {
  const normal = normalRandom(5);
  const entry: Entry = { kind: 'slope', id: 'q', name: '', region: 'A', of: 'entry:v', against: 't' };
  expectCovered(
    coverage([region(1, 1.19), v, entry], 0.9, () => [
      channel('x', 'm', regular(0, 0.02, 100), (t) => 0.1 * t + 0.45 * t * t + 0.0003 * normal()),
    ]),
  );
});

test.each([4, 5, 7])('a line through %p readings covers as well', (count) => {
  const normal = normalRandom(6 + count);
  const entry: Entry = { kind: 'slope', id: 'q', name: '', region: null, of: 'channel:x', against: 't' };
  expectCovered(
    coverage([entry], 0.4, () => [channel('x', 'm', regular(0, 1, count), (t) => 0.4 * t + 0.1 * normal())]),
  );
});

test('an area at irregular times, and one with six readings a swing, cover neither too little nor far too much', () => {
  const entry: Entry = { kind: 'area', id: 'q', name: '', region: 'A', of: 'channel:x', against: 't' };
  const random = uniformRandom(7);
  let t = 0;
  const irregular = timed(Float64Array.from({ length: 200 }, () => (t += 0.01 + 0.02 * random())));
  const few = regular(0, 1, 200);
  for (const [sampling, motion, start, end] of [
    [irregular, (at: number) => 1 + 0.1 * at, 0.4, 3.2],
    [few, (at: number) => 0.04 * Math.sin((2 * Math.PI * at) / 6.3), 5, 190],
  ] as const) {
    // The area of the straight lines between the noiseless readings is the truth that the noise is about.
    const clean = resultOf(
      [region(start, end), entry],
      { id: 'clean', channels: [channel('x', 'm', sampling, motion)] },
      'q',
    ).quantity.value;
    const normal = normalRandom(8);
    expectCovered(
      coverage(
        [region(start, end), entry],
        clean,
        () => [channel('x', 'm', sampling, (at) => motion(at) + 0.001 * normal())],
        600,
      ),
    );
  }
});

describe('influences', () => {
  const normal = normalRandom(11);
  const run: RunData = {
    id: 'r',
    channels: [
      channel('x', 'm', grid, (t) => 0.1 * Math.sin(2 * t) + 0.0005 * normal()),
      channel('F', 'N', grid, (t) => 2 * Math.sin(2 * t) + 0.01 * normal()),
    ],
  };
  const base = { name: '', region: 'A' } as const;
  const entries: Entry[] = [
    region(0.5, 3.5),
    v,
    { ...base, kind: 'slope', id: '1', of: 'channel:x', against: 't' },
    { ...base, kind: 'slope', id: '2', of: 'entry:v', against: 't' },
    { ...base, kind: 'slope', id: '3', of: 'channel:F', against: 'channel:x' },
    { ...base, kind: 'area', id: '4', of: 'channel:F', against: 'channel:x' },
    { ...base, kind: 'statistics', id: '5', of: 'entry:v' },
    {
      ...base,
      kind: 'fit',
      id: '6',
      of: 'channel:x',
      against: 't',
      relation: 'sine',
      showResiduals: false,
      weights: 'equal',
    },
    {
      kind: 'constant',
      id: '7',
      name: 'm',
      value: 0.5,
      uncertainty: 0.002,
      unit: 'kg',
      source: '',
      ends: '',
      shift: 0,
    },
  ];

  test.each(['1', '2', '3', '4', '5', '6', '7'])(
    'the squares of what moves result %s add up to its variance',
    (id) => {
      const { quantity } = resultOf(entries, run, id);
      const sum = quantity.influences().reduce((total, influence) => total + varianceOf(influence), 0);
      expect(Math.sqrt(sum) / (quantity.standardUncertainty ?? NaN)).toBeCloseTo(1, 6);
      expect(covarianceOf(quantity, quantity) / sum).toBeCloseTo(1, 12);
    },
  );

  test('the budget of a work names both sensors, largest first, and its shares are a whole', () => {
    const rows = budgetOf(resultOf(entries, run, '4').quantity);
    expect(rows.map(({ label }) => label)).toEqual(['readings of x', 'readings of F']);
    expect(rows.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 12);
  });

  test('two slopes of one noisy series hang together as a simulation shows, and results of two runs do not', () => {
    const noise = normalRandom(12);
    const two: Entry[] = [
      region(0.5, 2),
      { ...base, kind: 'slope', id: 'a', of: 'channel:x', against: 't' },
      { kind: 'statistics', id: 'b', name: '', region: null, of: 'channel:x' },
    ];
    const pairs = Array.from({ length: 1500 }, (_, i) => {
      const channels = [channel('x', 'm', grid, (t) => 0.2 * t + 0.01 * noise())];
      return [
        resultOf(two, { id: `${i}`, channels }, 'a').quantity,
        resultOf(two, { id: `${i}`, channels }, 'b').quantity,
      ];
    });
    const center = [0, 1].map((k) => pairs.reduce((sum, pair) => sum + pair[k].value, 0) / pairs.length);
    const observed =
      pairs.reduce((sum, [a, b]) => sum + (a.value - center[0]) * (b.value - center[1]), 0) / pairs.length;
    const claimed = pairs.slice(0, 50).reduce((sum, [a, b]) => sum + covarianceOf(a, b) / 50, 0);
    const scale = (pairs[0][0].standardUncertainty ?? 1) * (pairs[0][1].standardUncertainty ?? 1);
    expect(Math.abs(observed - claimed) / scale).toBeLessThan(0.08);
    expect(covarianceOf(pairs[0][0], pairs[1][0])).toBe(0);
  });
});

test('a parabola far from the origin is drawn where its readings are', () => {
  const at = 1.7e9;
  const entry: Entry = {
    kind: 'fit',
    id: 'q',
    name: '',
    region: null,
    of: 'channel:x',
    against: 't',
    relation: 'parabola',
    showResiduals: false,
    weights: 'equal',
  };
  const run: RunData = {
    id: 'r',
    channels: [channel('x', 'm', regular(at, 0.02, 200), (t) => 0.3 * (t - at) ** 2 - 0.1 * (t - at))],
  };
  const outcome = evaluate({ entries: [entry] }, run).outcomes.get('q');
  if (outcome?.kind !== 'results' || outcome.fitted === null) throw new Error('no fit');
  const { x, y } = outcome.fitted.curve;
  x.forEach((t, i) => expect(y[i]).toBeCloseTo(0.3 * (t - at) ** 2 - 0.1 * (t - at), 5));
});

test('a region that reaches beyond the run says so', () => {
  const run: RunData = { id: 'r', channels: [channel('x', 'm', grid, (t) => t)] };
  const outcome = evaluate({ entries: [region(1, 9), mean('channel:x')] }, run).outcomes.get('q');
  expect(outcome?.kind === 'results' && outcome.notes.slice(0, 1)).toEqual([
    'The run ends at 3.98 s, before the region does.',
  ]);
});

describe('places whose noise cannot be found', () => {
  const slope: Entry = {
    kind: 'slope',
    id: 'q',
    name: '',
    region: null,
    of: 'channel:y',
    against: 'channel:x',
  };

  test.each([
    ['numbered readings', [] as const, regular(1, 1, norris.x.length)],
    ['readings in time', s, regular(0, 0.5, norris.x.length)],
  ])('count as exact: Norris (NIST StRD) as %s gives the certified slope', (_name, timeUnit, sampling) => {
    const of = (key: 'x' | 'y') => ({
      ...channel(key, '1', sampling, (_t, i) => norris[key][i]),
      timeUnit,
    });
    const { quantity } = resultOf([slope], { id: 'n', channels: [of('x'), of('y')] }, 'q');
    expect(quantity.value).toBeCloseTo(norris.certified.parameters[1], 10);
    expect(quantity.standardUncertainty).toBeCloseTo(norris.certified.standardDeviations[1], 10);
  });

  test('noise of the places that explains all the scatter is believed', () => {
    const normal = normalRandom(9);
    let refuted = 0;
    for (let i = 0; i < 300; i++) {
      const run: RunData = {
        id: `r${i}`,
        channels: [
          channel('x', 'm', grid, (t) => Math.sin(t) + 0.01 * normal()),
          channel('y', 'N', grid, (t) => 3 * Math.sin(t)),
        ],
      };
      const outcome = evaluate({ entries: [slope] }, run).outcomes.get('q');
      if (outcome?.kind !== 'results') throw new Error('refused');
      if (outcome.notes.some((note) => note.includes('count as exact'))) refuted++;
    }
    expect(refuted).toBeLessThan(4);
  });
});
