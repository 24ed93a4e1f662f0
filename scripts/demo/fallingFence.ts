import { gate, gravity } from '@heuristor/stand-ins';
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
import { fallingFenceGuide } from './guides/fallingFence';
import { type DemoRun } from './record';

const drop = runColumn('name');
const acceleration = resultColumn('g', 'slope', 'g', 'm.s-2');

export const fallingFence: Experiment = {
  name: 'Chart weight: a barred card falls',
  template: { name: 'Falling fence', about: 'speed of each bar against time, its slope against local g' },
  conditions: [],
  workings: sheet(
    [
      folded(constant('spacing', 's', 40, 0.1, 'mm', 'caliper, front edge to front edge')),
      folded(constant('standard-g', 'g_n', gravity, 0, 'm.s-2', 'standard gravity, ISO 80000-3')),
      entry('fence', 'v', 'v', { of: 'channel:A', gives: 'velocity', spacing: 'result:spacing/value' }),
      entry('slope', 'g', 'g', { of: 'entry:v', against: 't', region: null }),
      entry('comparison', 'compared', '', { first: 'result:g/slope', second: 'result:standard-g/value' }),
      entry('calculation', 'off', 'off', {
        formula: formula('(g - g_n) / g_n', { g: 'result:g/slope', g_n: 'result:standard-g/value' }),
        unit: '%',
      }),
    ],
    ['entry:v'],
  ),
  tables: [
    barsTable(
      'g of each drop',
      [drop, acceleration, resultColumn('off', 'value', 'off', '%')],
      acceleration,
      drop,
    ),
  ],
  guide: fallingFenceGuide,
  runs: [0, 1, 2].map((place): DemoRun => ({
    name: `drop ${place + 1}`,
    rig: gate,
    acts: ({ apparatus }) => [
      [
        0,
        () => {
          // A hand that is not steady tilts the card by a degree or so.
          apparatus.control({ action: 'set', key: 'tilt', value: place * 0.5 });
          apparatus.control({ action: 'set', key: 'unsteady', value: 0 });
          apparatus.control({ action: 'do', key: 'ready' });
        },
      ],
      [0.4, () => apparatus.control({ action: 'release' })],
    ],
    streams: [{ code: 'G2-T', stream: 'beams', rate: 1, seconds: 2, from: 0.3 }],
    seed: 140 + place,
  })),
};
