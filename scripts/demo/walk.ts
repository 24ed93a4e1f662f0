import { type Rig, walker } from '@heuristor/stand-ins';
import { type Experiment, barsTable, entry, resultColumn, runColumn, sheet } from './experiment';
import { walkGuide } from './guides/walk';
import { type DemoRun } from './record';
import { line } from './walkLine';

const name = runColumn('name');
const off = resultColumn('closeness', 'rms', 'off by', 'cm');

/** The walker comes to the beginning of the line before the run begins. */
const ahead = 1;

function placeAt(t: number): number {
  const next = line.points.findIndex((point) => point.t > t);
  if (next <= 0) return line.points.at(next < 0 ? -1 : 0)?.value ?? 0;
  const [from, to] = [line.points[next - 1], line.points[next]];
  return from.value + ((t - from.t) / (to.t - from.t)) * (to.value - from.value);
}

export const walk: Experiment = {
  name: 'Quay walk: following a line',
  template: {
    name: 'Follow a line',
    about: 'how close a walk came to its line, and the speed on each stretch against that of the line',
  },
  conditions: [],
  workings: sheet(
    [
      entry('closeness', 'closeness', 'off by', { of: 'channel:x' }),
      entry('paceSlopes', 'speeds', 'speeds', { of: 'channel:x' }),
      entry('derivative', 'v', 'v', { of: 'channel:x', windowPoints: 9 }),
    ],
    ['channel:x', 'entry:v'],
  ),
  guide: walkGuide,
  tables: [barsTable('off the line', [name, off], off, name)],
  runs: [0.25, 0.08].map((late, i): DemoRun => ({
    name: i === 0 ? 'first try' : 'second try',
    rig: walker,
    pace: line,
    // A walker follows what he sees, somewhat late, and not quite evenly.
    acts: ({ apparatus }: Rig) =>
      Array.from({ length: 115 }, (_, k): [number, () => void] => [
        0.1 * k,
        () =>
          apparatus.control({
            action: 'grab',
            at: placeAt(0.1 * k - ahead - late) + 0.1 * late * Math.sin(0.9 * k),
          }),
      ]),
    streams: [{ code: 'K9-W', stream: 'motion', rate: 20, seconds: 10, from: ahead }],
    seed: 560 + i,
  })),
};
