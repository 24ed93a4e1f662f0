import { lifeboat } from '@heuristor/stand-ins';
import { type Experiment, barsTable, entry, resultColumn, runColumn, sheet } from './experiment';
import { slopeThreeWaysGuide } from './guides/slopeThreeWays';
import { type DemoRun } from './record';

const way = runColumn('name');
const byPath = resultColumn('path', 'curvature', 'by the path', 'm.s-2');

export const slopeThreeWays: Experiment = {
  name: 'Lifeboat: one acceleration, three ways',
  template: {
    name: 'Slope three ways',
    about: 'acceleration from the path, from the slope of v and as the mean of a, held against each other',
  },
  conditions: [],
  workings: sheet(
    [
      entry('derivative', 'v', 'v', { of: 'channel:x', windowPoints: 9 }),
      entry('derivative', 'a', 'a', { of: 'entry:v', windowPoints: 9 }),
      entry('region', 'running', 'running down', {
        letter: 'A',
        start: 0.7,
        end: 1.5,
        from: { event: 'rises', of: 'channel:x', level: 0.1, count: 1, offset: 0 },
        until: { event: 'greatest', of: 'channel:x', level: 0, count: 1, offset: -0.3 },
        toldIn: { 'channel:x': 'm' },
      }),
      entry('fit', 'path', 'the path', {
        relation: 'parabola',
        of: 'channel:x',
        against: 't',
        region: 'running',
      }),
      entry('slope', 'by-v', 'the line through v', { of: 'entry:v', against: 't', region: 'running' }),
      entry('statistics', 'by-a', 'a while it runs', { of: 'entry:a', region: 'running' }),
      entry('comparison', 'path-v', '', { first: 'result:path/curvature', second: 'result:by-v/slope' }),
      entry('comparison', 'path-a', '', { first: 'result:path/curvature', second: 'result:by-a/mean' }),
    ],
    ['channel:x', 'entry:v', 'entry:a'],
  ),
  tables: [
    barsTable(
      'acceleration three ways',
      [
        way,
        byPath,
        resultColumn('by-v', 'slope', 'by v', 'm.s-2'),
        resultColumn('by-a', 'mean', 'by a', 'm.s-2'),
      ],
      byPath,
      way,
    ),
  ],
  guide: slopeThreeWaysGuide,
  runs: [5, 5, 7].map((angle, i): DemoRun => ({
    name: i === 1 ? `${angle}° again` : `${angle}°`,
    rig: lifeboat,
    acts: ({ apparatus }) => [
      [
        0,
        () => {
          apparatus.control({ action: 'set', key: 'angle', value: angle });
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
        seconds: 3,
        from: 0.2 + 0.1 * i,
        zero: { x: 0.3 },
      },
    ],
    seed: 160 + i,
  })),
};
