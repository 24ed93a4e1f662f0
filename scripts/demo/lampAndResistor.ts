import { lamp } from '@heuristor/stand-ins';
import { type Experiment, barsTable, entry, formula, resultColumn, runColumn, sheet } from './experiment';
import { lampAndResistorGuide } from './guides/lampAndResistor';
import { type DemoRun } from './record';

const name = runColumn('name');
const first = resultColumn('cold', 'value', 'R at first', 'Ohm');

export const lampAndResistor: Experiment = {
  name: 'Cabin lamp: current against voltage',
  template: {
    name: 'Lamp and resistor',
    about: 'current against voltage, resistance near zero and far up, and how far both are apart',
  },
  conditions: [],
  workings: sheet(
    [
      entry('region', 'low', 'small voltages', {
        letter: 'A',
        along: 'channel:U',
        start: 0.05,
        end: 0.3,
        toldIn: { 'channel:U': 'V' },
      }),
      entry('region', 'high', 'large voltages', {
        letter: 'B',
        along: 'channel:U',
        start: 4.5,
        end: 5.8,
        toldIn: { 'channel:U': 'V' },
      }),
      entry('slope', 'first', 'slope at first', { of: 'channel:I', against: 'channel:U', region: 'low' }),
      entry('statistics', 'current', 'I', { of: 'channel:I', region: 'high' }),
      entry('statistics', 'voltage', 'U', { of: 'channel:U', region: 'high' }),
      entry('calculation', 'cold', 'R at first', {
        formula: formula('1 / s', { s: 'result:first/slope' }),
        unit: 'Ohm',
      }),
      entry('calculation', 'hot', 'R far up', {
        formula: formula('U / I', { U: 'result:voltage/mean', I: 'result:current/mean' }),
        unit: 'Ohm',
      }),
      entry('calculation', 'grown', 'grown by', {
        formula: formula('R_2 / R_1', { R_2: 'result:hot/value', R_1: 'result:cold/value' }),
        unit: '',
      }),
    ],
    ['channel:I'],
    'channel:U',
  ),
  guide: lampAndResistorGuide,
  tables: [
    barsTable(
      'R at first and far up',
      [name, first, resultColumn('hot', 'value', 'R far up', 'Ohm')],
      first,
      name,
    ),
  ],
  runs: [0, 1].map((kind): DemoRun => ({
    name: kind === 0 ? 'resistor' : 'lamp',
    rig: lamp,
    acts: ({ apparatus }) => [
      [
        0,
        () => {
          apparatus.control({ action: 'set', key: 'lamp', value: kind });
          apparatus.control({ action: 'do', key: 'ramp' });
        },
      ],
    ],
    streams: [{ code: 'V3-G', stream: 'circuit', rate: 100, seconds: 2.9, from: 0.05 }],
    seed: 500 + kind,
  })),
};
