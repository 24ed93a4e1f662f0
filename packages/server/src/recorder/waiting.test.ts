import { normalRandom, uniformRandom } from '@heuristor/core';
import { RecorderBench as Bench } from '../testing/recorderBench';
import { source, through, track } from '../testing/recorderParts';
import { thresholdOf } from './conditions';
import { type RecorderEvent } from './state';
import { type Readings } from './track';
import { statusOf } from './status';
import { restless } from './stillness';

// Runs that begin by themselves. Everything is said by events with moments of their own; nothing waits.

describe('a run that begins at a level', () => {
  test('has its time zero where the motion crosses it, between two readings, and keeps the time before', () => {
    const bench = new Bench((t) => 0.1 * Math.sin(2 * Math.PI * 0.8 * t - 1)).pass(3);
    bench.arm({ kind: 'level', level: through(0), keptSeconds: 0.2 }).pass(6);
    expect(bench.phase).toBe('ending');
    expect(bench.times[0]).toBeGreaterThanOrEqual(-0.2);
    expect(bench.times[0]).toBeLessThan(-0.18);
    expect(bench.times.at(-1)).toBeLessThanOrEqual(2);
    expect(bench.times.at(-1)).toBeGreaterThan(1.98);
    // The swing as it is when it rises through 0 at time zero: interpolated to a hundredth of a reading.
    bench.values.forEach((value, i) =>
      expect(value).toBeCloseTo(0.1 * Math.sin(2 * Math.PI * 0.8 * bench.times[i]), 4),
    );
  });

  test('fifty runs of one swing, armed at any moment, lie over each other within a tenth of a reading', () => {
    const random = uniformRandom(7);
    const noise = normalRandom(8);
    let worst = 0;
    for (let i = 0; i < 50; i++) {
      const phase = 2 * Math.PI * random();
      const bench = new Bench((t) => 0.1 * Math.sin(5 * t + phase) + 0.0003 * noise()).pass(2 + random());
      bench.arm({ kind: 'level', level: through(0.03), keptSeconds: 0.1 }).pass(5);
      expect(bench.phase).toBe('ending');
      // What the true motion's phase is at time zero tells how far off the beginning is.
      const { origin } = bench.run;
      const seconds = (origin - 1000) / 1000;
      const true0 = Math.asin(0.3);
      const off = ((5 * seconds + phase - true0 + Math.PI) % (2 * Math.PI)) - Math.PI;
      worst = Math.max(worst, Math.abs(off / 5) * 50);
    }
    expect(worst).toBeLessThan(0.1);
  });

  test('waits for a fall where a fall is wanted, and for it to come from the other side', () => {
    // Already below when it is armed: it has to rise and fall again.
    const bench = new Bench((t) => Math.cos(t)).pass(3);
    bench.arm({ kind: 'level', level: through(0, { direction: 'fall' }), keptSeconds: 0 }).pass(4.5);
    expect(bench.phase).toBe('waiting');
    bench.pass(1);
    expect(bench.phase).toBe('recording');
    expect((bench.run.origin - 1000) / 1000).toBeCloseTo(Math.PI * 2.5, 3);
  });

  test('does not begin with a lone wrong echo, nor with readings at the limit', () => {
    const bench = new Bench((t) => (Math.abs(t - 2) < 0.005 ? 3 : Math.abs(t - 4) < 0.3 ? 6 : 0.5)).pass(1);
    bench.arm({ kind: 'level', level: through(1), keptSeconds: 0 }).pass(6);
    expect(bench.phase).toBe('waiting');
  });

  test('does not begin where a target rests just at the level, however long; a motion of 3 mm through it does', () => {
    const noise = normalRandom(4);
    const bench = new Bench((t) => 0.6 + (t > 100 ? 0.003 * Math.sin(6 * t) : 0) + 0.0003 * noise()).pass(1);
    bench.arm({ kind: 'level', level: through(0.6), keptSeconds: 0 }).pass(98);
    expect(bench.phase).toBe('waiting');
    bench.pass(4);
    expect(bench.phase).not.toBe('waiting');
  });

  test('by speed: a cart that is let go has begun when it moves at 0.1 m/s', () => {
    const bench = new Bench((t) => (t < 2 ? 0 : 0.25 * (t - 2) ** 2)).pass(1);
    bench
      .arm({ kind: 'level', level: through(10, { of: 'speed', unit: 'cm.s-1' }), keptSeconds: 0.5 })
      .pass(4);
    expect((bench.run.origin - 1000) / 1000).toBeCloseTo(2.2, 2);
    expect(bench.times[0]).toBeCloseTo(-0.5, 1);
  });

  test('can be begun by hand, or cancelled', () => {
    const bench = new Bench(() => 0.5).pass(1);
    bench.arm({ kind: 'level', level: through(1), keptSeconds: 0 }).pass(1);
    bench.tell({ kind: 'begin', now: 1000 + bench.seconds * 1000 });
    expect(bench.pass(3).phase).toBe('ending');
    expect(bench.times[0]).toBe(0);
    const other = new Bench(() => 0.5).pass(1);
    other.arm({ kind: 'level', level: through(1), keptSeconds: 0 });
    other.tell({ kind: 'stop', now: 2000 });
    expect(other.phase).toBe('idle');
  });

  test('no more is kept from before than there is', () => {
    const bench = new Bench((t) => t).pass(0.1);
    bench.arm({ kind: 'level', level: through(0.3), keptSeconds: 5 }).pass(4);
    expect(bench.times[0]).toBeCloseTo(-0.3, 6);
    expect(bench.values[0]).toBe(0);
  });

  test('a device that goes away and comes back while it waits is waited for', () => {
    const bench = new Bench((t) => t).pass(0.2);
    bench.arm({ kind: 'level', level: through(5), keptSeconds: 0 }).pass(0.2);
    bench.tell({ kind: 'left', code: 'K7-D', sendsAgain: false, now: 1500 });
    bench.tell({
      kind: 'returned',
      code: 'K7-D',
      places: { x: { stream: 9, channel: 0, isWhole: false } },
      now: 2500,
    });
    const fresh = (firstIndex: number, values: number[]): RecorderEvent => ({
      kind: 'readings',
      code: 'K7-D',
      stream: 9,
      epoch: 3000,
      firstIndex,
      channels: 1,
      values: Float64Array.from(values),
      times: null,
    });
    bench.tell(fresh(0, [4, 4.5, 5.5, 5.7]));
    expect(bench.phase).toBe('recording');
    expect(bench.run.origin).toBeCloseTo(3030, 6);
  });
});

describe('a device that is away when a run begins', () => {
  const away = () => {
    const bench = new Bench((t) => t).pass(1);
    bench.arm({ kind: 'countdown', seconds: 3 });
    bench.tell({ kind: 'left', code: 'K7-D', sendsAgain: false, now: 2500 });
    return bench;
  };

  test('is missing from its beginning, which is marked, and takes part from its return on', () => {
    const bench = away();
    bench.tell({ kind: 'tick', now: 5100 });
    expect(bench.phase).toBe('recording');
    bench.tell({
      kind: 'returned',
      code: 'K7-D',
      places: { x: { stream: 9, channel: 0, isWhole: false } },
      now: 5700,
    });
    const values = Float64Array.from({ length: 100 }, (_, i) => i);
    bench.send({
      kind: 'readings',
      code: 'K7-D',
      stream: 9,
      epoch: 5800,
      firstIndex: 0,
      channels: 1,
      values,
      times: null,
    });
    expect(bench.times.at(-bench.values.length)).toBeCloseTo(0, 1);
    const first = bench.values.findIndex((value) => value === 0);
    // The run began at 5000 ms; the device's first reading is of 5800 ms.
    expect(bench.times[first]).toBeCloseTo(0.8, 6);
    expect(bench.run.gaps).toMatchObject([{ channel: 'x', from: 0 }]);
    expect(bench.run.gaps[0].to).toBeCloseTo(0.8, 1);
    expect(bench.phase).toBe('ending');
  });

  test('and never comes back is missing from beginning to end', () => {
    const bench = away();
    for (let now = 5100; now < 9000; now += 100) bench.tell({ kind: 'tick', now });
    expect(bench.phase).toBe('ending');
    expect(bench.run.gaps).toEqual([{ channel: 'x', from: 0, to: 2 }]);
  });

  test('but came back just before, lies where its own clock says', () => {
    const bench = away();
    bench.tell({
      kind: 'returned',
      code: 'K7-D',
      places: { x: { stream: 9, channel: 0, isWhole: false } },
      now: 4990,
    });
    bench.tell({ kind: 'tick', now: 5100 });
    bench.send({
      kind: 'readings',
      code: 'K7-D',
      stream: 9,
      epoch: 5060,
      firstIndex: 0,
      channels: 1,
      values: Float64Array.from({ length: 150 }, (_, i) => i),
      times: null,
    });
    const first = bench.values.findIndex((value) => value === 0);
    expect(bench.times[first]).toBeCloseTo(0.06, 6);
    expect(bench.phase).toBe('ending');
  });
});

describe('a run that begins after a countdown', () => {
  test('begins when it has run down, and loses nothing to the moment at which that is noticed', () => {
    const bench = new Bench((t) => t).pass(1);
    bench.arm({ kind: 'countdown', seconds: 3 }).pass(2.9);
    expect(bench.phase).toBe('waiting');
    bench.pass(3);
    expect(bench.phase).toBe('ending');
    expect(bench.times[0]).toBeCloseTo(0, 6);
    expect(bench.values[0]).toBeCloseTo(4, 6);
  });
});

describe('something that switches', () => {
  const gate = source({ code: 'G1-A', sampling: 'events', tracks: [track('s')], rate: 1 });
  const edges = (times: number[], states: number[]): Readings => ({
    kind: 'readings',
    code: 'G1-A',
    stream: 1,
    epoch: 1000,
    firstIndex: 0,
    channels: 1,
    values: Float64Array.from(states),
    times: Float64Array.from(times),
  });

  test('begins a run with its edge as time zero, and ends it after so many', () => {
    const bench = new Bench((t) => t, [source(), gate]).pass(1);
    bench.arm(
      { kind: 'switch', quantity: 's', to: 'on', keptSeconds: 0.1 },
      { kind: 'events', quantity: 's', count: 2, atMostSeconds: 30 },
    );
    bench.send(edges([0.5, 0.6], [1, 0]));
    expect(bench.phase).toBe('waiting');
    bench.send(edges([1.25, 1.3], [1, 0]));
    expect(bench.phase).toBe('recording');
    expect(bench.run.origin).toBe(2250);
    bench.pass(1);
    bench.send(edges([1.9, 1.95, 2.1], [0, 1, 0]));
    expect(bench.run.endsAt).toBeLessThan(0.71);
  });
});

describe('zero at the start of every run', () => {
  const zeroing = () =>
    source({
      tracks: [
        track('x', {
          still: restless(0.0003, -6, 6),
          fields: {
            ...track('x').fields,
            applied: {
              scale: 1,
              offset: 0,
              range: 'only',
              zero: null,
              twoPoint: null,
              reversed: false,
              zeroedAtStart: true,
              numbers: {},
            },
          },
        }),
      ],
    });

  test('is where it rested last before it began, not where it lay when it was armed', () => {
    const noise = normalRandom(3);
    // It lies at the foot, is carried up, held, and let go.
    const bench = new Bench(
      (t) =>
        (t < 2 ? 1.9 : t < 3 ? 1.9 - 1.6 * (t - 2) : t < 5 ? 0.3 : 0.3 + 0.25 * (t - 5) ** 2) +
        0.0003 * noise(),
      [zeroing()],
    ).pass(1);
    bench.arm({ kind: 'level', level: through(0.005), keptSeconds: 0.2 });
    const told = Array.from({ length: 70 }, () => {
      const status = statusOf(bench.pass(0.1).state, 1, 0);
      return status.phase === 'waiting' && status.for.kind === 'level'
        ? Number((status.for.rest ?? NaN).toFixed(3))
        : null;
    });
    expect(bench.phase).toBe('ending');
    const before = bench.values.filter((_, i) => bench.times[i] < -0.15);
    for (const value of before) expect(Math.abs(value)).toBeLessThan(0.002);
    // While it waited, the screens were told where its zero would be.
    expect(told).toContain(0.3);
    // 0.25 t² reaches 5 mm after 0.141 s.
    expect((bench.run.origin - 1000) / 1000).toBeCloseTo(5.141, 1);
    const applied = bench.run.tracks[0].fields.applied;
    expect(applied?.zero?.offset).toBeCloseTo(0.3, 3);
    expect(bench.run.tracks[0].fields.high).toBeCloseTo(5.7, 3);
  });

  test('a level near zero is within the reach of a sensor that sees from 0.15 m on', () => {
    const [near] = zeroing().tracks;
    const fields = { ...near.fields, low: 0.15 };
    const at = (rest: number | null) => ({
      ...near,
      fields,
      still: {
        ...restless(0.0003, 0.15, 6),
        rest: rest === null ? null : { offset: rest, spread: 0, uncertainty: 0 },
      },
    });
    const reach = (rest: number | null) =>
      thresholdOf(through(0.005), [source({ tracks: [at(rest)] })]).value;
    expect(reach(0.3)).toBe(0.005);
    expect(reach(null)).toBe(0.005);
    expect(() => thresholdOf(through(-0.2), [source({ tracks: [at(0.3)] })])).toThrow('never reaches −0.2 m');
  });

  test('what never rested says so', () => {
    const bench = new Bench((t) => Math.sin(5 * t), [zeroing()]).pass(1);
    bench.arm({ kind: 'level', level: through(0.5), keptSeconds: 0 }).pass(4);
    expect(bench.run.notes[0]).toContain('x did not rest before this run');
  });
});
