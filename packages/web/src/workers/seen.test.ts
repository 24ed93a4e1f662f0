import { channelOf } from '@heuristor/contracts';
import { seenOf } from './seen';

const channel = (changes: Partial<Parameters<typeof channelOf>[0]> = {}) => ({
  ...channelOf({
    key: 'x',
    quantity: 'position',
    unit: 'm',
    timeUnit: 's',
    sampling: { kind: 'regular', start: 0, interval: 0.02 },
    low: 0.15,
    high: 6,
    noise: 0.0003,
    ...changes,
  }),
  id: 1,
});
const swing = (frequency: number) =>
  Float64Array.from({ length: 500 }, (_, i) => 1 + 0.1 * Math.sin((2 * Math.PI * frequency * i) / 50));

test('how fast a run moved, wherever in it that was', () => {
  // To half a line of the spectrum of 256 readings at 50 Hz.
  for (const frequency of [0.9, 2, 5.3])
    expect(Math.abs((seenOf(channel(), swing(frequency)).band ?? 0) - frequency)).toBeLessThan(0.11);
  const first = swing(5).map((value, i) => (i < 150 ? value : 1));
  const band = seenOf(channel(), first).band ?? 0;
  expect(band).toBeGreaterThan(4.8);
  expect(band).toBeLessThan(7);
});

test('a lone lost echo on a target at rest is no motion', () => {
  const still = Float64Array.from({ length: 500 }, (_, i) => (i === 200 ? 6 : 1.5));
  expect(seenOf(channel(), still).band).toBeNull();
});

test('its ends are told as the device sent them: before zero, sign and unit', () => {
  const applied = {
    scale: -100,
    offset: 50,
    range: 'only',
    zero: null,
    twoPoint: null,
    reversed: true,
    zeroedAtStart: false,
    numbers: {},
  };
  const { least, greatest } = seenOf(channel({ unit: 'cm', applied }), Float64Array.of(-50, 30, NaN));
  expect([least, greatest]).toEqual([0.2, 1]);
});
