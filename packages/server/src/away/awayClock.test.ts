import { awayTiming } from './awayClock';

// A device's clock against this computer's, worked by hand.

const noon = Date.UTC(2026, 2, 2, 12);

test('a run of an hour ago, by a clock that agrees', () => {
  const { begunAt, sentence } = awayTiming(
    { clock: 5000, now: noon, begun: 1400 },
    { clock: 1000, at: noon - 4_000_000 },
  );
  expect(begunAt).toBe(noon - 3_600_000);
  // What a message takes, twice 0.05 s, in 4000 s: 25 millionths.
  expect(sentence).toContain('agrees with this computer’s to within 25 millionths');
});

test.each([
  [4000.8, '200 millionths too fast'],
  [3999.6, '100 millionths too slow'],
])('a clock that counts %p s in 4000 s is reported', (counted, words) => {
  const { sentence } = awayTiming(
    { clock: 1000 + counted, now: noon, begun: 1000 },
    { clock: 1000, at: noon - 4_000_000 },
  );
  expect(sentence).toContain(words);
});

test('a clock that stands before where it was has been set anew: no drift is reported', () => {
  const { begunAt, sentence } = awayTiming(
    { clock: 50, now: noon, begun: 20 },
    { clock: 1000, at: noon - 4_000_000 },
  );
  expect(begunAt).toBe(noon - 30_000);
  expect(sentence).toBe('The times are those of the device’s own clock.');
});

test('a clock that was lost tells no beginning', () => {
  const { begunAt, sentence } = awayTiming(
    { clock: 50, now: noon, begun: null },
    { clock: 1000, at: noon - 1000 },
  );
  expect(begunAt).toBeNull();
  expect(sentence).toContain('when this run began is not known');
});
