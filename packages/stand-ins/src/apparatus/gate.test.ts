import { type Entry, type Outcome, type RunData, evaluate, parseUnit } from '@heuristor/core';
import { simulate } from '../simulate';
import { doing, set } from '../testing/perfect';
import { gravity } from './apparatus';
import { gate } from './gate';
import { slowing } from './passers/spokedWheel';

// What goes through the gate against exact kinematics, by way of the edges and of the workings that a bench has.

type Act = readonly [number, () => void];

/** A run of both beams, as the server would store it: of each beam its own edges. */
function runOf(rig: ReturnType<typeof gate>, seconds: number, acts: readonly Act[] = [], from = 0): RunData {
  const { values, times } = simulate(
    rig,
    { code: 'G2-T', stream: 'beams', rate: 1, count: seconds + 1, from },
    acts,
  );
  if (times === null) throw new Error('a gate tells times');
  const channels = ['A', 'B'].map((key, beam) => {
    const edges = [...times.keys()].filter((i) => i > 0 && values[2 * i + beam] !== values[2 * i - 2 + beam]);
    const states = Float64Array.from(edges, (i) => values[2 * i + beam]);
    return {
      key,
      symbol: key,
      quantity: 'beam',
      unit: [],
      timeUnit: parseUnit('s'),
      sampling: {
        kind: 'events' as const,
        times: Float64Array.from(edges, (i) => times[i]),
        states: Uint8Array.from(states),
        resolution: 1e-5,
      },
      values: states,
      low: null,
      high: null,
      noise: null,
    };
  });
  return { id: 'run', channels };
}

const length = (value: number, uncertainty = 0.1): Entry => ({
  kind: 'constant',
  id: 'length',
  name: 'd',
  value,
  uncertainty,
  unit: 'mm',
  source: '',
  ends: '',
  shift: 0,
});
const typed = 'result:length/value' as const;

function outcomesOf(run: RunData, ...entries: Entry[]): Map<string, Outcome> {
  return evaluate({ entries }, run).outcomes;
}

function passesIn(outcomes: Map<string, Outcome>, id: string) {
  const outcome = outcomes.get(id);
  if (outcome?.kind !== 'series' || outcome.passes === undefined)
    throw new Error(outcome?.kind === 'refused' ? outcome.sentence : `${id} has no passes`);
  const { values, sampling, uncertainties = new Float64Array(0) } = outcome.series;
  if (sampling.kind !== 'timed') throw new Error('passes have times of their own');
  return { ...outcome.passes, values: [...values], times: [...sampling.times], uncertainties };
}

function resultIn(outcomes: Map<string, Outcome>, id: string, key: string) {
  const outcome = outcomes.get(id);
  if (outcome?.kind !== 'results') throw new Error(outcome?.kind === 'refused' ? outcome.sentence : id);
  const found = outcome.results.find((result) => result.key === key);
  if (found === undefined) throw new Error(`no ${key}`);
  return found.quantity;
}

const fenceEntries: Entry[] = [
  length(40),
  { kind: 'fence', id: 'v', name: 'v', of: 'channel:A', gives: 'velocity', spacing: typed },
  { kind: 'fence', id: 'a', name: 'a', of: 'channel:A', gives: 'acceleration', spacing: typed },
  { kind: 'slope', id: 'g', name: 'g', of: 'entry:v', against: 't', region: null },
];

test('the slope of a dropped fence is g within 0.5 %, and within its uncertainty, in which the spacing counts', () => {
  const rig = gate();
  set(rig, 'unsteady', 0);
  rig.apparatus.control(doing('ready'));
  const outcomes = outcomesOf(
    runOf(rig, 2, [[0.5, () => rig.apparatus.control(doing('go'))]]),
    ...fenceEntries,
  );
  const slope = resultIn(outcomes, 'g', 'slope');
  expect(Math.abs(slope.value / gravity - 1)).toBeLessThan(0.005);
  expect(passesIn(outcomes, 'v').values).toHaveLength(7);
  const spacing = slope.influences().find(({ label }) => label === 'd');
  // 0.1 mm of 40 mm is 0.25 % of the slope.
  expect(Math.abs(spacing?.effect.weights[0] ?? 0)).toBeCloseTo(0.0025 * slope.value, 4);
  expect(Math.abs(slope.value - gravity)).toBeLessThan(2 * (slope.standardUncertainty ?? 0));
});

test('dropped by an unsteady hand, eight times, it is g within 1 %', () => {
  const rig = gate();
  for (let drop = 0; drop < 8; drop++) {
    rig.apparatus.control(doing('ready'));
    const outcomes = outcomesOf(
      runOf(rig, 1, [[0.2, () => rig.apparatus.control(doing('go'))]]),
      ...fenceEntries,
    );
    expect(Math.abs(resultIn(outcomes, 'g', 'slope').value / gravity - 1)).toBeLessThan(0.01);
  }
});

test('ten throws of a ball: their mean is the true one within its uncertainty', () => {
  const rig = gate();
  set(rig, 'passer', 1);
  const speeds: number[] = [];
  const run = runOf(
    rig,
    12,
    Array.from({ length: 10 }, (_, i) => [
      0.5 + i,
      () => {
        rig.apparatus.control(doing('go'));
        speeds.push(rig.apparatus.passers.ball.speed);
      },
    ]),
  );
  const outcomes = outcomesOf(
    run,
    length(40, 0.05),
    { kind: 'flagSpeed', id: 'v', name: 'v', of: 'channel:A', length: typed },
    { kind: 'statistics', id: 'mean', name: '', of: 'entry:v', region: null },
  );
  const { values, uncertainties, mean, standardDeviation } = passesIn(outcomes, 'v');
  expect(values).toHaveLength(10);
  values.forEach((v, i) => expect(Math.abs(v - speeds[i])).toBeLessThan(3 * uncertainties[i]));
  const truth = speeds.reduce((sum, v) => sum + v, 0) / 10;
  expect(Math.abs((mean?.value ?? 0) / truth - 1)).toBeLessThan(0.001);
  // s/√n of the throws and 0.05 mm of 40 mm, together.
  const expected = Math.hypot((standardDeviation ?? 0) / Math.sqrt(10), 0.00125 * truth);
  expect(mean?.standardUncertainty).toBeCloseTo(expected, 4);
  expect(resultIn(outcomes, 'mean', 'mean').standardUncertainty).toBeCloseTo(expected, 4);
});

test('another length corrects every speed afterwards', () => {
  const rig = gate();
  set(rig, 'passer', 1);
  const run = runOf(rig, 2, [[0.5, () => rig.apparatus.control(doing('go'))]]);
  const entry: Entry = { kind: 'flagSpeed', id: 'v', name: 'v', of: 'channel:A', length: typed };
  const [wrong] = passesIn(outcomesOf(run, length(32), entry), 'v').values;
  const [right] = passesIn(outcomesOf(run, length(40), entry), 'v').values;
  expect(right / wrong).toBeCloseTo(1.25, 9);
});

test.each([
  [1, 'beamPair'],
  [2, 'flagPair'],
] as const)('a trolley with %p flags rolls with g sin ϑ by the %p', (flags, kind) => {
  const rig = gate();
  set(rig, 'passer', 2);
  set(rig, 'flags', flags);
  const a = gravity * Math.sin((3 * Math.PI) / 180);
  const run = runOf(rig, 5, [[0.5, () => rig.apparatus.control(doing('go'))]]);
  const beams = kind === 'beamPair' ? { first: 'channel:A', second: 'channel:B' } : { of: 'channel:A' };
  const outcomes = outcomesOf(
    run,
    length(40, 0),
    ...(['acceleration', 'first', 'second', 'between'] as const).map(
      (gives) => ({ kind, id: gives, name: gives, ...beams, gives, length: typed }) as Entry,
    ),
  );
  const found = passesIn(outcomes, 'acceleration');
  expect(found.values).toHaveLength(1);
  expect(Math.abs(found.values[0] - a)).toBeLessThan(4 * found.uncertainties[0]);
  const [first, second] = [passesIn(outcomes, 'first'), passesIn(outcomes, 'second')];
  // v² grows by 2 a s from beam to beam, or from flag to flag, at the middles of the flags.
  expect(second.values[0] - first.values[0]).toBeCloseTo(a * passesIn(outcomes, 'between').values[0], 3);
});

test('the sounding lead swings with the period of the pendulum, to a ten-thousandth', () => {
  const rig = gate();
  set(rig, 'passer', 3);
  rig.apparatus.control(doing('ready'));
  const run = runOf(rig, 14, [[1, () => rig.apparatus.control(doing('go'))]], 1);
  const { values, leftOut } = passesIn(
    outcomesOf(run, { kind: 'period', id: 'T', name: 'T', of: 'channel:A' }),
    'T',
  );
  // 2π √(l/g) (1 + ϑ²/16 + 11 ϑ⁴/3072), for instance Baker and Blackburn, The Pendulum (2005), ch. 3.
  const amplitude = (8 * Math.PI) / 180;
  const period =
    2 * Math.PI * Math.sqrt(1 / gravity) * (1 + amplitude ** 2 / 16 + (11 * amplitude ** 4) / 3072);
  expect(values.length).toBeGreaterThanOrEqual(6);
  values.forEach((value) => expect(Math.abs(value / period - 1)).toBeLessThan(2e-4));
  expect(leftOut).toEqual([]);
});

test('the capstan wheel slows down as ω₀ exp(−kt)', () => {
  const rig = gate();
  set(rig, 'passer', 4);
  const run = runOf(rig, 7, [[0.5, () => rig.apparatus.control(doing('go'))]]);
  const { values, times } = passesIn(
    outcomesOf(run, {
      kind: 'spokes',
      id: 'w',
      name: 'ω',
      of: 'channel:A',
      gives: 'angularSpeed',
      number: 10,
    }),
    'w',
  );
  expect(values.length).toBeGreaterThan(100);
  values.forEach((w, i) =>
    expect(Math.abs(w / (4 * Math.PI * Math.exp(-slowing * (times[i] - 0.5))) - 1)).toBeLessThan(1e-3),
  );
});

test('a finger that trembles is left out with the reason; what stood in the beam at the start is stated', () => {
  const rig = gate();
  set(rig, 'passer', 1);
  rig.apparatus.control(doing('obstruct'));
  const run = runOf(rig, 4, [
    [0.5, () => rig.apparatus.control(doing('obstruct'))],
    [1, () => rig.apparatus.control(doing('finger'))],
    [2, () => rig.apparatus.control(doing('go'))],
  ]);
  const { values, leftOut } = passesIn(
    outcomesOf(run, length(40), { kind: 'flagSpeed', id: 'v', name: 'v', of: 'channel:A', length: typed }),
    'v',
  );
  expect(values).toHaveLength(1);
  expect(leftOut.map(({ reason }) => reason)).toEqual([
    'the beam was blocked when the run began',
    'the beam flickered',
  ]);
});

test('edges are right to within the step of the timer', () => {
  const rig = gate();
  set(rig, 'unsteady', 0);
  set(rig, 'passer', 1);
  const { channels } = runOf(rig, 2, [[0.5, () => rig.apparatus.control(doing('go'))]]);
  const [{ sampling }] = channels;
  if (sampling.kind !== 'events') throw new Error('edges');
  // The ball sets out 0.25 m before the beam at 3 m/s; its front is 20 mm ahead of its middle.
  expect(Math.abs(sampling.times[0] - (0.5 + 0.23 / 3))).toBeLessThan(1.01e-5);
  expect(Math.abs(sampling.times[1] - (0.5 + 0.27 / 3))).toBeLessThan(1.01e-5);
});
