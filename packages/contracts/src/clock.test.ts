import { clockAt, wallClock } from './clock';

test('a clock runs as many times as fast as the wall as it is told', async () => {
  const clock = clockAt(20);
  const [now, date, wall] = [clock.now(), clock.date(), wallClock.now()];
  await clock.pause(400);
  const passed = wallClock.now() - wall;
  const [own, ownDate] = [clock.now() - now, clock.date() - date];
  // A timer may be early by a millisecond, and a busy machine reads one clock a little after the other.
  expect(passed).toBeGreaterThanOrEqual(19);
  for (const one of [own, ownDate]) {
    expect(one / passed).toBeGreaterThan(18);
    expect(one / passed).toBeLessThan(24);
  }
});

test('what was called off is not done', async () => {
  const clock = clockAt(50);
  let done = 0;
  const every = clock.every(50, () => done++);
  clock.after(100, () => (done += 1000)).cancel();
  // What was called off would have been done by then; a busy machine lets the other come late.
  await clock.pause(500);
  while (done < 2) await clock.pause(100);
  every.cancel();
  const after = done;
  expect(after).toBeGreaterThan(1);
  expect(after).toBeLessThan(1000);
  await clock.pause(500);
  expect(done).toBe(after);
});
