import {
  type Channel,
  type Run,
  type WorkingsDocument,
  channelOf,
  emptyWorkings,
} from '@heuristor/contracts';
import {
  type Condition,
  type Entry,
  type OpenedResult,
  covarianceOf,
  normalRandom,
  openedEvaluation,
} from '@heuristor/core';
import { HeldRuns } from './heldRuns';
import { outcomesOf } from './outcomes';
import { type RunReadings } from './readings';

// Results of two runs hang together by what was typed, zeroed and calibrated once for both. What is stored of them says by how much;
// it is held against runs in which that very thing is moved, and everything is worked out anew.

const at = '2026-11-29T10:00:00.000Z';
/** What both runs have in common, and its standard uncertainties. */
const u = { zero: 0.004, low: 0.01, high: 0.02, length: 0.0002, mass: 0.0005 };
type Moved = Partial<Record<keyof typeof u, number>>;
const points = { read: [0.1, 2.6], known: [0, 5] } as const;

const runOf = (id: string, channels: Channel[]): Run => ({
  id,
  investigationId: 'i',
  number: 1,
  name: id,
  origin: 'recorded',
  state: 'ended',
  startedAt: at,
  timeZone: 'UTC',
  removed: false,
  gaps: [],
  notes: [],
  plan: null,
  practice: false,
  conditions: {},
  group: '',
  remark: '',
  planned: null,
  spot: null,
  channels,
});

/** A force under a zero, one under two points, and a flag through a gate; read with these things as they were, or moved. */
function made(id: string, seed: number, level: number, { zero = 0, low = 0, high = 0 }: Moved) {
  const normal = normalRandom(seed);
  const noisy = (value: number) => Float64Array.from({ length: 60 }, () => value + 0.01 * normal());
  const regular = { kind: 'regular', start: 0, interval: 0.05 } as const;
  const base = { quantity: 'force', unit: 'N', timeUnit: 's', sampling: regular };
  const applied = { range: 'only', reversed: false, numbers: {}, zeroedAtStart: false };
  const [[r1, r2], [k1, k2]] = [points.read, points.known];
  const gainOf = (a: number, b: number) => (k2 - k1) / (b - a);
  const gain = gainOf(r1, r2);
  const offset = r1 - k1 / gain;
  // What the device sent is what it was; what is shown of it hangs on what was read at the two typed values.
  const sent = noisy(offset + level / gain);
  const shown = sent.map((value) => k1 + gainOf(r1 + low, r2 + high) * (value - r1 - low));
  const channels: Channel[] = [
    {
      ...channelOf({ ...base, key: 'F' }),
      deviceCode: 'K7-F',
      applied: {
        ...applied,
        scale: 1,
        offset: 0,
        zero: { offset: 0, spread: 0.01, uncertainty: u.zero, at },
        twoPoint: null,
      },
    },
    {
      ...channelOf({ ...base, key: 'G' }),
      deviceCode: 'K7-G',
      applied: {
        ...applied,
        scale: gain,
        offset: -gain * offset,
        zero: { offset, spread: 0, at },
        twoPoint: {
          gain,
          points: [
            { read: points.read[0], known: points.known[0], uncertainty: u.low },
            { read: points.read[1], known: points.known[1], uncertainty: u.high },
          ],
          at,
        },
      },
    },
    {
      ...channelOf({ quantity: 'beam', unit: '1', timeUnit: 's', sampling: { kind: 'events' }, key: 'B' }),
      edges: { of: 'beam', step: 1e-6 } as never,
    },
  ].map((channel, i) => ({ ...channel, id: i + 1 })) as Channel[];
  const times = Float64Array.of(0.2, 0.2 + 0.05 / level, 0.9, 0.9 + 0.05 / level);
  const readings: RunReadings = {
    values: [noisy(level).map((value) => value + zero), shown, Float64Array.of(1, 0, 1, 0)],
    times: [null, null, times],
  };
  return { run: runOf(id, channels), readings };
}

const on = { region: null, name: '' } as const;
const sheet = ({ length = 0 }: Moved): WorkingsDocument => {
  const constant = {
    kind: 'constant',
    id: 'l',
    name: 'l',
    value: 0.05 + length,
    uncertainty: u.length,
  } as const;
  const entries: Entry[] = [
    { ...constant, unit: 'm', source: '', ends: '', shift: 0 },
    { ...on, kind: 'statistics', id: 'F', of: 'channel:F' },
    { ...on, kind: 'statistics', id: 'G', of: 'channel:G' },
    { kind: 'flagSpeed', id: 'v', name: 'v', of: 'channel:B', length: 'result:l/value' },
    { ...on, kind: 'statistics', id: 'V', of: 'entry:v' },
    {
      kind: 'calculation',
      id: 'p',
      name: 'p',
      formula: { text: 'm F', names: { F: 'result:F/mean' } },
      unit: '',
    },
  ];
  return { ...emptyWorkings, entries };
};
const conditions = ({ mass = 0 }: Moved): Condition[] => [
  { name: 'm', value: 0.5 + mass, uncertainty: u.mass, unit: 'kg' },
];

function resultsOf(id: string, seed: number, level: number, moved: Moved = {}): OpenedResult[] {
  const { run, readings } = made(id, seed, level, moved);
  const held = new HeldRuns();
  held.put(run, readings);
  const evaluator = held.evaluator(id);
  if (evaluator === null) throw new Error('the run is not there');
  const stored = outcomesOf(evaluator, { sheets: [sheet(moved)], conditions: conditions(moved) });
  return openedEvaluation(JSON.parse(JSON.stringify(stored)) as typeof stored);
}

const mainOf = (results: readonly OpenedResult[], entry: string): OpenedResult => {
  const found = results.find((one) => one.entry === entry && one.main);
  if (found === undefined) throw new Error(`no result of ${entry}`);
  return found;
};

// JCGM 100:2008, F.1.2.3: what two values owe to a root adds up as the product of what one standard deviation of it does to each.
test.each([
  ['F', 'a force under one zero', ['zero']],
  ['G', 'a force under two typed points', ['low', 'high']],
  ['V', 'speeds of one flag', ['length']],
  ['p', 'what was weighed once, times a force', ['zero', 'mass']],
] as const)('%s, %s: two runs have the covariance that moving it gives them', (entry, _title, roots) => {
  const runs = [
    { id: 'one', seed: 3, level: 2 },
    { id: 'two', seed: 8, level: 3.5 },
  ];
  const [first, second] = runs.map(({ id, seed, level }) => {
    const moves = roots.map((root) => {
      const [less, more] = [-1, 1].map((sign) =>
        mainOf(resultsOf(id, seed, level, { [root]: sign * u[root] }), entry),
      );
      return (more.quantity.value - less.quantity.value) / 2;
    });
    return { stored: mainOf(resultsOf(id, seed, level), entry).quantity, moves };
  });
  const wanted = roots.reduce((sum, _root, i) => sum + first.moves[i] * second.moves[i], 0);
  expect(wanted).toBeGreaterThan(0);
  expect(covarianceOf(first.stored, second.stored) / wanted).toBeCloseTo(1, 3);
  // With itself it has its variance.
  expect(
    covarianceOf(first.stored, first.stored) / (first.stored.standardUncertainty ?? NaN) ** 2,
  ).toBeCloseTo(1, 6);
});

test('a zero that each run took at its own beginning is shared by none', () => {
  const runs = ['one', 'two'].map((id) => {
    const { run, readings } = made(id, 3, 2, {});
    const channels = run.channels.map((channel) =>
      channel.applied === null
        ? channel
        : { ...channel, applied: { ...channel.applied, zeroedAtStart: true } },
    );
    const held = new HeldRuns();
    held.put({ ...run, channels }, readings);
    const evaluator = held.evaluator(id);
    if (evaluator === null) throw new Error('the run is not there');
    return mainOf(
      openedEvaluation(outcomesOf(evaluator, { sheets: [sheet({})], conditions: conditions({}) })),
      'F',
    );
  });
  expect(covarianceOf(runs[0].quantity, runs[1].quantity)).toBe(0);
});
