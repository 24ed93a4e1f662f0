import { channel, type ChannelPlan, type DevicePlan } from './device';
import { SensorChannel } from './sensor';
import { SensorErrors } from './sensorErrors';

const position: ChannelPlan = {
  channel: channel('x', 'x', 'position', 'm', { low: 0.15, high: 6, noise: 0.001, resolution: 0.0001 }),
  truth: () => 2,
  flaws: { lostShare: 0, strayShare: 0 },
};
const force: ChannelPlan = {
  channel: channel('pull', 'F', 'force', 'N', { low: -20, high: 20, noise: 0.01 }),
  truth: () => 5,
  flaws: { offset: 0.06 },
};
const plan: DevicePlan = {
  code: 'K1-A',
  model: 'A sensor',
  streams: [
    {
      key: 'all',
      sampling: 'regular',
      rates: { lowest: 1, highest: 100, usual: 50 },
      channels: [position, force],
    },
  ],
};

const read = (
  errors: SensorErrors,
  { channel: own, truth }: ChannelPlan,
  count: number,
  from = 0,
): number[] => {
  const sensor = new SensorChannel(own, truth, errors.flawsOf(own.key), errors.random);
  return Array.from({ length: count }, (_, i) => sensor.read(from + i / 50));
};
const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
const spread = (values: readonly number[]) =>
  Math.sqrt(mean(values.map((value) => (value - mean(values)) ** 2)));

test('the same seed, the same readings; another one, others', () => {
  const first = read(new SensorErrors(plan, 7), position, 50);
  expect(read(new SensorErrors(plan, 7), position, 50)).toEqual(first);
  expect(read(new SensorErrors(plan, 8), position, 50)).not.toEqual(first);
  const errors = new SensorErrors(plan, 8);
  errors.set('itsSeed', 7);
  expect(read(errors, position, 50)).toEqual(first);
});

test('noise, steps, offset and drift are what they are set to', () => {
  const errors = new SensorErrors(plan, 1);
  expect(spread(read(errors, position, 5000))).toBeCloseTo(0.001, 4);
  errors.set('itsXNoiseFactor', 10);
  expect(spread(read(errors, position, 5000)) / 0.01).toBeCloseTo(1, 1);
  errors.set('itsXNoiseFactor', 0);
  errors.set('itsXStepFactor', 50);
  for (const value of read(errors, position, 20)) expect((value / 0.005) % 1).toBeCloseTo(0, 6);
  errors.set('itsXStepFactor', 0);
  errors.set('itsXOffset', 0.05);
  expect(read(errors, position, 1)).toEqual([2.05]);
  errors.set('itsXDriftPerHour', 0.1);
  expect(read(errors, position, 1, 1800)[0]).toBeCloseTo(2.1, 9);
});

test('a sensor that lags follows a step with its time constant', () => {
  let true1 = 0;
  const errors = new SensorErrors(plan, 1);
  errors.set('itsXNoiseFactor', 0);
  errors.set('itsXStepFactor', 0);
  errors.set('itsXLagSeconds', 0.5);
  const sensor = new SensorChannel(position.channel, () => true1, errors.flawsOf('x'), errors.random);
  true1 = 1;
  sensor.read(0);
  true1 = 2;
  for (let i = 1; i <= 50; i++) sensor.read(i / 100);
  // After one time constant, 63 % of the way.
  expect(sensor.read(0.5)).toBeCloseTo(1 + (1 - Math.exp(-1)), 2);
});

test('limits that are drawn in are announced, and pin', () => {
  const errors = new SensorErrors(plan, 1);
  expect(errors.set('itsPullReach', 0.2)).toBe('other');
  expect(
    errors.announced(plan.streams[0]).channels.map(({ ranges: [{ low, high }] }) => [low, high]),
  ).toEqual([
    [0.15, 6],
    [-4, 4],
  ]);
  expect(read(errors, force, 3)).toEqual([4, 4, 4]);
});

test('echoes are lost, and come from something else, as often as is set', () => {
  const errors = new SensorErrors(plan, 3);
  errors.set('itsXLostShare', 10);
  errors.set('itsXStrayShare', 5);
  const values = read(errors, position, 20_000);
  const lost = values.filter((value) => value === 6).length;
  const strays = values.filter((value) => value !== 6 && Math.abs(value - 2) > 0.01).length;
  expect(lost / 20_000).toBeCloseTo(0.1, 2);
  expect(strays / 20_000).toBeCloseTo(0.045, 2);
  for (const value of values) expect(value >= 0.15 && value <= 6).toBe(true);
});

test('what is set stays within its bounds, can be taken back to the usual, and is no business of other keys', () => {
  const errors = new SensorErrors(plan, 1);
  expect(errors.set('nothing', 1)).toBe('unknown');
  expect(errors.set('itsPullLostShare', 1)).toBe('unknown');
  errors.set('itsPullOffset', 1e9);
  const offset = errors.list.find(({ key }) => key === 'itsPullOffset');
  expect(offset?.value).toBe(offset?.high);
  expect(errors.reset()).toBe(true);
  expect(offset?.value).toBe(0.06);
  expect(errors.flawsOf('pull').offset).toBe(0.06);
});

test('what a device is made of is not changed by what is set', () => {
  new SensorErrors(plan, 1).set('itsPullOffset', 1);
  expect(force.flaws).toEqual({ offset: 0.06 });
});
