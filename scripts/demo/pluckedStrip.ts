import { reed } from '@heuristor/stand-ins';
import { type Experiment, barsTable, entry, formula, resultColumn, runColumn, sheet } from './experiment';
import { pluckedStripGuide } from './guides/pluckedStrip';
import { type DemoRun } from './record';

const name = runColumn('name');
const quality = resultColumn('Q', 'value', 'Q');

export const pluckedStrip: Experiment = {
  name: 'Sprung strip: plucked and left alone',
  template: {
    name: 'Plucked strip',
    about: 'decay, amplitude and period of a plucked strip by a fit and by its peaks, and Q from both',
  },
  conditions: [],
  workings: sheet(
    [
      entry('region', 'free', 'left alone', { letter: 'A', start: 0.05, end: 1.2 }),
      entry('fit', 'swing', 'the swing', {
        relation: 'dampedSine',
        of: 'channel:y',
        against: 't',
        region: 'free',
      }),
      entry('cycles', 'periods', 'T', { of: 'channel:y', region: 'free' }),
      entry('calculation', 'f', 'f', { formula: formula('1 / T', { T: 'result:swing/period' }), unit: 'Hz' }),
      entry('calculation', 'Q', 'Q', {
        formula: formula('π / (T β)', { T: 'result:swing/period', β: 'result:swing/damping' }),
        unit: '',
      }),
    ],
    ['channel:y'],
  ),
  guide: pluckedStripGuide,
  tables: [
    barsTable('Q of the strips', [name, quality, resultColumn('f', 'value', 'f', 'Hz')], quality, name),
  ],
  runs: [45, 20].map((own, i): DemoRun => ({
    name: i === 0 ? 'bare strip' : 'strip with felt',
    rig: reed,
    acts: ({ apparatus }) => [
      [
        0,
        () => {
          apparatus.control({ action: 'set', key: 'quality', value: own });
          apparatus.control({ action: 'do', key: 'pluck' });
        },
      ],
    ],
    streams: [{ code: 'R5-T', stream: 'strain', rate: 500, seconds: 2, from: 0.1, zero: { y: 0.83 } }],
    seed: 460 + i,
  })),
};
