import { channelOf } from '../sheet';
import { type TruthCase } from './case';
import { chance, comparisonOf, entryOf, regionEntry, sheetCase } from './sheets';

const meanEntry = entryOf('statistics', 'q', { of: 'channel:x' });

/** Readings about a truth that is chosen anew in each repetition. */
const resting =
  (count: number, noise: number, { step = 0, rho = 0, unit = 'm', resolution = 0 } = {}) =>
  (i: number) => {
    const { normal, uniform } = chance(i);
    const truth = truthOf(i);
    uniform();
    let wander = normal();
    const values = Float64Array.from({ length: count }, () => {
      const here = truth + noise * wander;
      wander = rho * wander + Math.sqrt(1 - rho * rho) * normal();
      return step > 0 ? Math.round(here / step) * step : here;
    });
    return [{ ...channelOf('x', unit, values, 0.02), ...(resolution > 0 ? { resolution } : {}) }];
  };

/** Where it rests: somewhere between 1 and 2. */
const truthOf = (i: number) => 1 + chance(i, 3).uniform();

const wandering = ([rho, count]: readonly [number, number]) =>
  sheetCase({
    title: `mean of ${count} readings that go together by ρ = ${rho}`,
    entries: [meanEntry],
    channels: resting(count, 0.002, { rho }),
    truth: truthOf,
    key: 'mean',
  });

const zeroed = (i: number) => {
  const { normal } = chance(i);
  const [zero, noise] = [0.0005 * normal(), 0.002];
  const values = Float64Array.from(
    { length: 400 },
    (_, k) => (k < 200 ? 0.84 : 0.31) + zero + noise * normal(),
  );
  return [
    {
      ...channelOf('F', 'N', values, 0.02),
      systematic: [{ root: 'zero/1', label: 'zero of F', offset: 0.0005, perUnit: 0 }],
    },
  ];
};
const calibrated = (i: number) => {
  const { normal } = chance(i);
  const gain = 1 + 0.01 * normal();
  const values = Float64Array.from({ length: 200 }, (_, k) => gain * (0.5 + 0.01 * k) + 0.002 * normal());
  return [
    {
      ...channelOf('F', 'N', values, 0.02),
      systematic: [{ root: 'gain/1', label: 'calibration of F', offset: 0, perUnit: 0.01 }],
    },
  ];
};
const held = [
  regionEntry('a', 'A', -0.01, 3.99),
  regionEntry('b', 'B', 3.99, 8),
  entryOf('statistics', 'm', { of: 'channel:F', region: 'a' }),
  entryOf('statistics', 'n', { of: 'channel:F', region: 'b' }),
];

/** Means of what rests: white and wandering noise, steps of the sensor, its zero and its calibration. */
export const restCases: readonly TruthCase[] = [
  ...(
    [
      [0, 60],
      [0, 400],
      [0.2, 400],
      [0.5, 100],
      [0.5, 400],
      [0.8, 300],
      [0.9, 500],
      [0.98, 3000],
    ] as const
  ).map(wandering),
  ...(
    [
      ['1 mm steps', 0.001, 0.00003, 0.001, 'm'],
      ['12-bit voltage', 20 / 4096, 0.0002, 0, 'V'],
      ['0.1 °C steps', 0.1, 0.004, 0.1, '°C'],
    ] as const
  ).map(([what, step, noise, resolution, unit]) =>
    sheetCase({
      title: `mean of a rest within a step, ${what}`,
      expected: 'rectangular',
      entries: [meanEntry],
      // What never leaves its step and whose step no device tells has no ± to be held against the truth.
      channels: resting(200, noise, { step, resolution: resolution === 0 ? step : resolution, unit }),
      truth: truthOf,
      key: 'mean',
    }),
  ),
  ...[0.1, 0.2, 0.3, 0.5, 1].map((share) =>
    sheetCase({
      title: `mean of noise that is ${share} of a step wide`,
      expected: share < 0.5 ? 'between' : 'normal',
      entries: [meanEntry],
      channels: resting(200, share * 0.001, { step: 0.001, resolution: 0.001 }),
      truth: truthOf,
      key: 'mean',
    }),
  ),
  sheetCase({
    title: 'mean of a force whose zero is uncertain',
    entries: held,
    channels: zeroed,
    truth: 0.84,
    id: 'm',
    key: 'mean',
  }),
  sheetCase({
    title: 'difference of two means under one zero',
    entries: [...held, comparisonOf('m/mean', 'n/mean')],
    channels: zeroed,
    truth: 0.53,
  }),
  sheetCase({
    title: 'intercept of a line under an uncertain zero',
    entries: [
      entryOf('region', 'a', { letter: 'A', along: 't', start: -0.01, end: 3.99 }),
      entryOf('fit', 'q', {
        of: 'channel:F',
        against: 't',
        relation: 'line',
        region: 'a',
        weights: 'equal',
        showResiduals: false,
      }),
    ],
    channels: zeroed,
    truth: 0.84,
    key: 'intercept',
  }),
  sheetCase({
    title: 'slope of a force whose calibration is uncertain',
    entries: [entryOf('slope', 'q', { of: 'channel:F', against: 't' })],
    channels: calibrated,
    truth: 0.5,
  }),
];
