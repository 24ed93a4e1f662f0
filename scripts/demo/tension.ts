import { gravity, trolley } from '@heuristor/stand-ins';
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
import { tensionGuide } from './guides/tension';
import { type DemoRun } from './record';

const name = runColumn('name');
const held = resultColumn('held-pull', 'mean', 'F held', 'N');

const passes = (level: number, offset = 0) =>
  ({ event: 'rises', of: 'channel:x', level, count: 1, offset }) as const;

export const tension: Experiment = {
  name: 'Haul line: its pull, held and hauling',
  template: {
    name: 'Tension',
    about: 'pull of the line held and while it hauls, against the hanging mass times g − a',
  },
  conditions: [{ key: 'M', name: 'M', kind: 'number', unit: 'kg' }],
  workings: sheet(
    [
      folded(constant('standard-g', 'g_n', gravity, 0, 'm.s-2', 'standard gravity, ISO 80000-3')),
      entry('region', 'held', 'held', {
        letter: 'A',
        start: 0,
        end: 0.3,
        from: passes(0.01, -0.5),
        until: passes(0.01, -0.15),
        toldIn: { 'channel:x': 'm' },
      }),
      entry('region', 'hauled', 'hauled', {
        letter: 'B',
        start: 0.5,
        end: 1,
        from: passes(0.03),
        until: passes(0.5),
        toldIn: { 'channel:x': 'm' },
      }),
      entry('statistics', 'held-pull', 'F held', { of: 'channel:F', region: 'held' }),
      entry('statistics', 'hauling-pull', 'F hauling', { of: 'channel:F', region: 'hauled' }),
      entry('fit', 'path', 'a', { relation: 'parabola', of: 'channel:x', against: 't', region: 'hauled' }),
      entry('calculation', 'expected', 'F expected', {
        formula: formula('M (g_n - a)', { g_n: 'result:standard-g/value', a: 'result:path/curvature' }),
        unit: 'N',
      }),
      entry('comparison', 'compared', '', {
        first: 'result:hauling-pull/mean',
        second: 'result:expected/value',
      }),
    ],
    ['channel:x', 'channel:F'],
  ),
  guide: tensionGuide,
  tables: [
    barsTable(
      'pull held and hauling',
      [name, held, resultColumn('hauling-pull', 'mean', 'F hauling', 'N')],
      held,
      name,
    ),
  ],
  runs: [0.05, 0.1].map((mass, i): DemoRun => ({
    name: `${Math.round(1000 * mass)} g`,
    rig: trolley,
    acts: ({ apparatus }) => [
      [
        0,
        () => {
          apparatus.control({ action: 'set', key: 'hanging', value: mass });
          apparatus.control({ action: 'do', key: 'back' });
        },
      ],
      [1, () => apparatus.control({ action: 'release' })],
    ],
    streams: [{ code: 'K5-C', stream: 'cart', rate: 100, seconds: 2.8, from: 0.4, zero: { F: 0.06 } }],
    conditions: { M: { value: mass, u: 0.00003 } },
    seed: 580 + i,
  })),
};
