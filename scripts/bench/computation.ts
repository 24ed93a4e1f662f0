import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import {
  type ChannelData,
  type Entry,
  Evaluator,
  type Sampling,
  derivative,
  parseUnit,
  readingsSeries,
  regular,
  relations,
  storedEvaluation,
  thinSeries,
} from '@heuristor/core';
import { z } from 'zod';
import { say } from '../plain';
import { type Figure, median, milliseconds } from './figures';

const noisy = (t: number) => 0.04 * Math.sin(5.3 * t) + 0.0003 * Math.sin(t * 12_345.678);

function sampled(count: number, interval: number, value: (t: number) => number) {
  return readingsSeries({
    symbol: 'x',
    quantity: 'position',
    unit: parseUnit('m'),
    timeUnit: parseUnit('s'),
    sampling: regular(0, interval, count),
    values: Float64Array.from({ length: count }, (_, i) => value(i * interval)),
  });
}

const referenceSchema = z.object({ derivative: z.number(), sine: z.number() });

/** The same work by scipy, or null where there is none on this machine. */
function reference(): z.infer<typeof referenceSchema> | null {
  const script = join(import.meta.dirname, 'reference.py');
  const python = '/usr/bin/python3';
  const has = () => spawnSync(python, ['-c', 'import scipy']).status === 0;
  if (!has() && process.getuid?.() === 0) {
    say('Installing python3-scipy from Debian’s packages, the reference of some figures …');
    spawnSync('sh', ['-c', 'apt-get update && apt-get install -y --no-install-recommends python3-scipy'], {
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  }
  if (!has()) {
    say('There is no python3-scipy on this machine; ratios to it are left out.');
    return null;
  }
  const { stdout, status } = spawnSync(python, [script], { encoding: 'utf8' });
  return status === 0 ? referenceSchema.parse(JSON.parse(stdout)) : null;
}

/** Ten results on one region, one of them a sine, over a channel and its derivative. */
export function tenResults(end: number): Entry[] {
  const onA = { region: 'A', name: '' } as const;
  const x = { of: 'channel:x', against: 't' } as const;
  const v = { of: 'entry:v', against: 't' } as const;
  const fit = { kind: 'fit', showResiduals: false, weights: 'equal' } as const;
  return [
    { kind: 'region', id: 'A', name: '', letter: 'A', along: 't', start: 20, end },
    { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 9 },
    { ...onA, kind: 'statistics', id: '1', of: 'channel:x' },
    { ...onA, ...x, kind: 'slope', id: '2' },
    { ...onA, ...x, kind: 'area', id: '3' },
    { ...onA, ...x, ...fit, id: '4', relation: 'line' },
    { ...onA, ...x, ...fit, id: '5', relation: 'parabola' },
    { ...onA, ...x, ...fit, id: '6', relation: 'sine' },
    { ...onA, kind: 'statistics', id: '7', of: 'entry:v' },
    { ...onA, ...v, kind: 'slope', id: '8' },
    { ...onA, ...v, kind: 'area', id: '9' },
    { ...onA, kind: 'slope', id: '10', of: 'entry:v', against: 'channel:x' },
  ];
}

/** Twenty entries: the ten results, and ten more of what a sheet of an experiment holds beside them. */
export function twentyEntries(end: number): Entry[] {
  const onA = { region: 'A', name: '' } as const;
  return [
    ...tenResults(end),
    {
      kind: 'constant',
      id: 'm',
      name: 'm',
      value: 0.4,
      uncertainty: 0.002,
      unit: 'kg',
      source: '',
      ends: '',
      shift: 0,
    },
    {
      kind: 'formulaSeries',
      id: 'K',
      name: 'K',
      formula: { text: '1/2 m v^2', names: { m: 'result:m/value', v: 'entry:v' } },
      unit: 'J',
      windowPoints: 9,
    },
    { ...onA, kind: 'statistics', id: '11', of: 'entry:K' },
    { ...onA, kind: 'cycles', id: '12', of: 'channel:x' },
    { ...onA, kind: 'peaks', id: '13', of: 'channel:x' },
    { ...onA, kind: 'crossings', id: '14', of: 'channel:x', direction: 'both', level: 0.01 },
    { ...onA, kind: 'area', id: '15', of: 'entry:v', against: 't', baseline: 'ends' },
    {
      kind: 'calculation',
      id: '16',
      name: 'w',
      formula: { text: '2 pi / T', names: { T: 'result:6/period' } },
      unit: '',
    },
  ];
}

const positions = (values: Float64Array, sampling: Sampling): ChannelData => ({
  key: 'x',
  symbol: 'x',
  quantity: 'position',
  unit: parseUnit('m'),
  timeUnit: parseUnit('s'),
  sampling,
  values,
  low: null,
  high: null,
  noise: null,
});

/** Ten results over readings, as they are stored and sent. */
function stored(readings: number): { size: number; took: number } {
  const { values, sampling } = sampled(readings, 0.02, noisy);
  const evaluator = new Evaluator({ id: 'r', channels: [positions(values, sampling)] });
  const workings = { entries: tenResults(0.02 * readings * 0.8) };
  const { outcomes } = evaluator.evaluate(workings);
  const began = performance.now();
  const evaluation = storedEvaluation('r', [{ workings, outcomes }]);
  const { length } = JSON.stringify(evaluation);
  return { size: (10 * length) / evaluation.results.length, took: performance.now() - began };
}

/** The browser shares the runs among its workers, and works out what is seen first. */
const sharedBudget = 'none of its own: see the browser’s';

export function computation(): Figure[] {
  const beside = reference();
  const ratio = (mine: number, theirs: number | undefined) =>
    theirs === undefined ? undefined : `${(mine / theirs).toFixed(2)} × scipy (${milliseconds(theirs)})`;
  const large = sampled(1_000_000, 0.001, noisy);
  const derived = median(() => void derivative(large, { symbol: 'v', windowPoints: 9 }));
  const swing = sampled(100_000, 0.001, noisy);
  const x = Float64Array.from({ length: 100_000 }, (_, i) => i * 0.001);
  const sine = median(() => void relations.sine.solve({ x, y: swing.values }, { near: null }));
  const thinned = median(() => void thinSeries(large, { from: 1.234, to: 998.765 }, 650));
  const evaluators = Array.from({ length: 10 }, (_, i) => {
    const { values, sampling } = sampled(10_000, 0.02, (t) => noisy(t + i));
    return new Evaluator({ id: String(i), channels: [positions(values, sampling)] });
  });
  let end = 150;
  const drag = (moving: boolean, sheet = tenResults) =>
    median(() => {
      end += 0.1;
      for (const evaluator of evaluators) evaluator.evaluate({ entries: sheet(end) }, { moving });
    }, 21);
  const atRest = drag(false);
  const moving = drag(true);
  const twentyAtRest = drag(false, twentyEntries);
  const twentyMoving = drag(true, twentyEntries);
  const kept = stored(1_000_000);
  return [
    {
      what: 'ten results of a run of 10⁶ points as they are stored, with all their covariances',
      measured: `${(kept.size / 1000).toFixed(1)} kB, made in ${milliseconds(kept.took)} beside working them out`,
      budget: '50 kB',
    },
    {
      what: 'derivative of 10⁶ points',
      measured: milliseconds(derived),
      budget: '30 ms, ≤ 1 × scipy',
      ratio: ratio(derived, beside?.derivative),
    },
    {
      what: 'sine fit of 10⁵ points, guess and tests included',
      measured: milliseconds(sine),
      budget: '100 ms, ≤ 1 × scipy',
      ratio: ratio(sine, beside?.sine),
    },
    {
      what: 'what a dragged region asks for: 10 results over 10 runs of 10⁴ points, all of them on one thread',
      measured: `${milliseconds(moving)}; at rest, in full, ${milliseconds(atRest)}`,
      budget: sharedBudget,
    },
    {
      what: 'the same with a sheet of twenty entries: a formula over series, periods, peaks, crossings, baselines',
      measured: `${milliseconds(twentyMoving)}; at rest, in full, ${milliseconds(twentyAtRest)}`,
      budget: sharedBudget,
    },
    {
      what: 'thinning 10⁶ points for the screen, one trace',
      measured: milliseconds(thinned),
      budget: '5 ms',
    },
  ];
}
