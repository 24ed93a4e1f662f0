import { normalRandom, uniformRandom } from '../random';
import { regular, timed } from '../series/sampling';
import { parseUnit } from '../units/unit';
import { type Entry, type EntryKindKey, entryKindKeys, kindOf } from '../workings/entries';
import { type Field, usualOf } from '../workings/fields';
import { type ResultRef, type SeriesRef, entryRef } from '../workings/references';
import { type ChannelData, type RunData } from '../workings/run';

/** Picks one of some, by chance. */
export type Pick = <T>(all: readonly T[]) => T;

const pickBy =
  (uniform: () => number): Pick =>
  (all) =>
    all[Math.floor(uniform() * all.length)];

const tau = 2 * Math.PI;
const motions: readonly ((t: number, a: number, b: number) => number)[] = [
  (t, a, b) => a * Math.sin(tau * (0.5 + b) * t + 6 * b),
  (t, a, b) => a * Math.exp(-t / (0.3 + 2 * b)) + b,
  (t, a, b) => a * t + b,
  (t, a, b) => a * t * t - b * t,
  (t, a, b) => (t < 2 * b ? 0 : a),
  (t, a, b) => a * Math.abs(Math.sin((2 + 3 * b) * t)),
  (_, a) => a,
  () => 0,
];
const countsOfReadings = [2, 3, 4, 5, 8, 20, 60, 200];
const units = ['m', 'cm', 'N', 'V', 'Cel', '[degF]', '{Δ°C}', 's', '1'];

function randomChannel(key: string, seed: number, count: number, times: Float64Array | null): ChannelData {
  const uniform = uniformRandom(seed);
  const normal = normalRandom(seed + 1);
  const pick = pickBy(uniform);
  const motion = pick(motions);
  const [a, b] = [(uniform() - 0.3) * 10 ** pick([-3, 0, 0, 3]), uniform()];
  const noise = pick([0, 0.01, 0.05, 1]) * Math.abs(a);
  const step = pick([0, 0, 0, 0.02]) * Math.abs(a);
  const offset = pick([0, 0, 0, 20, 1e9]);
  const start = times?.[0] ?? pick([0, 0, 0, 1.7e9]);
  const interval = pick([0.01, 0.05, 1]);
  const gaps = pick([0, 0, 0, 0.05, 0.4]);
  const values = Float64Array.from({ length: count }, (_, i) => {
    if (uniform() < gaps) return NaN;
    const t = times === null ? i * 0.05 : times[i] - times[0];
    const value = offset + motion(t, a, b) + noise * normal();
    return step > 0 ? Math.round(value / step) * step : value;
  });
  return {
    key,
    symbol: key,
    quantity: key === 'x' ? 'position' : key,
    unit: parseUnit(key === 'x' ? pick(['m', 'm', 'cm']) : pick(units)),
    timeUnit: parseUnit('s'),
    sampling: times === null ? regular(start, interval, count) : timed(times),
    values,
    low: null,
    high: pick([null, null, null, offset + Math.abs(a)]),
    noise: pick([null, null, 0.01 * Math.abs(a)]),
    ...(uniform() < 0.15 ? { uncertainties: new Float64Array(count).fill(0.02 * Math.abs(a) + 1e-6) } : {}),
    ...(uniform() < 0.15
      ? { systematic: [{ root: `zero of ${key}`, label: `zero of ${key}`, offset: 0.01 * a, perUnit: 0 }] }
      : {}),
  };
}

/** A run of two channels of anything: swings, falls, steps, constants; few readings, noise, steps, gaps, offsets, late times. */
export function randomRun(seed: number): RunData {
  const uniform = uniformRandom(31 * seed + 5);
  const pick = pickBy(uniform);
  const count = pick(countsOfReadings);
  let t = pick([0, 0, 1.7e9]);
  const times = uniform() < 0.25 ? Float64Array.from({ length: count }, () => (t += 0.01 + uniform())) : null;
  return {
    id: 'r',
    channels: ['x', 'F'].map((key, i) => randomChannel(key, 1000 * seed + 17 * i, count, times)),
    conditions: [{ name: 'm', value: uniform(), uncertainty: pick([null, 0.01]), unit: 'kg' }],
  };
}

const mainKeys: Readonly<Record<string, readonly string[]>> = {
  statistics: ['mean', 'sd', 'max'],
  slope: ['slope'],
  area: ['area'],
  changeAcross: ['change'],
  readout: ['value'],
  constant: ['value'],
  calculation: ['value'],
  fit: ['slope', 'amplitude', 'period', 'offset'],
  cycles: ['period', 'amplitude'],
  peaks: ['peak'],
};
const formulas = [
  'x + F',
  'x F',
  'd(x)/d(t)',
  'x^2',
  'sqrt(abs(x))',
  '2 x - 1 [m]',
  'F - 20 [°C]',
  'ln(x)',
  'x/F',
  'm x',
];
const resultFormulas = ['q1 + q2', 'q1 q2', 'q1/q2', 'q1^2', 'm q1', 'sqrt(q2)', 'q1 - 1 [m]', 'exp(q1)'];
const fitFormulas = ['A t + B', 'A exp(-t/tau) + B', 'A sin(w t + p) + B', 'A t^2', 'A'];

interface SoFar {
  series: SeriesRef[];
  results: ResultRef[];
  regions: string[];
}

function randomField(field: Field, uniform: () => number, kind: EntryKindKey, so: SoFar): unknown {
  const pick = pickBy(uniform);
  switch (field.type) {
    case 'series':
      return field.axis && uniform() < 0.6 ? 't' : pick(so.series);
    case 'region':
      return uniform() < 0.3 ? null : pick(so.regions);
    case 'regions':
      return uniform() < 0.8 ? [] : [pick(so.regions)];
    case 'result':
      return pick(so.results);
    case 'choice':
      return pick(field.options).key;
    case 'integer': {
      const value = field.low + Math.floor(uniform() * Math.min(field.high - field.low, 14));
      return field.odd && value % 2 === 0 ? value + 1 : value;
    }
    case 'number':
      return uniform() < 0.5 ? field.usual : Math.max(uniform() * 4 - 1, field.low ?? -Infinity);
    case 'flag':
      return uniform() < 0.5;
    case 'formula': {
      const text = pick(
        kind === 'calculation' ? resultFormulas : kind === 'formulaFit' ? fitFormulas : formulas,
      );
      const names = Object.fromEntries(['q1', 'q2'].map((name) => [name, pick(so.results)]));
      return { text, names: kind === 'calculation' ? names : {} };
    }
    case 'parameters':
      return Object.fromEntries(
        ['A', 'B', 'tau', 'w', 'p'].map((name) => [
          name,
          {
            start: pick([null, null, uniform() * 3]),
            held: uniform() < 0.2,
            low: pick([null, null, uniform() - 0.5]),
            high: pick([null, null, uniform() + 0.6]),
          },
        ]),
      );
    case 'anchor':
      return uniform() < 0.8
        ? null
        : {
            event: pick(['begins', 'rises', 'peak'] as const),
            of: pick(so.series),
            level: 0,
            count: 1,
            offset: 0.1,
          };
    default:
      return usualOf(field);
  }
}

const drawnFromReadings = entryKindKeys.filter((kind) => kind !== 'region' && kind !== 'words');

/** A sheet of a dozen entries of any kind, in which each may speak of those before it. */
export function randomSheet(seed: number): Entry[] {
  const uniform = uniformRandom(77 * seed + 3);
  const pick = pickBy(uniform);
  const run = randomRun(seed);
  const { sampling } = run.channels[0];
  const start = sampling.kind === 'regular' ? sampling.start : sampling.times[0];
  const length =
    sampling.kind === 'regular'
      ? sampling.interval * (sampling.count - 1)
      : sampling.times[sampling.times.length - 1] - start;
  const so: SoFar = { series: ['channel:x', 'channel:F'], results: ['result:c1/value'], regions: ['A', 'B'] };
  const entries: unknown[] = so.regions.map((id) => {
    const from = uniform() * 0.8;
    const to = Math.min(from + 0.05 + uniform() * 0.9, 1);
    return {
      kind: 'region',
      id,
      name: '',
      letter: id,
      along: 't',
      start: start + from * length,
      end: start + to * length,
    };
  });
  entries.push({
    kind: 'constant',
    id: 'c1',
    name: 'c1',
    value: 1 + uniform(),
    uncertainty: pick([0, 0.1]),
    unit: pick(['m', 'N', '1']),
    source: '',
    ends: '',
    shift: 0,
  });
  for (let i = 0; i < 10; i++) {
    const kind = pick(drawnFromReadings);
    const id = `e${i}`;
    const fields = Object.entries(kindOf(kind).fields).map(([name, field]) => [
      name,
      randomField(field, uniform, kind, so),
    ]);
    entries.push({ ...Object.fromEntries(fields), kind, id, name: id });
    if (kindOf(kind).yields === 'series') so.series.push(entryRef(id));
    for (const key of mainKeys[kind] ?? []) so.results.push(`result:${id}/${key}`);
  }
  return entries as Entry[];
}
