import { MotionSensor } from '../devices/motionSensor';
import { SampledApparatus } from '../devices/sampledApparatus';
import { Buoy } from './buoy';
import { Lifeboat, gravity } from './lifeboat';

const exact = { read: (distance: number) => distance } as MotionSensor;

test('the buoy swings as the damped oscillator of the textbooks: x₀ e^(−βt)(cos ωt + β/ω sin ωt)', () => {
  const buoy = new Buoy();
  buoy.control({ action: 'set', key: 'damping', value: 0.2 });
  buoy.control({ action: 'grab', at: -0.04 });
  const rig = new SampledApparatus(buoy, exact);
  rig.advanceTo(0.3);
  buoy.control({ action: 'release' });
  const beta = 0.2 / (2 * 0.5);
  const omega = Math.sqrt(14 / 0.5 - beta * beta);
  for (let t = 0; t < 5; t += 0.013) {
    const x = -0.04 * Math.exp(-beta * t) * (Math.cos(omega * t) + (beta / omega) * Math.sin(omega * t));
    expect(rig.readAt(0.3 + t)).toBeCloseTo(Buoy.restDistance + x, 8);
  }
});

test('the lifeboat runs down with g sin θ − μ g cos θ, and bounces no higher than it came from', () => {
  const boat = new Lifeboat();
  boat.control({ action: 'grab', at: 0.3 });
  const rig = new SampledApparatus(boat, exact);
  boat.control({ action: 'release' });
  const angle = (6 * Math.PI) / 180;
  const a = gravity * (Math.sin(angle) - 0.01 * Math.cos(angle));
  for (let t = 0; t < 1.9; t += 0.05) expect(rig.readAt(t)).toBeCloseTo(0.3 + (a * t * t) / 2, 8);
  let highestAfter = Infinity;
  for (let t = 2.2; t < 8; t += 0.01) highestAfter = Math.min(highestAfter, rig.readAt(t));
  expect(highestAfter).toBeGreaterThan(1.5);
  expect(rig.readAt(60)).toBe(Lifeboat.slipwayLength);
});

test('a lifeboat on a slope too gentle for its friction stays where it is put', () => {
  const boat = new Lifeboat();
  boat.control({ action: 'set', key: 'angle', value: 0.4 });
  boat.control({ action: 'grab', at: 0.5 });
  boat.control({ action: 'release' });
  expect(new SampledApparatus(boat, exact).readAt(3)).toBe(0.5);
});

test('controls stay inside their reach', () => {
  const boat = new Lifeboat();
  boat.control({ action: 'set', key: 'angle', value: 90 });
  boat.control({ action: 'set', key: 'nothing', value: 1 });
  expect(boat.stage.controls[0].value).toBe(20);
});

test('the motion sensor scatters by 0.3 mm, pins at its near limit and now and then loses the echo', () => {
  const sensor = new MotionSensor();
  const readings = Array.from({ length: 40_000 }, () => sensor.read(1));
  const lost = readings.filter((reading) => reading === 6).length;
  expect(lost).toBeGreaterThan(10);
  expect(lost).toBeLessThan(200);
  const good = readings.filter((reading) => reading < 6);
  const mean = good.reduce((sum, value) => sum + value, 0) / good.length;
  const sd = Math.sqrt(good.reduce((sum, value) => sum + (value - mean) ** 2, 0) / good.length);
  expect(mean).toBeCloseTo(1, 4);
  expect(sd * 1000).toBeCloseTo(0.3, 1);
  expect(sensor.read(0.05)).toBeGreaterThanOrEqual(0.15);
});
