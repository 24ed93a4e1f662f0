import { normalRandom } from '../random';
import { periods } from './bob';
import { counting } from './counting';
import { type Edge, blockingsOf, mergedEdges } from './edges';
import { fence } from './fence';
import { flagSpeeds } from './flag';
import { pairs } from './pair';
import { type EdgesOf, type Timed } from './passage';
import { wheel } from './wheel';

/** Edges of one beam from the moments at which it was blocked and became clear, in turn. */
const edgesAt = (...moments: number[]): Edge[] =>
  moments.map((time, i) => ({ time, beam: 0, blocked: i % 2 === 0 }));

const given = (edges: Edge[], length = 1): EdgesOf => ({ edges, length, second: 1 });

describe('worked by hand', () => {
  test('a flag of 25.0 mm that blocks the beam for 8.00 ms goes at 3.125 m/s', () => {
    // v = 0.0250 m / 0.00800 s = 3.125 m/s, at (0.400 00 + 0.408 00)/2 s = 0.404 00 s.
    const { values, times } = flagSpeeds(given(edgesAt(0.4, 0.408), 0.025));
    expect(values[0]).toBeCloseTo(3.125, 10);
    expect(times[0]).toBeCloseTo(0.404, 12);
  });

  test('a fence of 5 cm that comes at 0, 50, 90 and 124 ms goes at 1.000, 1.250 and 1.471 m/s', () => {
    // 0.05/0.050 = 1.000 at 0.025 s; 0.05/0.040 = 1.250 at 0.070 s; 0.05/0.034 = 1.470 588 at 0.107 s.
    const edges = edgesAt(0, 0.02, 0.05, 0.07, 0.09, 0.107, 0.124, 0.14);
    const { values, times } = fence(given(edges, 0.05), 'velocity');
    [1, 1.25, 1.470588].forEach((v, i) => expect(values[i]).toBeCloseTo(v, 6));
    [0.025, 0.07, 0.107].forEach((t, i) => expect(times[i]).toBeCloseTo(t, 12));
    // (1.250 − 1.000)/(0.070 − 0.025) = 5.5556 m/s²; (1.470 588 − 1.25)/(0.107 − 0.070) = 5.961 84 m/s².
    const a = fence(given(edges, 0.05), 'acceleration').values;
    expect(a[0]).toBeCloseTo(5.555556, 5);
    expect(a[1]).toBeCloseTo(5.961844, 5);
    expect(fence(given(edges, 0.05), 'position').values.map((x) => Number(x.toFixed(9)))).toEqual([
      0, 0.05, 0.1, 0.15,
    ]);
  });

  test('a flag of 30 mm through two beams: 0.6 and 1.0 m/s, 0.5 s between, 0.8 m/s²', () => {
    // 0.03/0.05 = 0.6 m/s at 1.025 s; 0.03/0.03 = 1.0 m/s at 1.525 s; (1.0 − 0.6)/0.5 = 0.8 m/s².
    const edges: Edge[] = [
      { time: 1.0, beam: 0, blocked: true },
      { time: 1.05, beam: 0, blocked: false },
      { time: 1.51, beam: 1, blocked: true },
      { time: 1.54, beam: 1, blocked: false },
    ];
    const of = given(edges, 0.03);
    expect(pairs(of, 2, 'first').values[0]).toBeCloseTo(0.6, 10);
    expect(pairs(of, 2, 'second').values[0]).toBeCloseTo(1, 10);
    expect(pairs(of, 2, 'between').values[0]).toBeCloseTo(0.5, 12);
    expect(pairs(of, 2, 'acceleration').values[0]).toBeCloseTo(0.8, 10);
  });

  test('a bob that blocks at 0.10, 1.11, 2.10 and 3.11 s has a period of 2.00 s', () => {
    // Blocked for 0.02 s each; from the first to the third 2.00 s, from the third to the fifth 2.00 s.
    const edges = edgesAt(0.1, 0.12, 1.11, 1.13, 2.1, 2.12, 3.11, 3.13, 4.1, 4.12);
    const { values, times } = periods(given(edges));
    expect(values).toHaveLength(2);
    values.forEach((period) => expect(period).toBeCloseTo(2, 12));
    expect(times[0]).toBeCloseTo(1.12, 12);
  });

  test('a wheel with ten spokes, 0.1 s from one to the next, turns with 2π rad/s', () => {
    const edges = edgesAt(0, 0.05, 0.1, 0.15, 0.2, 0.25);
    wheel(given(edges), 10, 'angularSpeed').values.forEach((w) => expect(w).toBeCloseTo(2 * Math.PI, 10));
    expect(wheel(given(edges), 10, 'angle').values[2]).toBeCloseTo(0.4 * Math.PI, 12);
  });

  test('what passes is counted, with the time since the one before and the time in the beam', () => {
    const of = given(edgesAt(0.5, 0.6, 1.25, 1.3));
    expect(counting(of, 'count').values).toEqual([1, 2]);
    expect(counting(of, 'interval').values[0]).toBeCloseTo(0.75, 12);
    expect(counting(of, 'duration').values[1]).toBeCloseTo(0.05, 12);
  });
});

describe('against exact kinematics', () => {
  /** When something that starts at rest and falls has gone a way. */
  const g = 9.81;
  const fallTime = (way: number) => Math.sqrt((2 * way) / g);

  test('a fence in free fall: position, velocity and acceleration are exact', () => {
    const spacing = 0.05;
    const moments = Array.from({ length: 8 }, (_, k) => [
      fallTime(0.02 + k * spacing),
      fallTime(0.02 + k * spacing + 0.025),
    ]).flat();
    const of = given(edgesAt(...moments), spacing);
    const velocity = fence(of, 'velocity');
    velocity.values.forEach((v, i) => expect(v).toBeCloseTo(g * velocity.times[i], 9));
    fence(of, 'acceleration').values.forEach((a) => expect(a).toBeCloseTo(g, 7));
    const position = fence(of, 'position');
    position.values.forEach((x, i) => expect(x + 0.02).toBeCloseTo((g * position.times[i] ** 2) / 2, 9));
  });

  test('a flag on a slope, through two beams: speeds at the middles of the times, and the acceleration, are exact', () => {
    const [a, length] = [0.51, 0.03];
    const when = (way: number) => Math.sqrt((2 * way) / a);
    const edges: Edge[] = [0.2, 0.45].flatMap((at, beam) => [
      { time: when(at), beam, blocked: true },
      { time: when(at + length), beam, blocked: false },
    ]);
    const of = given(edges, length);
    const first = pairs(of, 2, 'first');
    expect(first.values[0]).toBeCloseTo(a * first.times[0], 10);
    expect(pairs(of, 2, 'acceleration').values[0]).toBeCloseTo(a, 9);
  });

  test('two drops of a fence in one run are two passes', () => {
    const drop = (from: number) =>
      Array.from({ length: 6 }, (_, k) => [
        from + fallTime(0.02 + k * 0.05),
        from + fallTime(0.045 + k * 0.05),
      ]).flat();
    const { values, times } = fence(given(edgesAt(...drop(0), ...drop(4)), 0.05), 'velocity');
    expect(values).toHaveLength(10);
    values.forEach((v, i) => expect(v).toBeCloseTo(g * (times[i] - (i < 5 ? 0 : 4)), 8));
  });
});

describe('what is no pass', () => {
  test('a beam that was blocked when the run began is told, and the next pass counts', () => {
    const edges: Edge[] = [{ time: 0.2, beam: 0, blocked: false }, ...edgesAt(1, 1.01)];
    const { values, leftOut } = flagSpeeds(given(edges, 0.02));
    expect(values).toHaveLength(1);
    expect(leftOut).toEqual([{ time: 0.2, reason: 'the beam was blocked when the run began' }]);
  });

  test('a flag that still stands in the beam is no pass yet', () => {
    const { values, leftOut } = flagSpeeds(given(edgesAt(1, 1.01, 2), 0.02));
    expect([values.length, leftOut.length]).toEqual([1, 0]);
  });

  test.each([
    ['a beam that opens for a moment', [1, 1.05, 1.0501, 1.12]],
    ['a rim that is not clean', [1, 1.2, 1.205, 1.3]],
    ['a glint', [1, 1.0001]],
  ])('%s has flickered: one pass, left out', (_what, moments) => {
    const { values, leftOut } = flagSpeeds(given(edgesAt(...moments, 2, 2.01), 0.02));
    expect(values).toHaveLength(1);
    expect(leftOut.map(({ reason }) => reason)).toEqual(['the beam flickered']);
  });

  test('an edge that was lost costs that pass alone', () => {
    const edges = [...edgesAt(1), ...edgesAt(2, 2.01)];
    const { values, leftOut } = flagSpeeds(given(edges, 0.02));
    expect(values).toHaveLength(1);
    expect(leftOut[0].reason).toBe('its end was not seen');
  });

  test('a flag whose partner flickered stays alone, and those that follow are paired as they belong', () => {
    const cart = (at: number, flickers = false) => [
      ...edgesAt(...(flickers ? [at, at + 0.05, at + 0.0501, at + 0.1] : [at, at + 0.1])),
      ...edgesAt(at + 0.5, at + 0.6),
    ];
    const { values, leftOut } = pairs(given([...cart(1, true), ...cart(4), ...cart(7)], 0.02), 1, 'between');
    expect(values).toHaveLength(2);
    for (const value of values) expect(value).toBeCloseTo(0.5, 12);
    expect(leftOut.map(({ reason }) => reason)).toEqual([
      'the beam flickered',
      'the other pass of its pair does not count',
    ]);
  });

  test('of two beams one flickered: its partner is not paired with the next cart', () => {
    const through = (at: number, beam: number, moments: number[]) =>
      edgesAt(...moments.map((moment) => at + moment)).map((edge) => ({ ...edge, beam }));
    const edges = [
      ...through(1, 0, [0, 0.05, 0.0501, 0.1]),
      ...through(2, 1, [0, 0.1]),
      ...through(5, 0, [0, 0.1]),
      ...through(5.8, 1, [0, 0.1]),
    ];
    const { values, times, leftOut } = pairs(given(edges, 0.02), 2, 'between');
    expect(values).toHaveLength(1);
    expect(values[0]).toBeCloseTo(0.8, 12);
    expect(times[0]).toBeCloseTo(5.85, 12);
    expect(leftOut.map(({ reason }) => reason)).toEqual([
      'the beam flickered',
      'the other pass of its pair does not count',
    ]);
  });

  test('a fence of which one bar flickered is left out: its other bars are not one spacing apart', () => {
    const bars = [0, 0.05, 0.09, 0.124, 0.155].flatMap((at, k) =>
      edgesAt(...(k === 2 ? [at, at + 0.006, at + 0.0061, at + 0.012] : [at, at + 0.012])),
    );
    const whole = [2, 2.05, 2.09].flatMap((at) => edgesAt(at, at + 0.012));
    const { values, leftOut } = fence(given([...bars, ...whole], 0.05), 'velocity');
    expect(values.map((value) => Number(value.toFixed(6)))).toEqual([1, 1.25]);
    expect(leftOut.map(({ reason }) => reason)).toEqual([
      'one of its bars does not count',
      'the beam flickered',
    ]);
  });

  test('a wheel goes on turning while a spoke does not count, and what is counted has no interval across it', () => {
    const spokes = [0, 1, 2, 3, 4].flatMap((k) =>
      edgesAt(...(k === 2 ? [k, k + 0.2, k + 0.2001, k + 0.4] : [k, k + 0.4])),
    );
    const turn = (2 * Math.PI) / 10;
    const close = (values: readonly number[], expected: number[]) => {
      expect(values).toHaveLength(expected.length);
      values.forEach((value, i) => expect(value).toBeCloseTo(expected[i], 12));
    };
    close(wheel(given(spokes, 1), 10, 'angle').values, [0, turn, 3 * turn, 4 * turn]);
    close(wheel(given(spokes, 1), 10, 'angularSpeed').values, [turn, turn, turn]);
    close(counting(given(spokes, 1), 'interval').values, [1, 1]);
  });

  test('a cart that turns back before the second beam has passed only one', () => {
    const edges: Edge[] = [
      { time: 1, beam: 0, blocked: true },
      { time: 1.1, beam: 0, blocked: false },
      { time: 2, beam: 0, blocked: true },
      { time: 2.1, beam: 0, blocked: false },
      { time: 3, beam: 1, blocked: true },
      { time: 3.05, beam: 1, blocked: false },
    ];
    const { values, leftOut } = pairs(given(edges, 0.03), 2, 'between');
    expect(values).toHaveLength(1);
    expect(values[0]).toBeCloseTo(0.975, 12);
    expect(leftOut).toEqual([{ time: 1.05, reason: 'it passed only one of the beams' }]);
  });

  test('a bob that misses the beam once does not spoil the other periods', () => {
    const passes = Array.from({ length: 12 }, (_, k) => k).filter((k) => k !== 5);
    const { values, leftOut } = periods(given(edgesAt(...passes.flatMap((k) => [k, k + 0.02]))));
    values.forEach((period) => expect(period).toBeCloseTo(2, 10));
    expect(values.length).toBeGreaterThanOrEqual(4);
    expect(leftOut.length).toBeGreaterThan(0);
  });

  test('a single bar is no fence', () => {
    expect(fence(given(edgesAt(1, 1.02), 0.05), 'velocity').leftOut[0].reason).toBe('only one bar passed');
  });

  test('a state that is neither is refused, with the edge that has it', () => {
    expect(() => mergedEdges([{ times: Float64Array.of(1, 2), states: [1, 3] }])).toThrow(
      'Edge 2 of a beam says 3',
    );
  });
});

describe('what the timer and the length do', () => {
  const scatterOf = (values: readonly number[]) => {
    const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
    return Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (values.length - 1));
  };
  const told = ({ byEdge }: Timed, i: number, step: number) =>
    step * Math.sqrt(byEdge[i].reduce((sum, { weight }) => sum + weight ** 2, 0));

  const falling = Array.from({ length: 6 }, (_, k) => [
    0.3 + 0.04 * k - 0.002 * k * k,
    0.32 + 0.04 * k - 0.002 * k * k,
  ]).flat();
  const both: Edge[] = [
    { time: 1.0, beam: 0, blocked: true },
    { time: 1.05, beam: 0, blocked: false },
    { time: 1.51, beam: 1, blocked: true },
    { time: 1.54, beam: 1, blocked: false },
  ];
  const cases: [string, Edge[], (of: EdgesOf) => Timed][] = [
    ['speed of a flag', edgesAt(1, 1.008), flagSpeeds],
    ['velocity of a fence', edgesAt(...falling), (of) => fence(of, 'velocity')],
    ['acceleration of a fence', edgesAt(...falling), (of) => fence(of, 'acceleration')],
    ['time between two beams', both, (of) => pairs(of, 2, 'between')],
    ['acceleration between two beams', both, (of) => pairs(of, 2, 'acceleration')],
    ['period', edgesAt(0, 0.02, 1, 1.02, 2, 2.02), periods],
    ['angular speed', edgesAt(0, 0.05, 0.1, 0.15), (of) => wheel(of, 10, 'angularSpeed')],
    ['interval', edgesAt(0, 0.05, 0.1, 0.15), (of) => counting(of, 'interval')],
  ];
  test.each(cases)('the %s scatters as much as is told, by simulation', (_what, edges, work) => {
    const normal = normalRandom(7);
    const step = 1e-5;
    const exact = work(given(edges, 0.03));
    const tries = Array.from(
      { length: 4000 },
      () =>
        work(
          given(
            edges.map((edge) => ({ ...edge, time: edge.time + step * normal() })),
            0.03,
          ),
        ).values,
    );
    exact.values.forEach((_value, i) => {
      const ratio = scatterOf(tries.map((values) => values[i])) / told(exact, i, step);
      expect(ratio).toBeGreaterThan(0.95);
      expect(ratio).toBeLessThan(1.05);
    });
  });

  test.each(cases)('the %s moves with the length as is stated', (_what, edges, work) => {
    const h = 1e-6;
    const [low, high] = [work(given(edges, 0.03 - h)), work(given(edges, 0.03 + h))];
    work(given(edges, 0.03)).byLength.forEach((derivative, i) =>
      expect((high.values[i] - low.values[i]) / (2 * h)).toBeCloseTo(derivative, 4),
    );
  });
});

test('blockings are found in hours of edges at once', () => {
  const edges = edgesAt(...Array.from({ length: 100_000 }, (_, i) => i * 0.01));
  expect(blockingsOf(edges, 1).blockings).toHaveLength(50_000);
});
