import { type Rig, reed } from '@heuristor/stand-ins';
import { type Experiment, columnRef, entry, formula, pointsTable, sheet, valueColumn } from './experiment';
import { resonanceGuide } from './guides/resonance';

const frequencies = [
  10, 12, 14, 15, 15.8, 16.4, 16.7, 16.9, 17.05, 17.15, 17.25, 17.3, 17.35, 17.45, 17.55, 17.7, 17.9, 18.3,
  19, 20, 22, 25,
];

const amplitude = valueColumn('channel:A', 'c-A');
const frequency = valueColumn('channel:f', 'c-f');

export const resonance: Experiment = {
  name: 'Reed: amplitude against the driver’s frequency',
  template: { name: 'Resonance', about: 'resonance curve through amplitudes, its frequency, width and Q' },
  conditions: [],
  workings: sheet(
    [
      entry('fit', 'curve', 'the resonance', {
        relation: 'resonance',
        of: 'channel:A',
        against: 'channel:f',
        region: null,
        showResiduals: true,
      }),
      entry('calculation', 'Q', 'Q', {
        formula: formula('f_0 / w', { f_0: 'result:curve/frequency', w: 'result:curve/width' }),
        unit: '',
      }),
    ],
    ['channel:A'],
    'channel:f',
  ),
  tables: [
    {
      ...pointsTable('A against f', [frequency, amplitude], amplitude, frequency, [
        entry('fit', 'table-curve', 'resonance', {
          relation: 'resonance',
          of: columnRef(amplitude),
          against: columnRef(frequency),
        }),
        entry('calculation', 'table-Q', 'Q', {
          formula: formula('f_0 / w', {
            f_0: 'result:table-curve/frequency',
            w: 'result:table-curve/width',
          }),
          unit: '',
        }),
      ]),
      rows: { kind: 'values', of: 'channel:A' },
    },
  ],
  guide: resonanceGuide,
  runs: [
    {
      name: 'driven',
      typed: { key: 'f', name: 'driving frequency', unit: 'Hz', values: frequencies },
      rig: reed,
      code: 'R5-T',
      stream: 'strain',
      rate: 500,
      acts: ({ apparatus }: Rig, value: number) => [
        [
          0,
          () => {
            apparatus.drive?.('frequency', value);
            apparatus.drive?.('amplitude', 0.1);
          },
        ],
      ],
      // The swing of its own is gone by then: Q/(π f) is under a second.
      from: 12,
      channel: 'y',
      take: 'amplitude',
      zero: 0.83,
      seed: 260,
    },
  ],
};
