import { type Applied } from '@heuristor/contracts';
import { systematicOf } from './systematic';

const at = '2026-03-01T09:00:00.000Z';
const applied = (more: Partial<Applied>): Applied => ({
  scale: 1,
  offset: 0,
  range: 'only',
  zero: null,
  twoPoint: null,
  reversed: false,
  zeroedAtStart: false,
  numbers: {},
  ...more,
});
const of = (more: Partial<Applied>, runId = 'r1') =>
  systematicOf({ key: 'F', symbol: 'F', deviceCode: 'F-07', applied: applied(more) }, runId);

test('a zero moves all readings alike, in the unit in which they are shown, and is the same in all runs under it', () => {
  const zero = { offset: 0.2, spread: 0.003, uncertainty: 0.0004, at };
  const [first] = of({ scale: -1000, offset: 200, zero });
  expect(first).toMatchObject({ label: 'zero of F', offset: 0.4, perUnit: 0 });
  expect(of({ scale: -1000, offset: 200, zero }, 'r2')[0].root).toBe(first.root);
  expect(
    of({ scale: -1000, offset: 200, zero: { ...zero, at: '2026-03-02T09:00:00.000Z' } })[0].root,
  ).not.toBe(first.root);
  // Taken anew at the start of every run it is that run's own.
  expect(of({ zero, zeroedAtStart: true }, 'r1')[0].root).not.toBe(
    of({ zero, zeroedAtStart: true }, 'r2')[0].root,
  );
  expect(of({ zero: { offset: 0.2, spread: 0, at } })).toEqual([]);
});

// y = k₁ + g (s − r₁) with g = (k₂ − k₁)/(r₂ − r₁), moved by differences.
test('two points move a reading as moving what was read there would', () => {
  const [k1, k2, r1, r2, factor] = [0, 4.9, 0.1, 2.55, -1];
  const gainOf = (a: number, b: number) => (k2 - k1) / (b - a);
  const shown = (s: number, a: number, b: number) => factor * (k1 + gainOf(a, b) * (s - a));
  const gain = gainOf(r1, r2);
  const u = 1e-4;
  const offset = r1 - k1 / gain;
  const found = of({
    scale: factor * gain,
    offset: -factor * gain * offset,
    zero: { offset, spread: 0, at },
    twoPoint: {
      gain,
      points: [
        { read: r1, known: k1, uncertainty: u },
        { read: r2, known: k2, uncertainty: u },
      ],
      at,
    },
  });
  expect(found).toHaveLength(2);
  for (const s of [0.1, 1, 2.55, 4]) {
    const y = shown(s, r1, r2);
    const moved = [shown(s, r1 + u, r2) - y, shown(s, r1, r2 + u) - y];
    found.forEach(({ offset: constant, perUnit }, i) =>
      expect(Math.abs(constant + perUnit * y)).toBeCloseTo(Math.abs(moved[i]), 7),
    );
  }
});
