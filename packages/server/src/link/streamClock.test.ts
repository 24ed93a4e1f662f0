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
  expect(play(new StreamClock(50, 0), 50, 3600, stutters).verdict).toEqual({ kind: 'fine' });
});

test('a clock that is off by one in a thousand is no fault of the rate', () => {
  expect(play(new StreamClock(50, 0), 50.05, 1800).verdict.kind).toBe('fine');
});

test.each([
  [200, 0.4],
  [75, 2],
  [55, 8],
])(
  'a device that sends %p readings a second where 50 were asked for is noticed within %p s',
  (rate, within) => {
    const { verdict, at } = play(new StreamClock(50, 0), rate, 60);
    expect(verdict.kind).toBe('wrong-pace');
    expect(at).toBeLessThanOrEqual(within);
    if (verdict.kind === 'wrong-pace') expect(Math.abs((verdict.pace * 50) / rate - 1)).toBeLessThan(0.15);
  },
);

test.each([[25], [40], [47]])('a device that sends only %p a second is noticed too', (rate) => {
  const { verdict } = play(new StreamClock(50, 0), rate, 120);
  expect(verdict.kind).toBe('wrong-pace');
});

test('a network that stands still for three seconds and catches up is no fault of the device', () => {
  const { verdict } = play(new StreamClock(50, 0), 50, 60, (now) =>
    now > 10_000 && now < 13_000 ? 13_000 - now : 2,
  );
  expect(verdict.kind).toBe('fine');
});

test.each([[0.6], [3]])(
  'a first message that was %p s on its way does not make the rest look early',
  (late) => {
    const { verdict } = play(new StreamClock(50, 0), 50, 60, (now) => (now === 0 ? late * 1000 : 2));
    expect(verdict.kind).toBe('fine');
  },
);

test('one frame with a huge index is left out, and the rest goes on as if it had not been', () => {
  const clock = new StreamClock(50, 0);
  clock.arrive(0, 0, 10);
  const epoch = clock.epoch;
  expect(clock.arrive(200, 4_000_000_000, 1)).toEqual({
    kind: 'impossible',
    index: 4_000_000_000,
    seconds: 80_000_000,
  });
  expect(clock.next).toBe(10);
  expect(clock.epoch).toBe(epoch);
  expect(clock.arrive(400, 10, 10)).toEqual({ kind: 'fine' });
});

test('a stream that begins with a huge index is not believed', () =>
  expect(new StreamClock(50, 0).arrive(0, 1_000_000, 5).kind).toBe('impossible'));

test('the moment of reading 0 is the earliest that any arrival allows', () => {
  const clock = new StreamClock(50, 0);
  clock.arrive(1300, 0, 11);
  expect(clock.epoch).toBe(1100);
  clock.arrive(1405, 11, 10);
  expect(clock.epoch).toBe(1005);
  clock.arrive(1800, 21, 10);
});

describe('readings with times of their own', () => {
  const at = (...times: number[]) => Float64Array.from(times);

  test('are believed where they come as their clock says, also after a long silence', () => {
    const clock = new StreamClock(50, 0);
    let next = 0;
    for (const seconds of [3.2, 3.25, 47, 47.01, 600])
      expect(clock.arrive(seconds * 1000 + 15, next++, 1, at(seconds)).kind).toBe('fine');
    expect(clock.epoch).toBeCloseTo(15, 6);
  });

  test('that lie in the future are left out, and do not shift when the stream began', () => {
    const clock = new StreamClock(50, 0);
    clock.arrive(1000, 0, 1, at(0.99));
    expect(clock.arrive(1100, 1, 1, at(5000))).toEqual({ kind: 'impossible', index: 1, seconds: 5000 });
    expect(clock.epoch).toBeCloseTo(10, 6);
    expect(clock.next).toBe(1);
    expect(clock.arrive(1200, 1, 1, at(1.19)).kind).toBe('fine');
  });

  test('of a stream that begins in the future are not believed', () =>
    expect(new StreamClock(50, 0).arrive(20, 0, 1, at(1e9)).kind).toBe('impossible'));

  test.each([
    [2, 4],
    [1.1, 8],
    [0.8, 8],
  ])('of a clock that runs %p times as fast end the trust within %p s', (pace, within) => {
    const clock = new StreamClock(50, 0);
    let verdict: ClockVerdict = { kind: 'fine' };
    let seconds = 0;
    for (let i = 0; verdict.kind === 'fine' && i < 4000; i++) {
      seconds = i * 0.05;
      verdict = clock.arrive(seconds * 1000 + 3, i, 1, at(seconds * pace));
    }
    expect(seconds).toBeLessThan(within);
    expect(verdict.kind).toBe('wrong-pace');
    if (verdict.kind === 'wrong-pace') expect(verdict.pace).toBeCloseTo(pace, 6);
  });
});

describe('a clock that runs a little fast or slow', () => {
  const random = uniformRandom(9);
  test.each([[0.0002], [-0.0002], [0]])('by %p is followed, and its drift is known', (drift) => {
    const clock = new StreamClock(50, 0);
    let sent = 0;
    let now = 0;
    for (; now < 1_200_000; now += 20) {
      const due = Math.floor((now * 50 * (1 + drift)) / 1000) + 1;
      if (due > sent) clock.arrive(now + 1 + 15 * random(), sent, due - sent);
      sent = Math.max(due, sent);
    }
    // After 20 minutes the reading that is taken now has the index that the device's own clock says.
    const index = ((now - clock.epoch) * 50) / 1000;
    expect(Math.abs(index - (now * 50 * (1 + drift)) / 1000)).toBeLessThan(1.5);
    expect(clock.drift).not.toBeNull();
    expect(Math.abs((clock.drift ?? 1) - drift)).toBeLessThan(0.00003);
  });
});
