import { type Entry } from '../../workings/entries';
import { type TruthCase } from './case';
import { entryOf, formulaEntry, regionEntry, sheetCase } from './sheets';
import { noisy } from './swings';

const tau = 2 * Math.PI;

/** Results of two regions of one series that share readings, and so share noise; and of two that do not. */
const places = [
  { what: 'that overlap', A: [0.21, 2.6], B: [1.4, 3.79] },
  { what: 'side by side', A: [0.21, 1.9], B: [2.1, 3.79] },
] as const;

const pairOf = (
  kind: string,
  key: string,
  fields: object,
  { A, B }: (typeof places)[number],
  before: readonly Entry[] = [],
): Entry[] => [
  regionEntry('A', 'A', A[0], A[1]),
  regionEntry('B', 'B', B[0], B[1]),
  ...before,
  entryOf(kind, 'a', { ...fields, region: 'A' }),
  entryOf(kind, 'b', { ...fields, region: 'B' }),
  {
    ...formulaEntry('a - b'),
    formula: { text: 'a - b', names: { a: `result:a/${key}`, b: `result:b/${key}` } },
  } as Entry,
];

const fit = (relation: string) => ({
  of: 'channel:x',
  against: 't',
  relation,
  showResiduals: false,
  weights: 'equal',
});
const parabola = (t: number) => 0.3 + 1.2 * t - 0.45 * t * t;
const swing = (t: number) => 0.3 * Math.sin(tau * 0.9 * t + 0.4);
const onReadings = (from: number, to: number) => {
  const all: number[] = [];
  for (let i = Math.ceil(from / 0.02 - 1e-9); i * 0.02 <= to; i++) all.push(i * 0.02);
  return all;
};
const meanOf = (from: number, to: number) =>
  onReadings(from, to).reduce((sum, t, _, all) => sum + parabola(t) / all.length, 0);
const integral = (t: number) => 0.3 * t + 0.6 * t * t - 0.15 * t ** 3;
const v = entryOf('derivative', 'v', { of: 'channel:x', windowPoints: 9 });

/** Differences of two results of one series. */
export const pairCases: readonly TruthCase[] = places.flatMap((place) => {
  const { what, A, B } = place;
  return [
    sheetCase({
      title: `two means of a motion, regions ${what}`,
      entries: pairOf('statistics', 'mean', { of: 'channel:x' }, place),
      channels: noisy(200, 0.01, parabola),
      truth: meanOf(A[0], A[1]) - meanOf(B[0], B[1]),
    }),
    sheetCase({
      title: `two slopes, regions ${what}`,
      entries: pairOf('slope', 'slope', { of: 'channel:x', against: 't' }, place),
      channels: noisy(200, 0.01, (t) => 0.3 - 0.8 * t),
      truth: 0,
    }),
    sheetCase({
      title: `two slopes of v, regions ${what}`,
      entries: pairOf('slope', 'slope', { of: 'entry:v', against: 't' }, place, [v]),
      channels: noisy(200, 0.005, parabola),
      truth: 0,
    }),
    sheetCase({
      title: `two areas, regions ${what}`,
      entries: pairOf('area', 'area', { of: 'channel:x', against: 't' }, place),
      channels: noisy(200, 0.01, parabola),
      truth: integral(A[1]) - integral(A[0]) - integral(B[1]) + integral(B[0]),
    }),
    sheetCase({
      title: `two accelerations by a parabola, regions ${what}`,
      entries: pairOf('fit', 'curvature', fit('parabola'), place),
      channels: noisy(200, 0.01, parabola),
      truth: 0,
    }),
    sheetCase({
      title: `two amplitudes by a sine, regions ${what}`,
      entries: pairOf('fit', 'amplitude', fit('sine'), place),
      channels: noisy(200, 0.015, swing),
      truth: 0,
    }),
    sheetCase({
      title: `two changes across, regions ${what}`,
      entries: pairOf('changeAcross', 'change', { of: 'channel:x' }, place),
      channels: noisy(200, 0.01, (t) => 0.3 - 0.8 * t),
      truth: -0.8 * (A[1] - A[0] - (B[1] - B[0])),
    }),
  ];
});

/** Few readings of a straight motion: 3 to 5 in the region. */
export const fewCases: readonly TruthCase[] = [3, 4, 5].map((count) =>
  sheetCase({
    title: `slope of ${count} readings`,
    entries: [entryOf('slope', 'q', { of: 'channel:x', against: 't' })],
    channels: noisy(count, 0.02, (t) => 0.3 - 0.8 * t),
    truth: -0.8,
  }),
);
