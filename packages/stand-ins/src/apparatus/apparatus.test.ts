import { type ControlAction } from '@heuristor/contracts';
import { simulate } from '../simulate';
import { set, truth } from '../testing/perfect';
import { gravity } from './apparatus';
import { buoy, buoyRest } from './buoy';
import { lifeboat } from './lifeboat';

test('the buoy swings as the damped oscillator of the textbooks: x₀ e^(−βt)(cos ωt + β/ω sin ωt)', () => {
  const rig = buoy();
  set(rig, 'damping', 0.2);
  rig.apparatus.control({ action: 'do', key: 'pull' });
  const values = truth(rig, 'x', { rate: 77, count: 385, from: 0.3 }, [[0.3, { action: 'release' }]]);
  const beta = 0.2 / (2 * 0.5);
  const omega = Math.sqrt(14 / 0.5 - beta * beta);
  values.forEach((value, i) => {
    const t = i / 77;
    const x = -0.04 * Math.exp(-beta * t) * (Math.cos(omega * t) + (beta / omega) * Math.sin(omega * t));
    expect(value).toBeCloseTo(buoyRest + x, 8);
  });
});

test('the lifeboat runs down with g sin θ − μ g cos θ, and bounces no higher than it came from', () => {
  const rig = lifeboat();
  const values = truth(rig, 'x', { rate: 20, count: 1201 }, [[0, { action: 'release' }]]);
  const angle = (6 * Math.PI) / 180;
  const a = gravity * (Math.sin(angle) - 0.01 * Math.cos(angle));
  for (let i = 0; i < 38; i++) expect(values[i]).toBeCloseTo(0.3 + (a * (i / 20) ** 2) / 2, 8);
  expect(Math.min(...values.slice(44, 160))).toBeGreaterThan(1.5);
  expect(values[1200]).toBe(2.2);
});

test('a lifeboat on a slope too gentle for its friction stays where it is put', () => {
  const rig = lifeboat();
  set(rig, 'angle', 0.4);
  const values = truth(rig, 'x', { rate: 10, count: 50 }, [
    [0, { action: 'grab', at: 0.5 }],
    [1, { action: 'release' }],
  ]);
  expect(values[20]).toBeCloseTo(0.5, 6);
  expect(values[49]).toBe(values[20]);
});

test('a push goes on as the speed that the hand had when it let go', () => {
  const rig = lifeboat();
  set(rig, 'angle', 0);
  set(rig, 'friction', 0);
  // A hand that moves at 0.5 m/s from 0.3 m on, and lets go after a second.
  const carried = Array.from({ length: 51 }, (_, i): [number, ControlAction] => [
    i * 0.02,
    { action: 'grab', at: 0.3 + 0.01 * i },
  ]);
  const values = truth(rig, 'x', { rate: 50, count: 90 }, [...carried, [1.01, { action: 'release' }]]);
  const speeds = values.slice(52, 88).map((value, i) => (values[53 + i] - value) * 50);
  for (const speed of speeds) expect(speed).toBeCloseTo(0.5, 1);
});

test('controls stay inside their reach', () => {
  const rig = lifeboat();
  set(rig, 'angle', 90);
  set(rig, 'nothing', 1);
  expect(rig.apparatus.stage.controls[0].value).toBe(20);
});

test('the motion sensor scatters by 0.3 mm, pins at its near limit, now and then loses the echo or hears another one', () => {
  const rig = buoy();
  const { values } = simulate(rig, { code: 'K7-D', stream: 'motion', rate: 100, count: 40_000, seed: 8 });
  const lost = [...values].filter((reading) => reading === 6).length;
  expect(lost).toBeGreaterThan(10);
  expect(lost).toBeLessThan(200);
  const good = values.filter((reading) => Math.abs(reading - 0.6) < 0.01);
  const strays = values.length - lost - good.length;
  expect(strays).toBeGreaterThan(5);
  expect(strays).toBeLessThan(60);
  const mean = good.reduce((sum, value) => sum + value, 0) / good.length;
  const sd = Math.sqrt(good.reduce((sum, value) => sum + (value - mean) ** 2, 0) / good.length);
  expect(mean).toBeCloseTo(0.6, 4);
  expect(sd * 1000).toBeCloseTo(0.3, 1);
});
