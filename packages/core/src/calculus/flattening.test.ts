import { normalRandom } from '../random';
import { positionSeries } from '../testing/series';
import { derivative } from './derivative';
import { flatteningIn, responseAt } from './flattening';

test('the response of the filter is what it does to a pure swing', () => {
  for (const windowPoints of [5, 9, 15]) {
    const omega = 2 * Math.PI * 2.2;
    const series = positionSeries(400, 0.02, (t) => Math.sin(omega * t));
    const v = derivative(series, { symbol: 'v', windowPoints });
    const response = responseAt({ symbol: 'v', windowPoints, degree: 2, order: 1 }, omega * 0.02);
    for (let i = 50; i < 60; i++)
      expect(v.values[i]).toBeCloseTo(response * omega * Math.cos(omega * i * 0.02), 9);
  }
});

test.each([
  [0.3, 9],
  [0.5, 9],
  [1.2, 15],
])(
  'a swing of %p s under a window of %p readings: what is lost is said within a tenth of it',
  (period, windowPoints) => {
    const normal = normalRandom(2);
    const omega = (2 * Math.PI) / period;
    const series = positionSeries(400, 0.02, (t) => 0.04 * Math.sin(omega * t) + 0.0003 * normal());
    const v = derivative(series, { symbol: 'v', windowPoints });
    const lost = 1 - responseAt({ symbol: 'v', windowPoints, degree: 2, order: 1 }, omega * 0.02);
    const found = flatteningIn(v, 1, 7);
    expect(found?.lost).toBeGreaterThan(0.9 * lost);
    expect(found?.lost).toBeLessThan(1.1 * lost);
    const harmless = found?.harmless() ?? null;
    if (harmless !== null) {
      const step = { symbol: 'v', degree: 2, order: 1 };
      expect(1 - responseAt({ ...step, windowPoints: harmless }, omega * 0.02)).toBeLessThan(0.011);
    }
  },
);

test('a few missing readings hide nothing, many do', () => {
  const motion = (t: number) => 0.04 * Math.sin((2 * Math.PI * t) / 0.5);
  const lostWithout = (missing: readonly number[]) => {
    const series = positionSeries(400, 0.02, (t) =>
      missing.includes(Math.round(t / 0.02)) ? NaN : motion(t),
    );
    return flatteningIn(derivative(series, { symbol: 'v', windowPoints: 9 }), 0, 8)?.lost;
  };
  const whole = lostWithout([]) ?? 0;
  expect(whole).toBeGreaterThan(0.05);
  expect((lostWithout([0, 50, 51, 300, 399]) ?? 0) / whole).toBeCloseTo(1, 1);
  expect(lostWithout(Array.from({ length: 100 }, (_, i) => 100 + i))).toBeUndefined();
});

test('a cart that runs down evenly loses nothing, whatever the window', () => {
  const normal = normalRandom(6);
  const series = positionSeries(150, 0.02, (t) => 0.3 + 0.46 * t * t + 0.0003 * normal());
  expect(flatteningIn(derivative(series, { symbol: 'v', windowPoints: 15 }), 0.5, 2.5)?.lost).toBeLessThan(
    0.01,
  );
});
