import { uniformRandom } from '@heuristor/core';
import { type ClockVerdict, StreamClock } from './streamClock';

/** A device that takes readings at `rate` and sends them every 20 ms over a way with some delay. */
function play(
  clock: StreamClock,
  rate: number,
  seconds: number,
  delay: (now: number) => number = () => 2,
): { verdict: ClockVerdict; at: number } {
  let sent = 0;
  let arrival = 0;
  for (let now = 0; now <= seconds * 1000; now += 20) {
    const due = Math.floor((now * rate) / 1000) + 1;
    arrival = Math.max(arrival, now + delay(now));
    const verdict = clock.arrive(arrival, sent, due - sent);
    if (verdict.kind !== 'fine') return { verdict, at: now / 1000 };
    sent = due;
  }
  return { verdict: { kind: 'fine' }, at: seconds };
}

test('an honest device is believed for an hour, also over a way that stutters', () => {
  const random = uniformRandom(3);
  const stutters = (now: number) => (now % 7000 < 20 ? 300 : 2 + 30 * random());
  expect(play(new StreamClock(50), 50, 3600, stutters).verdict).toEqual({ kind: 'fine' });
});

test('a clock that is off by one in a thousand is no fault of the rate', () => {
  expect(play(new StreamClock(50), 50.05, 1800).verdict.kind).toBe('fine');
});

test.each([
  [200, 0.4],
  [75, 2],
  [55, 8],
])(
  'a device that sends %p readings a second where 50 were asked for is noticed within %p s',
  (rate, within) => {
    const { verdict, at } = play(new StreamClock(50), rate, 60);
    expect(verdict.kind).toBe('wrong-rate');
    expect(at).toBeLessThanOrEqual(within);
    if (verdict.kind === 'wrong-rate') expect(Math.abs(verdict.measured / rate - 1)).toBeLessThan(0.15);
  },
);

test.each([[25], [40], [47]])('a device that sends only %p a second is noticed too', (rate) => {
  const { verdict } = play(new StreamClock(50), rate, 120);
  expect(verdict.kind).toBe('wrong-rate');
});

test('a network that stands still for three seconds and catches up is no fault of the device', () => {
  const { verdict } = play(new StreamClock(50), 50, 60, (now) =>
    now > 10_000 && now < 13_000 ? 13_000 - now : 2,
  );
  expect(verdict.kind).toBe('fine');
});

test('one frame with a huge index is left out, and the rest goes on as if it had not been', () => {
  const clock = new StreamClock(50);
  clock.arrive(0, 0, 10);
  const epoch = clock.epoch;
  expect(clock.arrive(200, 4_000_000_000, 1)).toEqual({ kind: 'impossible-index', index: 4_000_000_000 });
  expect(clock.next).toBe(10);
  expect(clock.epoch).toBe(epoch);
  expect(clock.arrive(400, 10, 10)).toEqual({ kind: 'fine' });
});

test('a stream that begins with a huge index is not believed', () =>
  expect(new StreamClock(50).arrive(0, 1_000_000, 5).kind).toBe('impossible-index'));

test('the moment of reading 0 is the earliest that any arrival allows', () => {
  const clock = new StreamClock(50);
  clock.arrive(1300, 0, 11);
  expect(clock.epoch).toBe(1100);
  clock.arrive(1405, 11, 10);
  expect(clock.epoch).toBe(1005);
  clock.arrive(1800, 21, 10);
  expect(clock.timeOf(10)).toBe(1205);
});
