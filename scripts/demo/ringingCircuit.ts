import { ringing } from '@heuristor/stand-ins';
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
import { ringingCircuitGuide } from './guides/ringingCircuit';
import { type DemoRun } from './record';

const name = runColumn('name');
const frequency = resultColumn('f', 'value', 'f', 'Hz');

export const ringingCircuit: Experiment = {
  name: 'Signal circuit: rung by a pulse',
  template: {
    name: 'Coil and capacitor',
    about: 'frequency and Q of a circuit that rings, against 1/(2π√LC) within the tolerances of its parts',
  },
  conditions: [],
  workings: sheet(
    [
      folded(constant('L', 'L', 10, 0.29, 'mH', 'printed on it: 5 %, taken as evenly spread')),
      folded(constant('C', 'C', 470, 13.6, 'nF', 'printed on it: 5 %, taken as evenly spread')),
      entry('region', 'free', 'ringing', { letter: 'A', start: 0.0003, end: 0.006 }),
      entry('fit', 'ring', 'the ringing', {
        relation: 'dampedSine',
        of: 'channel:U',
        against: 't',
        region: 'free',
      }),
      entry('calculation', 'f', 'f', { formula: formula('1 / T', { T: 'result:ring/period' }), unit: 'Hz' }),
      entry('calculation', 'expected', 'f_LC', {
        formula: formula('1 / (2 π sqrt(L C))', { L: 'result:L/value', C: 'result:C/value' }),
        unit: 'Hz',
      }),
      entry('comparison', 'compared', '', { first: 'result:f/value', second: 'result:expected/value' }),
    ],
    ['channel:U'],
  ),
  guide: ringingCircuitGuide,
  tables: [
    barsTable('f of each circuit', [name, frequency, resultColumn('ring', 'quality', 'Q')], frequency, name),
  ],
  runs: [470, 1000].map((capacitance, i): DemoRun => ({
    name: `${capacitance} nF`,
    rig: ringing,
    acts: ({ apparatus }) => [
      [
        0,
        () => {
          apparatus.control({ action: 'set', key: 'capacitance', value: capacitance });
          apparatus.control({ action: 'do', key: 'pulse' });
        },
      ],
    ],
    streams: [{ code: 'V2-L', stream: 'voltage', rate: 50_000, seconds: 0.01, from: 0.0002 }],
    seed: 480 + i,
  })),
};
