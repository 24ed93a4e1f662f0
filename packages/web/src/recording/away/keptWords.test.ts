import { type AwayRun } from '@heuristor/contracts';
import { keptWords, shortKeptWords, whenWords } from './keptWords';

const now = new Date(2026, 2, 2, 12, 0, 0).getTime();
const run = (changes: Partial<AwayRun> = {}): AwayRun => ({
  id: 1,
  investigation: null,
  state: 'recording',
  begunAt: new Date(now - 90_000).toISOString(),
  clockLost: false,
  count: 12_000,
  stored: 0,
  seconds: 300,
  isFetching: false,
  discarded: false,
  run: null,
  ...changes,
});

test('what a device does is said with since when, how far, and that it may be left', () => {
  expect(keptWords(run(), true, now)).toBe(
    'Still recording since 11:58:30, 90 s of 300 s: 12\u2009000 readings. It may be carried off.',
  );
  expect(keptWords(run({ seconds: null }), true, now)).not.toContain(' of ');
  const long = run({ begunAt: new Date(now - 5_390_000).toISOString(), seconds: null });
  expect(keptWords(long, true, now)).toContain('since 10:30:10, 1 hour: ');
  expect(keptWords(run(), false, now)).toContain('Bring it back to fetch the run.');
});

test.each([
  [{ state: 'waiting', begunAt: null }, 'Waits to begin'],
  [{ state: 'finished', count: 0 }, 'Finished, and empty'],
  [{ state: 'finished', count: 1 }, 'Finished: 1 reading from 11:58:30.'],
  [{ state: 'full' }, 'Its memory is full: 12\u2009000 readings'],
  [{ state: 'stopped', begunAt: null, clockLost: true }, 'The device lost its clock'],
] as const)('%j is plain', (changes, words) => {
  expect(keptWords(run(changes), true, now)).toContain(words);
});

test('another day is named', () => {
  expect(whenWords(new Date(2026, 1, 27, 9, 5).toISOString(), now)).toBe('27 Feb 09:05');
});

test('the card of the sensor says it in a few words, and passes over what was discarded', () => {
  expect(shortKeptWords([])).toBeNull();
  expect(shortKeptWords([run({ discarded: true })])).toBeNull();
  expect(shortKeptWords([run()])).toBe('records by itself');
  expect(shortKeptWords([run({ state: 'waiting' })])).toBe('waits to record by itself');
  expect(shortKeptWords([run({ state: 'finished' })])).toBe('keeps a run');
  expect(shortKeptWords([run({ state: 'full' }), run({ state: 'stopped' })])).toBe('keeps 2 runs');
});
