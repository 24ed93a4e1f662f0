import { ball, gravity } from '@heuristor/stand-ins';
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
import { bouncesGuide } from './guides/bounces';
import { type DemoRun } from './record';

const name = runColumn('name');
const kept = resultColumn('kept', 'value', 'share of the energy', '%');

/** Where the ball passes a height for the so many-th time on its way down, or up. */
const passes = (event: 'rises' | 'falls', count: number) =>
  ({ event, of: 'entry:h', level: 0.1, count, offset: 0 }) as const;

export const bounces: Experiment = {
  name: 'Fender ball: what a bounce costs',
  template: {
    name: 'Bounces',
    about:
      'height of a dropped ball under an inverted motion sensor, its parabolas, and the energy lost at a bounce',
  },
  conditions: [],
  workings: sheet(
    [
      folded(constant('floor', 'H', 1.8, 0.001, 'm', 'reading with the ball on the floor')),
      folded(constant('standard-g', 'g_n', gravity, 0, 'm.s-2', 'standard gravity, ISO 80000-3')),
      entry('formulaSeries', 'h', 'h', {
        formula: formula('H - x', { H: 'result:floor/value', x: 'channel:x' }),
        unit: 'm',
      }),
      entry('region', 'first', 'first flight', {
        letter: 'A',
        start: 0.6,
        end: 1.3,
        from: passes('rises', 1),
        until: passes('falls', 2),
        toldIn: { 'entry:h': 'm' },
      }),
      entry('region', 'second', 'second flight', {
        letter: 'B',
        start: 1.5,
        end: 2,
        from: passes('rises', 2),
        until: passes('falls', 3),
        toldIn: { 'entry:h': 'm' },
      }),
      entry('fit', 'path', 'first parabola', {
        relation: 'parabola',
        of: 'entry:h',
        against: 't',
        region: 'first',
      }),
      entry('peaks', 'top', 'top of the first', { of: 'entry:h', region: 'first' }),
      entry('peaks', 'next', 'top of the second', { of: 'entry:h', region: 'second' }),
      entry('calculation', 'g', 'g', {
        formula: formula('-a', { a: 'result:path/curvature' }),
        unit: 'm/s^2',
      }),
      entry('calculation', 'kept', 'share of the energy', {
        formula: formula('h_2 / h_1', { h_2: 'result:next/peak', h_1: 'result:top/peak' }),
        unit: '%',
        note: 'The energy at the top is m g h, so that the share that is kept is that of the heights.',
      }),
      entry('comparison', 'compared', '', { first: 'result:g/value', second: 'result:standard-g/value' }),
    ],
    ['entry:h'],
  ),
  guide: bouncesGuide,
  tables: [barsTable('kept at a bounce', [name, kept, resultColumn('g', 'value', 'g', 'm.s-2')], kept, name)],
  runs: [0.8, 0.7].map((share, i): DemoRun => ({
    name: i === 0 ? 'on the planks' : 'on the mat',
    rig: ball,
    acts: ({ apparatus }) => [
      [
        0,
        () => {
          apparatus.control({ action: 'set', key: 'bounce', value: share });
          apparatus.control({ action: 'set', key: 'height', value: 1.2 });
          apparatus.control({ action: 'do', key: 'lift' });
        },
      ],
      [0.5, () => apparatus.control({ action: 'release' })],
    ],
    streams: [{ code: 'K4-B', stream: 'motion', rate: 50, seconds: 3.5, from: 0.4 }],
    seed: 440 + i,
  })),
};
