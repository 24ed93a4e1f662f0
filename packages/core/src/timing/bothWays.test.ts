import { normalRandom } from '../random';
import { bothWays } from './bothWays';

// A cart that is pushed along a track, stops at a buffer, and is pushed back: known accelerations, by the equations of uniform
// acceleration (any textbook).

const rate = 50;
const friction = 0.03;

function pushed(tilt: number, noise: number, seed: number) {
  const random = normalRandom(seed);
  const times: number[] = [];
  const positions: number[] = [];
  for (let i = 0; i < rate * 9; i++) {
    const t = i / rate;
    const u = t < 1 ? 0 : Math.min(t - 1, 3);
    const w = t < 5 ? 0 : Math.min(t - 5, 3);
    const forth = 0.6 * u + ((tilt - friction) / 2) * u * u;
    const back = -0.6 * w + ((tilt + friction) / 2) * w * w;
    times.push(t);
    positions.push(0.2 + forth + back + noise * random());
  }
  return bothWays(Float64Array.from(times), Float64Array.from(positions));
}

test.each([-0.05, 0, 0.08])('the slope of a track is told from friction, with a tilt of %f', (tilt) => {
  const found = pushed(tilt, 0, 1);
  expect(found?.along).toBeCloseTo(tilt, 6);
  expect(found?.forth).toBeCloseTo(tilt - friction, 6);
  expect(found?.back).toBeCloseTo(tilt + friction, 6);
});

test('± holds the truth in about two of three runs', () => {
  let held = 0;
  for (let i = 0; i < 300; i++) {
    const found = pushed(0.01, 0.0005, i + 1);
    if (found !== null && Math.abs(found.along - 0.01) <= found.uncertainty) held++;
  }
  expect(held / 300).toBeGreaterThan(0.6);
  expect(held / 300).toBeLessThan(0.76);
});

test('what ran only one way, rested, or has hardly any readings, tells nothing', () => {
  const times = Float64Array.from({ length: 200 }, (_, i) => i / 50);
  expect(
    bothWays(
      times,
      times.map((t) => 0.3 * t),
    ),
  ).toBeNull();
  expect(
    bothWays(
      times,
      times.map(() => 1e9),
    ),
  ).toBeNull();
  expect(
    bothWays(
      times,
      times.map(() => NaN),
    ),
  ).toBeNull();
  expect(bothWays(times.subarray(0, 3), times.subarray(0, 3))).toBeNull();
});
