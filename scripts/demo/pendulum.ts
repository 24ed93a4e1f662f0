import { bell, gravity } from '@heuristor/stand-ins';
import {
  type Experiment,
  columnRef,
  constant,
  entry,
  folded,
  formula,
  pointsTable,
  resultColumn,
  sheet,
} from './experiment';
import { pendulumGuide } from './guides/pendulum';
import { type DemoRun } from './record';

const period = resultColumn('periods', 'period', 'T');
const amplitude = resultColumn('periods', 'amplitude', 'θ_m');

export const pendulum: Experiment = {
  name: 'Ship’s bell: three amplitudes',
  template: {
    name: 'Pendulum',
    about: 'period cycle by cycle, how it grows with the amplitude, and g from it',
  },
  conditions: [],
  workings: sheet(
    [
      folded(constant('length', 'l', 0.6, 0.001, 'm', 'tape measure, axle to middle of the bell')),
      folded(constant('standard-g', 'g_n', gravity, 0, 'm.s-2', 'standard gravity, ISO 80000-3')),
      entry('derivative', 'omega', 'ω', { of: 'channel:θ', windowPoints: 9 }),
      entry('derivative', 'alpha', 'α', { of: 'entry:omega', windowPoints: 9 }),
      entry('region', 'swings', 'whole swings', {
        letter: 'A',
        start: 0,
        end: 60,
        until: { event: 'ends', of: 'channel:θ', level: 0, count: 1, offset: 0 },
        cyclesOf: 'channel:θ',
      }),
      entry('cycles', 'periods', 'T', { of: 'channel:θ', region: 'swings' }),
      entry('calculation', 'small', 'T_0', {
        formula: formula('T / (1 + θ_m^2 / 16 + 11 θ_m^4 / 3072 + 173 θ_m^6 / 737280)', {
          T: 'result:periods/period',
          θ_m: 'result:periods/amplitude',
        }),
        unit: 's',
        note: 'The period of a swing so small that its amplitude does not matter: the first terms of the series for a pendulum.',
      }),
      entry('calculation', 'g', 'g', {
        formula: formula('4 π^2 l / T_0^2', { l: 'result:length/value', T_0: 'result:small/value' }),
        unit: 'm/s^2',
      }),
      entry('comparison', 'compared', '', { first: 'result:g/value', second: 'result:standard-g/value' }),
    ],
    ['channel:θ', 'entry:omega', 'entry:alpha'],
  ),
  tables: [
    pointsTable(
      'T against amplitude',
      [amplitude, period, resultColumn('g', 'value', 'g')],
      period,
      amplitude,
      [
        entry('formulaFit', 'curve', 'growth', {
          of: columnRef(period),
          against: columnRef(amplitude),
          weights: 'own',
          formula: formula('T_0 (1 + θ_m^2 / 16 + 11 θ_m^4 / 3072 + 173 θ_m^6 / 737280)', {
            θ_m: columnRef(amplitude),
          }),
          note: 'The first terms of the series for the period of a pendulum, which is a complete elliptic integral.',
        }),
      ],
    ),
  ],
  guide: pendulumGuide,
  // It is let go at the side and swings through rest a quarter of a period later, there the run begins.
  runs: [
    [10, 0.58],
    [30, 0.59],
    [60, 0.61],
  ].map(([degrees, begins], i): DemoRun => ({
    name: `${degrees}°`,
    rig: bell,
    acts: ({ apparatus }) => [
      [
        0,
        () => {
          apparatus.control({ action: 'set', key: 'amplitude', value: degrees });
          apparatus.control({ action: 'do', key: 'pull' });
        },
      ],
      [0.2, () => apparatus.control({ action: 'release' })],
    ],
    streams: [{ code: 'B2-R', stream: 'angle', rate: 50, seconds: 14, from: begins }],
    seed: 120 + i,
  })),
};
