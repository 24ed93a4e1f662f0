import { type Rig, buoy, buoyRest } from '@heuristor/stand-ins';
import {
  type Experiment,
  barsTable,
  constant,
  entry,
  folded,
  formula,
  resultColumn,
  runColumn,
  sheet,
} from './experiment';
import { twoSpringsGuide } from './guides/twoSprings';
import { type DemoRun } from './record';

const spring = runColumn('name');
const period = resultColumn('swing', 'period', 'T');

export const twoSprings: Experiment = {
  name: 'Spring scales: a buoy on two springs',
  template: {
    name: 'Two springs',
    about: 'period of a bob on each spring by a sine fit, and the stiffness from it',
  },
  conditions: [],
  workings: sheet(
    [
      folded(constant('mass', 'm', 0.5, 0.001, 'kg', 'kitchen scales')),
      entry('region', 'steady', 'steady swing', { letter: 'A', start: 0.5, end: 7.5 }),
      entry('fit', 'swing', 'the swing', {
        relation: 'sine',
        of: 'channel:x',
        against: 't',
        region: 'steady',
      }),
      entry('calculation', 'stiffness', 'k', {
        formula: formula('4 π^2 m / T^2', { m: 'result:mass/value', T: 'result:swing/period' }),
        unit: 'N/m',
      }),
    ],
    ['channel:x'],
  ),
  guide: twoSpringsGuide,
  tables: [
    barsTable('T of each spring', [spring, period, resultColumn('stiffness', 'value', 'k')], period, spring),
  ],
  runs: [
    { name: 'soft spring', stiffness: 12, pull: 0.04 },
    { name: 'stiff spring', stiffness: 25, pull: 0.03 },
  ].map(({ name, stiffness, pull }, i): DemoRun => ({
    name,
    rig: buoy,
    acts: ({ apparatus }: Rig) => [
      [
        0,
        () => {
          apparatus.control({ action: 'set', key: 'stiffness', value: stiffness });
          apparatus.control({ action: 'set', key: 'amplitude', value: pull });
          apparatus.control({ action: 'do', key: 'pull' });
        },
      ],
      [0.2, () => apparatus.control({ action: 'release' })],
    ],
    streams: [{ code: 'K7-D', stream: 'motion', rate: 50, seconds: 8, from: 0.6, zero: { x: buoyRest } }],
    seed: 400 + i,
  })),
};
