import { mooring } from '@heuristor/stand-ins';
import { type TrialColumn } from '@heuristor/contracts';
import {
  type Experiment,
  columnRef,
  constant,
  entry,
  formula,
  pointsTable,
  resultColumn,
  runColumn,
  sheet,
} from './experiment';
import { impulseGuide } from './guides/impulse';
import { type DemoRun } from './record';

const pulled = (event: 'rises' | 'falls', offset: number) =>
  ({ event, of: 'channel:F', level: 0.5, count: 1, offset }) as const;

const impulses = resultColumn('pull', 'area', 'J');
const changes = resultColumn('momentum', 'value', 'Δp');
const mass: TrialColumn = {
  kind: 'condition',
  key: 'c-m',
  condition: 'm',
  name: '',
  unit: '',
  hidden: false,
};

export const impulse: Experiment = {
  name: 'Mooring line: four snatches',
  template: { name: 'Impulse', about: 'area under the pull of a line against m·Δv of what it catches' },
  conditions: [{ key: 'm', name: 'm', kind: 'number', unit: 'kg' }],
  workings: sheet(
    [
      entry('region', 'rest', 'running free', {
        letter: 'A',
        start: 0,
        end: 0.4,
        from: pulled('rises', -0.5),
        until: pulled('rises', -0.1),
        toldIn: { 'channel:F': 'N' },
      }),
      entry('region', 'caught', 'caught', {
        letter: 'B',
        start: 0.6,
        end: 0.8,
        from: pulled('rises', -0.05),
        until: pulled('falls', 0.05),
        toldIn: { 'channel:F': 'N' },
      }),
      entry('region', 'after', 'thrown back', {
        letter: 'C',
        start: 1,
        end: 1.4,
        from: pulled('falls', 0.1),
        until: pulled('falls', 0.5),
        toldIn: { 'channel:F': 'N' },
      }),
      entry('slope', 'before', 'v_1', { of: 'channel:x', against: 't', region: 'rest' }),
      entry('slope', 'later', 'v_2', { of: 'channel:x', against: 't', region: 'after' }),
      entry('area', 'pull', 'J', {
        of: 'channel:F',
        against: 't',
        region: 'caught',
        baseline: 'mean',
        meanOf: 'rest',
      }),
      entry('peaks', 'peak', 'greatest pull', { of: 'channel:F', region: 'caught' }),
      entry('calculation', 'momentum', 'Δp', {
        formula: formula('m (v_1 - v_2)', { v_1: 'result:before/slope', v_2: 'result:later/slope' }),
        unit: 'N.s',
      }),
      entry('comparison', 'compared', '', { first: 'result:pull/area', second: 'result:momentum/value' }),
    ],
    ['channel:x', 'channel:F'],
  ),
  tables: [
    pointsTable('J against m·Δv', [runColumn('name'), mass, changes, impulses], impulses, changes, [
      entry('fit', 'ratio', 'ratio', {
        of: columnRef(impulses),
        against: columnRef(changes),
        relation: 'proportional',
        weights: 'own',
      }),
      constant('one', 'one', 1, 0, '', 'area under the pull and change of momentum are equal'),
      entry('comparison', 'held', '', { first: 'result:ratio/factor', second: 'result:one/value' }),
    ]),
  ],
  guide: impulseGuide,
  runs: [
    { name: 'string, light', elastic: 0, load: 0 },
    { name: 'string, loaded', elastic: 0, load: 0.5 },
    { name: 'elastic, light', elastic: 1, load: 0 },
    { name: 'elastic, loaded', elastic: 1, load: 0.5 },
  ].map(({ name, elastic, load }, i): DemoRun => ({
    name,
    rig: mooring,
    acts: ({ apparatus }) => [
      [
        0,
        () => {
          apparatus.control({ action: 'set', key: 'elastic', value: elastic });
          apparatus.control({ action: 'set', key: 'load', value: load });
          apparatus.control({ action: 'do', key: 'back' });
        },
      ],
      [0.5, () => apparatus.control({ action: 'do', key: 'push' })],
    ],
    streams: [
      { code: 'M1-D', stream: 'motion', rate: 100, seconds: 3.2, from: 0.3 },
      { code: 'M1-F', stream: 'force', rate: 500, seconds: 3.2, from: 0.3, zero: { F: 0.21 } },
    ],
    conditions: { m: { value: 0.5 + load, u: 0.001 } },
    seed: 180 + i,
  })),
};
