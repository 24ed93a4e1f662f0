import { resultIn } from '../coverage';
import { type TruthCase } from './case';
import { chance, comparisonOf, entryOf, formulaEntry, regionEntry, sheetCase, spotsOf } from './sheets';

const regions = [regionEntry('a', 'A', -0.5, 4.5), regionEntry('b', 'B', 4.5, 20)];
const means = [
  entryOf('statistics', 'm', { of: 'channel:v', region: 'a' }),
  entryOf('statistics', 'n', { of: 'channel:v', region: 'b' }),
];
/** Five speeds of one cart, then seven of another. */
const carts = (i: number) => {
  const { normal } = chance(i);
  return [
    spotsOf(
      'v',
      'm/s',
      Float64Array.from({ length: 12 }, (_, k) => (k < 5 ? 0.82 : 0.64) + 0.01 * normal()),
      0.01,
    ),
  ];
};

const places = Float64Array.of(2, 3.1, 4, 5.2, 6.5, 8);
/** B falls off along a line, each reading with a known uncertainty. */
const field = (i: number) => {
  const { normal } = chance(i);
  return [
    spotsOf(
      'B',
      'mT',
      places.map((x) => 20 - 2 * x + 0.3 * normal()),
      0.3,
      places,
    ),
  ];
};
const trapezoids = places.reduce(
  (sum, x, i) => (i === 0 ? 0 : sum + ((x - places[i - 1]) * (40 - 2 * (x + places[i - 1]))) / 2),
  0,
);

/** Measurements that were taken one by one: passes through a gate, spot readings, typed repeats. */
export const repeatCases: readonly TruthCase[] = [
  sheetCase({
    title: 'mean of one series of measurements less the mean of others of it',
    entries: [...regions, ...means, comparisonOf('m/mean', 'n/mean')],
    channels: carts,
    truth: 0.18,
  }),
  sheetCase({
    title: 'their quotient by a formula',
    entries: [...regions, ...means, formulaEntry('{mean of m}/{mean of n}')],
    channels: carts,
    truth: 0.82 / 0.64,
  }),
  sheetCase({
    title: 'area under spot readings with their own u',
    entries: [entryOf('area', 'q', { of: 'channel:B', against: 't', baseline: 'zero', level: 0 })],
    channels: field,
    truth: trapezoids,
  }),
  sheetCase({
    title: 'change between two spot readings with their own u',
    entries: [entryOf('change', 'q', { of: 'channel:B', from: 2, to: 8 })],
    channels: field,
    truth: -12,
  }),
  sheetCase({
    title: 'change of spot readings across a region',
    entries: [entryOf('changeAcross', 'q', { of: 'channel:B' })],
    channels: field,
    truth: -12,
  }),
  sheetCase({
    title: 'value at a moment between two spot readings',
    entries: [entryOf('readout', 'q', { of: 'channel:B', at: 3.5 })],
    channels: field,
    truth: 13,
  }),
  sheetCase({
    title: 'formula over results of spot readings',
    entries: [
      entryOf('readout', 'r', { of: 'channel:B', at: 3.1 }),
      entryOf('area', 's', { of: 'channel:B', against: 't', baseline: 'zero', level: 0 }),
      formulaEntry('r + s/(6 [cm])'),
    ],
    channels: field,
    truth: 13.8 + trapezoids / 6,
  }),
  {
    title: 'difference of two means of three typed repeats',
    expected: 'normal',
    trial(i) {
      const { normal } = chance(i);
      const repeats = () => Array.from({ length: 3 }, () => 2 + 0.1 * normal()).join(' ');
      const sheet = ['a', 'b'].map((id) =>
        entryOf('constant', id, {
          value: 0,
          uncertainty: 0,
          unit: 'm',
          source: '',
          ends: '',
          shift: 0,
          repeats: repeats(),
        }),
      );
      return {
        quantity: resultIn([...sheet, comparisonOf('a/value', 'b/value')], [], 'q').quantity,
        truth: 0,
      };
    },
  },
];
