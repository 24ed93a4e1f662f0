import { cord } from '@heuristor/stand-ins';
import { type Experiment, barsTable, entry, resultColumn, runColumn, sheet } from './experiment';
import { hookeGuide } from './guides/hooke';
import { type DemoRun } from './record';

const stiffness = resultColumn('stiffness', 'slope', 'k');
const cordName = runColumn('name');

export const hooke: Experiment = {
  name: 'Mooring cord: pulled by hand',
  template: { name: 'Hooke', about: 'force against stretch, its slope where it is straight, and the work' },
  conditions: [],
  workings: sheet(
    [
      entry('region', 'straight', 'straight part', {
        letter: 'A',
        along: 'channel:x',
        start: 0.1,
        end: 0.35,
        toldIn: { 'channel:x': 'm' },
      }),
      entry('slope', 'stiffness', 'k', { of: 'channel:F', against: 'channel:x', region: 'straight' }),
      entry('area', 'work', 'W', { of: 'channel:F', against: 'channel:x', region: 'straight' }),
    ],
    ['channel:F'],
    'channel:x',
  ),
  tables: [barsTable('k of the cords', [cordName, stiffness], stiffness, cordName)],
  guide: hookeGuide,
  runs: [24, 38].map((newtonsPerMetre, i): DemoRun => ({
    name: i === 0 ? 'thin cord' : 'thick cord',
    rig: cord,
    acts: ({ apparatus }) => [
      [0, () => apparatus.control({ action: 'set', key: 'stiffness', value: newtonsPerMetre })],
      // A hand pulls in small steps, not quite evenly.
      ...Array.from({ length: 60 }, (_, k): [number, () => void] => [
        0.2 + 0.07 * k,
        () =>
          apparatus.control({
            action: 'grab',
            at: Math.min(0.008 * k + 0.004 * Math.sin(1.3 * k), 0.44),
          }),
      ]),
    ],
    streams: [{ code: 'C6-F', stream: 'cord', rate: 50, seconds: 4.4, from: 0, zero: { F: -0.08 } }],
    seed: 200 + i,
  })),
};
