import { type TrialTable, emptyTable } from '@heuristor/contracts';
import { gravity, lifeboat } from '@heuristor/stand-ins';
import {
  type Experiment,
  constant,
  entry,
  folded,
  formula,
  pointsTable,
  resultColumn,
  runColumn,
  sheet,
} from './experiment';
import { energyOnSlopeGuide } from './guides/energyOnSlope';
import { type DemoRun } from './record';

/** When the boat passes a place on its way down. */
const passes = (level: number) => ({ event: 'rises', of: 'channel:s', level, count: 1, offset: 0 }) as const;

const run = runColumn('name');
const tilt = resultColumn('tilt', 'value', 'θ', 'deg');
const loss = resultColumn('loss-fast', 'slope', 'power while fast', 'W');

/** Energy that comes from nowhere tells which tilts cannot have been. */
const powerAgainstTilt: TrialTable = {
  ...pointsTable('power against θ', [run, tilt, loss], loss, tilt, []),
  rows: { kind: 'constant', entry: 'tilt', ends: '4 to 7', count: 13 },
  plot: {
    ...emptyTable.plot,
    apart: run.key,
    holds: { column: loss.key, is: 'atMost', level: 0, unit: 'W' },
  },
};

export const energyOnSlope: Experiment = {
  name: 'Lifeboat: where its energy goes',
  template: {
    name: 'Energy on a slope',
    about: 'kinetic, potential and total energy with constants that can be slid; the loss on each stretch',
  },
  conditions: [],
  workings: sheet(
    [
      folded(constant('mass', 'm', 0.42, 0.002, 'kg', 'kitchen scales')),
      constant('tilt', 'θ', 6, 0.1, 'deg', 'spirit level with a scale'),
      constant('origin', 's_ref', 2, 0.005, 'm', 'where potential energy counts from; tape measure'),
      folded(
        constant(
          'g',
          'g',
          gravity,
          0.001,
          'm.s-2',
          'standard gravity, ISO 80000-3; local g differs a little',
        ),
      ),
      entry('derivative', 'v', 'v', { of: 'channel:s', windowPoints: 9 }),
      entry('formulaSeries', 'kinetic', 'K', {
        formula: formula('1/2 m v^2', { m: 'result:mass/value', v: 'entry:v' }),
        unit: 'J',
      }),
      entry('formulaSeries', 'potential', 'V', {
        formula: formula('m g (s_ref - s) sin(θ)', {
          m: 'result:mass/value',
          g: 'result:g/value',
          s_ref: 'result:origin/value',
          s: 'channel:s',
          θ: 'result:tilt/value',
        }),
        unit: 'J',
      }),
      entry('formulaSeries', 'total', 'E', {
        formula: formula('K + V', { K: 'entry:kinetic', V: 'entry:potential' }),
        unit: 'J',
      }),
      entry('region', 'slow', 'slow', {
        letter: 'A',
        start: 0.7,
        end: 1,
        from: passes(0.15),
        until: passes(0.75),
        toldIn: { 'channel:s': 'm' },
      }),
      entry('region', 'fast', 'fast', {
        letter: 'B',
        start: 1.2,
        end: 1.6,
        from: passes(1.05),
        until: passes(1.65),
        toldIn: { 'channel:s': 'm' },
      }),
      entry('slope', 'loss-slow', 'power lost while slow', {
        of: 'entry:total',
        against: 't',
        region: 'slow',
      }),
      entry('slope', 'loss-fast', 'power lost while fast', {
        of: 'entry:total',
        against: 't',
        region: 'fast',
      }),
    ],
    ['channel:s', ['entry:kinetic', 'entry:potential', 'entry:total']],
  ),
  tables: [powerAgainstTilt],
  guide: energyOnSlopeGuide,
  runs: [0.012, 0.03].map((friction, i): DemoRun => ({
    name: i === 0 ? 'clean rails' : 'sand on the rails',
    rig: lifeboat,
    acts: ({ apparatus }) => [
      [
        0,
        () => {
          apparatus.control({ action: 'set', key: 'angle', value: 6 });
          apparatus.control({ action: 'set', key: 'friction', value: friction });
          apparatus.control({ action: 'set', key: 'buffer', value: 0.7 });
          apparatus.control({ action: 'do', key: 'top' });
        },
      ],
      [0.5, () => apparatus.control({ action: 'release' })],
    ],
    streams: [
      {
        code: 'K3-L',
        stream: 'motion',
        rate: 50,
        seconds: 6,
        from: 0.3,
        symbols: { x: 's' },
        zero: { x: 0.3 },
      },
    ],
    seed: 240 + i,
  })),
};
