import { gravity, weather } from '@heuristor/stand-ins';
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
import { stairGuide } from './guides/stair';
import { type DemoRun } from './record';

const name = runColumn('name');
const height = resultColumn('height', 'value', 'h');

export const stair: Experiment = {
  name: 'Harbour stair: pressure at its foot and top',
  template: {
    name: 'Stair',
    about: 'mean pressure of two stretches, their difference, and the height that follows from it',
  },
  conditions: [],
  workings: sheet(
    [
      folded(constant('gas', 'R_s', 287.053, 0.01, 'J.kg-1.K-1', 'dry air, ISO 2533:1975')),
      folded(constant('warmth', 'T', 292.4, 0.5, 'K', 'thermometer of the quay')),
      folded(constant('standard-g', 'g_n', gravity, 0, 'm.s-2', 'standard gravity, ISO 80000-3')),
      entry('region', 'foot', 'at the foot', { letter: 'A', start: 5, end: 45 }),
      entry('region', 'top', 'at the top', { letter: 'B', start: 55, end: 95 }),
      entry('statistics', 'below', 'p at the foot', { of: 'channel:p', region: 'foot' }),
      entry('statistics', 'above', 'p at the top', { of: 'channel:p', region: 'top' }),
      entry('calculation', 'difference', 'Δp', {
        formula: formula('p_1 - p_2', { p_1: 'result:below/mean', p_2: 'result:above/mean' }),
        unit: 'Pa',
      }),
      entry('calculation', 'height', 'h', {
        formula: formula('R_s T / g_n · ln(p_1 / p_2)', {
          R_s: 'result:gas/value',
          T: 'result:warmth/value',
          g_n: 'result:standard-g/value',
          p_1: 'result:below/mean',
          p_2: 'result:above/mean',
        }),
        unit: 'm',
      }),
    ],
    ['channel:p'],
  ),
  guide: stairGuide,
  tables: [
    barsTable(
      'height of each climb',
      [name, height, resultColumn('difference', 'value', 'Δp', 'Pa')],
      height,
      name,
    ),
  ],
  runs: [0, 1].map((i): DemoRun => ({
    name: i === 0 ? 'first climb' : 'second climb',
    rig: weather,
    acts: ({ apparatus }) => [
      [0, () => apparatus.control({ action: 'do', key: 'foot' })],
      [50, () => apparatus.control({ action: 'do', key: 'top' })],
    ],
    streams: [{ code: 'Q8-P', stream: 'air', rate: 5, seconds: 100, from: 0 }],
    seed: 540 + i,
  })),
};
