import { gate, gravity } from '@heuristor/stand-ins';
import { type TrialTable, emptyTable } from '@heuristor/contracts';
import { type Experiment, constant, entry, folded, formula, sheet, valueColumn } from './experiment';
import { throwsGuide } from './guides/throws';
import { type DemoRun } from './record';

const speed = valueColumn('entry:v', 'c-v');

const spread: TrialTable = {
  ...emptyTable,
  id: 'table-1',
  name: 'speed of each throw',
  rows: { kind: 'values', of: 'entry:v' },
  columns: [speed],
  plot: { ...emptyTable.plot, kind: 'spread', value: speed.key },
};

export const throws: Experiment = {
  name: 'Signal ball: one speed a throw',
  template: {
    name: 'Throws',
    about: 'speed of a ball by how long it blocks a gate, its mean and spread, and where it lands',
  },
  conditions: [],
  workings: sheet(
    [
      folded(constant('diameter', 'd', 40, 0.1, 'mm', 'caliper')),
      folded(constant('height', 'h', 0.92, 0.003, 'm', 'tape measure, gate to floor')),
      folded(constant('standard-g', 'g_n', gravity, 0, 'm.s-2', 'standard gravity, ISO 80000-3')),
      entry('flagSpeed', 'v', 'v', { of: 'channel:A', length: 'result:diameter/value' }),
      entry('statistics', 'mean', 'v', { of: 'entry:v', region: null }),
      entry('calculation', 'lands', 'landing distance', {
        formula: formula('v_m sqrt(2 h / g_n)', {
          v_m: 'result:mean/mean',
          h: 'result:height/value',
          g_n: 'result:standard-g/value',
        }),
        unit: 'm',
      }),
    ],
    ['entry:v'],
  ),
  guide: throwsGuide,
  tables: [spread],
  runs: [3, 4.5].map((meant, i): DemoRun => ({
    name: i === 0 ? 'gentle throws' : 'hard throws',
    rig: gate,
    acts: ({ apparatus }) => [
      [
        0,
        () => {
          apparatus.control({ action: 'set', key: 'passer', value: 1 });
          apparatus.control({ action: 'set', key: 'speed', value: meant });
          apparatus.control({ action: 'set', key: 'unsteady', value: 3 });
          // The hand is warm by the second run: its throws are others than those of the first.
          for (let k = 0; k < 7 * i; k++) apparatus.control({ action: 'do', key: 'go' });
        },
      ],
      ...Array.from({ length: 10 }, (_, k): [number, () => void] => [
        0.5 + 1.5 * k,
        () => apparatus.control({ action: 'do', key: 'go' }),
      ]),
    ],
    streams: [{ code: 'G2-T', stream: 'beams', rate: 1, seconds: 16, from: 0.2 }],
    seed: 420 + i,
  })),
};
