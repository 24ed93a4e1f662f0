import { simulate } from '../simulate';
import { doing, letGo, set, truth } from '../testing/perfect';
import { gravity } from './apparatus';
import { ball } from './ball';
import { beacon } from './beacon';
import { bell } from './bell';
import { cord } from './cord';
import { fallingMagnet } from './fallingMagnet';
import { lamp } from './lamp';
import { mooring } from './mooring';
import { rail } from './rail';
import { reed } from './reed';
import { ringing } from './ringing';
import { trolley } from './trolley';
import { weather } from './weather';
import { wheel } from './wheel';

// Each apparatus against the closed form that textbooks give for it.

/** Times at which values rise through 0, interpolated. */
function rises(values: readonly number[], rate: number): number[] {
  const found: number[] = [];
  for (let i = 1; i < values.length; i++)
    if (values[i - 1] < 0 && values[i] >= 0)
      found.push((i - 1 + values[i - 1] / (values[i - 1] - values[i])) / rate);
  return found;
}

/** Complete elliptic integral of the first kind by the arithmetic-geometric mean (Abramowitz and Stegun, 17.6). */
function elliptic(modulus: number): number {
  let [a, b] = [1, Math.sqrt(1 - modulus * modulus)];
  while (Math.abs(a - b) > 1e-15) [a, b] = [(a + b) / 2, Math.sqrt(a * b)];
  return Math.PI / (2 * a);
}

test.each([10, 45, 90, 150])(
  'the bell pulled aside by %p° swings with the period of the elliptic integral',
  (degrees) => {
    const rig = bell();
    set(rig, 'amplitude', degrees);
    set(rig, 'damping', 0);
    rig.apparatus.control(doing('pull'));
    const found = rises(truth(rig, 'angle', { rate: 200, count: 4000 }, [[0, letGo]]), 200);
    const period = 4 * Math.sqrt(0.6 / gravity) * elliptic(Math.sin((degrees * Math.PI) / 360));
    const measured = (found[found.length - 1] - found[0]) / (found.length - 1);
    expect(Math.abs(measured / period - 1)).toBeLessThan(1e-5);
  },
);

test('a weight pulls the boat with (M g − μ m g)/(m + M); the string pulls with M g at rest and M (g − a) on the way', () => {
  const rig = trolley();
  const [boat, hanging, friction] = [0.45, 0.05, 0.004];
  const a = (hanging * gravity - friction * boat * gravity) / (boat + hanging);
  const way = truth(rig, 'position', { rate: 100, count: 120 }, [[0.3, letGo]]);
  for (let i = 35; i < 90; i++) expect(way[i]).toBeCloseTo((a * (i / 100 - 0.3) ** 2) / 2, 4);
  const pull = truth(trolley(), 'pull', { rate: 100, count: 80 }, [[0.3, letGo]]);
  expect(pull[20]).toBeCloseTo(hanging * gravity, 9);
  expect(pull[60]).toBeCloseTo(hanging * (gravity - a), 9);
  // Without keeping the total, the boat stays as heavy as it is.
  const heavier = trolley();
  set(heavier, 'keepTotal', 0);
  const slower = (hanging * gravity - friction * 0.5 * gravity) / 0.55;
  expect(truth(heavier, 'position', { rate: 100, count: 101 }, [[0, letGo]])[100]).toBeCloseTo(slower / 2, 3);
});

test.each([
  ['string', 0, 0],
  ['string', 0, 0.35],
  ['elastic', 1, 0],
  ['elastic', 1, 0.35],
])('a %s throws the boat back (%p, load %p kg): ∫F dt is m Δv', (_, elastic, load) => {
  const make = () => {
    const rig = mooring();
    set(rig, 'elastic', elastic);
    set(rig, 'load', load);
    rig.apparatus.control(doing('push'));
    return rig;
  };
  const rate = 5000;
  const pull = truth(make(), 'force', { rate, count: 4 * rate });
  const way = truth(make(), 'x', { rate, count: 4 * rate });
  const taut = pull.findIndex((force) => force > 0);
  const over = pull.findLastIndex((force) => force > 0);
  const speedAt = (i: number) => ((way[i + 2] - way[i - 2]) * rate) / 4;
  const impulse = pull.reduce((sum, force) => sum + force / rate, 0);
  const change = speedAt(taut - 4) - speedAt(over + 4);
  // The friction of the water during the pull is part of the change too.
  const friction = 0.001 * gravity * ((over - taut + 8) / rate);
  expect(speedAt(over + 4)).toBeLessThan(0);
  expect(Math.abs(impulse / (0.5 + load) / change - 1)).toBeLessThan(0.01 + friction);
});

test('the cord is slack, then 24 N/m, then a little stiffer', () => {
  const rig = cord();
  const hold = (at: number) => ({ action: 'grab' as const, at });
  const at = (place: number) => truth(rig, 'force', { rate: 10, count: 21 }, [[0, hold(place)]])[20];
  expect(at(0.04)).toBe(0);
  expect(at(0.25)).toBeCloseTo(24 * 0.2, 6);
  expect(at(0.6)).toBeGreaterThan(24 * 0.55 * 1.1);
});

test('the wheel tells the way by the radius that it was told, not by the true one', () => {
  const rig = wheel();
  const [device] = rig.devices;
  device.number?.('radius', 0.062);
  const hold = { action: 'grab' as const, at: 1 };
  expect(truth(rig, 'way', { rate: 10, count: 21 }, [[0, hold]])[20]).toBeCloseTo(2, 2);
});

test('the reed rings down with its quality factor and follows its driver with the amplitude of the textbooks', () => {
  const rig = reed();
  rig.apparatus.control(doing('pluck'));
  const free = truth(rig, 'deflection', { rate: 2000, count: 4000 });
  const omega0 = 2 * Math.PI * 17.3;
  const beta = omega0 / 90;
  const damped = Math.sqrt(omega0 ** 2 - beta ** 2);
  free.forEach((y, i) => {
    const t = i / 2000;
    const x = 4 * Math.exp(-beta * t) * (Math.cos(damped * t) + (beta / damped) * Math.sin(damped * t));
    expect(y).toBeCloseTo(x, 6);
  });
  for (const frequency of [10, 17, 17.3, 25]) {
    const driven = reed();
    driven.apparatus.drive?.('amplitude', 0.1);
    driven.apparatus.drive?.('frequency', frequency);
    const steady = truth(driven, 'deflection', { rate: 1000, count: 2000, from: 12 });
    const omega = 2 * Math.PI * frequency;
    const expected = (omega0 ** 2 * 0.1) / Math.hypot(omega0 ** 2 - omega ** 2, 2 * beta * omega);
    expect(Math.max(...steady)).toBeCloseTo(expected, 2);
  }
});

test('the beacon charges with R C, and its switch is reported with its time', () => {
  const rig = beacon();
  const values = truth(rig, 'voltage', { rate: 50, count: 250 }, [[1, doing('switch')]]);
  for (let i = 60; i < 250; i++) expect(values[i]).toBeCloseTo(5 * (1 - Math.exp(-(i / 50 - 1))), 9);
  const switched = beacon();
  const edges = simulate(
    switched,
    { code: 'V1-B', stream: 'switch', rate: 1, count: 4 },
    [0.7321, 1.5].map((when) => [when, () => switched.apparatus.control(doing('switch'))] as const),
  );
  // First of all how it stands, then every edge.
  expect([...edges.values]).toEqual([0, 1, 0]);
  expect(edges.times?.[0]).toBe(0);
  expect(edges.times?.[1]).toBeCloseTo(0.7321, 3);
  expect(edges.times?.[2]).toBeCloseTo(1.5, 3);
});

test('coil and capacitor ring with 1/2π√(LC) and die away with R/2L', () => {
  const rig = ringing();
  const values = truth(rig, 'voltage', { rate: 50_000, count: 1000 }, [[0, doing('pulse')]]);
  const beta = 8 / (2 * 0.01);
  const omega = Math.sqrt(1 / (0.01 * 470e-9) - beta ** 2);
  values.forEach((u, i) => {
    const t = i / 50_000;
    expect(u).toBeCloseTo(
      4 * Math.exp(-beta * t) * (Math.cos(omega * t) + (beta / omega) * Math.sin(omega * t)),
      6,
    );
  });
});

test('the lamp takes less current than its cold resistance would; the resistor keeps to Ohm’s law', () => {
  const rig = lamp();
  const peak = truth(rig, 'current', { rate: 100, count: 301 }, [[0, doing('ramp')]])[300];
  expect(peak).toBeLessThan((6 / 4) * 1000 * 0.6);
  expect(peak).toBeGreaterThan(150);
  const plain = lamp();
  set(plain, 'lamp', 0);
  expect(truth(plain, 'current', { rate: 100, count: 301 }, [[0, doing('ramp')]])[300]).toBeCloseTo(
    6000 / 22,
    3,
  );
});

test('the falling magnet makes two peaks of equal and opposite area, the flux through the coil', () => {
  const rig = fallingMagnet();
  const rate = 10_000;
  const values = truth(rig, 'voltage', { rate, count: 5000 }, [[0.01, letGo]]);
  const first = values.filter((u) => u < 0).reduce((sum, u) => sum + u / rate, 0);
  const second = values.filter((u) => u > 0).reduce((sum, u) => sum + u / rate, 0);
  // Flux of a dipole through N turns of radius a, in its middle: µ₀ N m / 2a; beyond the ends of the fall a little is left.
  const a = 0.015;
  const flux = (4e-7 * Math.PI * 600 * 0.9) / (2 * a);
  const left = (z: number) => a ** 3 / (a * a + z * z) ** 1.5;
  expect(-first).toBeCloseTo(flux * (1 - left(0.25)) * 1000, 1);
  expect(second).toBeCloseTo(flux * (1 - left(0.4)) * 1000, 1);
});

test('the field falls with the cube of the distance to the sensing point, which lies behind the tip', () => {
  const rig = rail();
  const at = (distance: number) => {
    set(rig, 'distance', distance);
    return truth(rig, 'bX', { rate: 20, count: 1 })[0] - 0.019;
  };
  expect(at(0.088) / at(0.188)).toBeCloseTo(8, 9);
  // From the axis of a dipole: µ₀ m / 2π r³.
  expect(at(0.088)).toBeCloseTo(2e-7 * 0.9 * 1000 * 1000, 9);
});

test('1.4 m of height are 0.17 hPa', () => {
  const at = (place: string) => {
    const rig = weather();
    rig.apparatus.control(doing(place));
    return truth(rig, 'pressure', { rate: 1, count: 1 })[0];
  };
  // ρ g h with the air's density at 101490 Pa and 292.4 K.
  expect(at('foot') - at('top')).toBeCloseTo((101_490 / (287.05 * 292.4)) * gravity * 1.4 * 0.01, 3);
});

test('the ball falls freely and comes back with the share of its speed', () => {
  const rig = ball();
  rig.apparatus.control(doing('lift'));
  const heights = truth(rig, 'x', { rate: 1000, count: 2500 }, [[0, letGo]]).map(
    (distance) => 1.8 - distance,
  );
  const down = Math.sqrt((2 * 1.2) / gravity);
  for (let i = 0; i < down * 1000; i += 20)
    expect(heights[i]).toBeCloseTo(1.2 - (gravity * (i / 1000) ** 2) / 2, 6);
  expect(Math.max(...heights.slice(Math.ceil(down * 1000), 1500))).toBeCloseTo(1.2 * 0.8 ** 2, 3);
});

test('what has no seed of its own is the same every time it is simulated with the same one', () => {
  const run = (seed: number) =>
    simulate(bell(), { code: 'B2-R', stream: 'angle', rate: 50, count: 50, seed }).values;
  expect(run(4)).toEqual(run(4));
  expect(run(4)).not.toEqual(run(5));
});

describe('the boat with encoder and hook on its own, on a track that rises', () => {
  const [rise, friction] = [(4 * Math.PI) / 180, 0.01];
  const alone = () => {
    const rig = trolley();
    set(rig, 'string', 0);
    set(rig, 'rise', 4);
    set(rig, 'friction', friction);
    return rig;
  };

  test('pushed up, it slows by g (sin θ + μ cos θ), turns, and comes down with g (sin θ − μ cos θ); its hook feels nothing', () => {
    const way = truth(alone(), 'position', { rate: 200, count: 700 }, [[0.5, doing('push')]]);
    const second = (i: number) => (way[i - 10] - 2 * way[i] + way[i + 10]) * 400;
    const turn = way.indexOf(Math.max(...way));
    const [up, down] = [
      gravity * (Math.sin(rise) + friction * Math.cos(rise)),
      gravity * (Math.sin(rise) - friction * Math.cos(rise)),
    ];
    expect(way[turn]).toBeCloseTo(1.1 ** 2 / (2 * up), 3);
    expect(-second(Math.floor((100 + turn) / 2))).toBeCloseTo(up, 3);
    expect(-second(turn + 60)).toBeCloseTo(down, 3);
    const pull = truth(alone(), 'pull', { rate: 200, count: 300 }, [[0.5, doing('push')]]);
    expect(Math.max(...pull.map(Math.abs))).toBe(0);
  });

  test('it comes back to its stop and stays there; with more friction than slope it stays where it stops', () => {
    const way = truth(alone(), 'position', { rate: 50, count: 400 }, [[0.5, doing('push')]]);
    expect(way[399]).toBe(0);
    const rough = alone();
    set(rough, 'rise', 0.5);
    const stuck = truth(rough, 'position', { rate: 50, count: 600 }, [
      [0.2, { action: 'grab', at: 0.4 }],
      [2, letGo],
    ]);
    expect(stuck[599]).toBeCloseTo(0.4, 3);
    expect(stuck[599]).toBe(stuck[300]);
  });
});
