import { type Run, emptyWorkings, usualPlan } from '@heuristor/contracts';
import { runOf } from '../testing/runs';
import { howRecorded } from './howRecorded';

const channel = (deviceCode: string | null, interval = 0.02): Run['channels'][number] => ({
  ...runOf('any', ['x']).channels[0],
  sampling: { kind: 'regular', start: 0, interval },
  deviceCode,
});
const run = (number: number, parts: Partial<Run>): Run =>
  runOf(`r${number}`, ['x'], { number, plan: usualPlan, ...parts });

test('what is the same for all runs is said once, and what is not with the runs of which it is so', () => {
  const said = howRecorded(
    [run(1, {}), run(2, {}), run(3, { channels: [channel('K7-D', 0.01)] })],
    emptyWorkings,
  );
  expect(said).toEqual([
    'Position x in m: sensor K7-D; 50 readings a second (runs 1 and 2).',
    'Position x in m: sensor K7-D; 100 readings a second (run 3).',
    expect.stringMatching(/^Runs 1, 2 and 3 began when pressed and ended /),
  ]);
});

test('files, readings that were set aside and what went wrong are said', () => {
  const said = howRecorded(
    [run(1, { origin: 'imported', plan: null, channels: [channel(null)] }), run(2, { notes: ['A gap.'] })],
    {
      ...emptyWorkings,
      aside: [
        {
          run: 'r2',
          channel: 'x',
          ranges: [
            [3, 5],
            [9, 10],
          ],
        },
      ],
    },
  );
  expect(said).toContain('Run 1 was brought in from a file.');
  expect(said).toContain('run 2: 3 readings were set aside by hand.');
  expect(said).toContain('Run 2: A gap.');
});

test('readings that are no measurement are said, by run and channel, and what became of them', () => {
  const runs = [run(1, {}), run(2, {})];
  const [{ id }] = runs[0].channels;
  const leftOut = new Map([
    ['r1', [{ channel: id, pinned: 2, strays: 1 }]],
    ['r2', [{ channel: id, pinned: 1, strays: 0 }]],
  ]);
  const said = howRecorded(runs, { ...emptyWorkings, runs: [{ run: 'r2', keepPinned: true }] }, leftOut);
  expect(said.slice(-2)).toEqual([
    'Run 1, x: 2 readings at a limit of the sensor and 1 wrong echo were left out, since that is no measurement.',
    'Run 2, x: 1 reading at a limit of the sensor was counted in spite of it.',
  ]);
});

test('of no run nothing is said', () => {
  expect(howRecorded([], emptyWorkings)).toEqual([]);
});
