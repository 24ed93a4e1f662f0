import { type RecorderStatus, type SpotStatus } from '@heuristor/contracts';
import { endedMeanwhile } from './endedMeanwhile';

const idle = { phase: 'idle' as const };
const waiting: RecorderStatus = {
  phase: 'waiting',
  number: 1,
  times: 1,
  for: { kind: 'switch', quantity: 'S', to: 'on' },
};
const sweeping: SpotStatus = {
  phase: 'sweeping',
  doing: 'reading',
  value: 1,
  unit: 'V',
  taken: 4,
  planned: 11,
};
const doing = (recorder: RecorderStatus = idle, spots: SpotStatus = idle, runs = 1) => ({
  recorder,
  spots,
  runs: Array.from({ length: runs }, (_, i) => ({ id: String(i) })),
});

test('a run that waited, and a sweep, are said to have ended with the server', () => {
  expect(endedMeanwhile(doing(waiting), doing())).toContain('was cancelled');
  expect(endedMeanwhile(doing(idle, sweeping), doing())).toContain('after 4 of 11 readings');
});

test('nothing is said where it goes on, or where the run was recorded meanwhile', () => {
  expect(endedMeanwhile(doing(waiting), doing(waiting))).toBeNull();
  expect(endedMeanwhile(doing(waiting), doing(idle, idle, 2))).toBeNull();
  expect(endedMeanwhile(doing(idle, sweeping), doing(idle, sweeping))).toBeNull();
  expect(endedMeanwhile(doing(), doing())).toBeNull();
});
