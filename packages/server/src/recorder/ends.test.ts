import { type Ending } from '@heuristor/contracts';
import { RecorderBench as Bench } from '../testing/recorderBench';
import { source, through, track } from '../testing/recorderParts';

// Runs that end by themselves. Everything is said by events with moments of their own; nothing waits.

describe('a run that ends at a level', () => {
  test('ends there, within a reading, and at the latest after its time', () => {
    const down: Ending = { kind: 'level', level: through(0.9), atMostSeconds: 10 };
    const bench = new Bench((t) => (t < 1 ? 0 : 0.25 * (t - 1) ** 2)).pass(0.5);
    bench.arm({ kind: 'level', level: through(0.005), keptSeconds: 0.1 }, down).pass(5);
    expect(bench.phase).toBe('ending');
    const last = bench.values.filter((value) => value < 0.9).at(-1) ?? 0;
    expect(last).toBeGreaterThan(0.88);
    expect(bench.values.filter((value) => value >= 0.9).length).toBeLessThanOrEqual(3);
    const never = new Bench(() => 0.1).pass(0.5);
    never.arm({ kind: 'at-once' }, { ...down, atMostSeconds: 3 }).pass(6);
    expect(never.phase).toBe('ending');
    expect(never.times.at(-1)).toBeCloseTo(3, 6);
  });

  test.each([1, 2, 3, 5, 40])(
    'ends with the first reading beyond, where %p readings come in a message',
    (together) => {
      const bench = new Bench((t) => 0.3 * t).pass(0.4, together);
      bench
        .arm({ kind: 'at-once' }, { kind: 'level', level: through(0.9), atMostSeconds: 10 })
        .pass(6, together);
      expect(bench.phase).toBe('ending');
      // 50 readings a second at 0.3 m/s: a reading every 6 mm, one of which is 0.9 m.
      expect(bench.values.at(-1)).toBeGreaterThanOrEqual(0.9 - 1e-9);
      expect(bench.values.at(-1)).toBeLessThan(0.9 + 0.006 + 1e-9);
    },
  );

  test('at what nothing brings is refused when it is armed, not when it has begun', () => {
    const end: Ending = { kind: 'level', level: through(1, { quantity: 'F', unit: 'N' }), atMostSeconds: 10 };
    const bench = new Bench((t) => Math.sin(t));
    expect(() => bench.arm({ kind: 'level', level: through(0), keptSeconds: 0 }, end)).toThrow(
      'The plan waits for “F”, and no sensor that sends measures it.',
    );
    expect(bench.phase).toBe('idle');
  });

  test('whose sensor has gone for good while the run waited begins all the same, and says so', () => {
    const force = source({ code: 'F1-F', stream: 7, tracks: [track('F')] });
    const bench = new Bench((t) => Math.sin(4 * t - 2), [source(), force]);
    bench.arm(
      { kind: 'level', level: through(0), keptSeconds: 0 },
      { kind: 'level', level: through(1, { quantity: 'F' }), atMostSeconds: 1 },
    );
    bench.tell({ kind: 'returned', code: 'F1-F', places: null, now: 1100 });
    bench.pass(3);
    expect(bench.phase).toBe('ending');
    expect(bench.run.notes).toEqual([
      'The quantity that was to end this run was no longer measured; the run ended in another way.',
    ]);
  });

  test('the crossing that began it does not end it: a period, from rise to rise', () => {
    const bench = new Bench((t) => Math.sin(4 * t + 2)).pass(0.5);
    bench
      .arm(
        { kind: 'level', level: through(0.2), keptSeconds: 0 },
        { kind: 'level', level: through(0.2), atMostSeconds: 30 },
      )
      .pass(6);
    expect(bench.phase).toBe('ending');
    expect(bench.run.endsAt).toBeCloseTo((2 * Math.PI) / 4, 3);
  });
});
