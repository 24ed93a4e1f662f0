import { fallingMagnet as rig } from '@heuristor/stand-ins';
import { type Experiment, barsTable, entry, resultColumn, runColumn, sheet } from './experiment';
import { fallingMagnetGuide } from './guides/fallingMagnet';
import { type DemoRun } from './record';

const name = runColumn('name');
const flux = resultColumn('into', 'area', 'area going in', 'mWb');

/** Where the voltage passes through zero between its peaks. */
const middle = { event: 'rises', of: 'channel:U', level: 0, count: 1, offset: 0 } as const;
const passes = (event: 'rises' | 'falls', level: number) =>
  ({ event, of: 'channel:U', level, count: 1, offset: 0 }) as const;

export const fallingMagnet: Experiment = {
  name: 'Coil of the foghorn: a magnet falls through',
  template: {
    name: 'Falling magnet',
    about: 'both peaks of the voltage of a coil, and the areas under them, which are equal in size',
  },
  conditions: [],
  workings: sheet(
    [
      entry('region', 'in', 'going in', {
        letter: 'A',
        start: 0.1,
        end: 0.22,
        from: { ...passes('falls', -15), offset: -0.04 },
        until: middle,
        toldIn: { 'channel:U': 'mV' },
      }),
      entry('region', 'out', 'coming out', {
        letter: 'B',
        start: 0.22,
        end: 0.3,
        from: middle,
        until: { ...passes('falls', 15), offset: 0.04 },
        toldIn: { 'channel:U': 'mV' },
      }),
      entry('peaks', 'first', 'first peak', { of: 'channel:U', region: 'in' }),
      entry('peaks', 'second', 'second peak', { of: 'channel:U', region: 'out' }),
      entry('area', 'into', 'Φ in', { of: 'channel:U', against: 't', region: 'in' }),
      entry('area', 'outof', 'Φ out', { of: 'channel:U', against: 't', region: 'out' }),
    ],
    ['channel:U'],
  ),
  guide: fallingMagnetGuide,
  tables: [
    barsTable(
      'areas of the peaks',
      [name, flux, resultColumn('outof', 'area', 'area coming out', 'mWb')],
      flux,
      name,
    ),
  ],
  runs: [600, 300].map((turns, i): DemoRun => ({
    name: `${turns} turns`,
    rig,
    acts: ({ apparatus }) => [
      [
        0,
        () => {
          apparatus.control({ action: 'set', key: 'turns', value: turns });
          apparatus.control({ action: 'do', key: 'up' });
        },
      ],
      [0.1, () => apparatus.control({ action: 'release' })],
    ],
    streams: [{ code: 'V4-C', stream: 'voltage', rate: 10_000, seconds: 0.34, from: 0.15 }],
    seed: 520 + i,
  })),
};
