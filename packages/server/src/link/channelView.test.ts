import { type Calibration, type LinkChannel, noCalibration, usualSetup } from '@heuristor/contracts';
import { appliedOf, viewOf } from './channelView';

const force: LinkChannel = {
  key: 'force',
  quantity: 'force',
  symbol: 'F',
  unit: 'N',
  ranges: [{ key: 'only', low: -50, high: 50, noise: 0.01, resolution: 0.002 }],
};
const at = '2026-11-25T10:00:00.000Z';

/** What a view makes of a reading. */
const shown = (raw: number, calibration: Calibration, setup = usualSetup) => {
  const { scale, offset } = viewOf(force, setup, calibration);
  return scale * raw + offset;
};

test('what a device sends is shown as it is where nothing is set', () => {
  expect(viewOf(force, usualSetup, noCalibration)).toMatchObject({ scale: 1, offset: 0, low: -50, high: 50 });
});

test('a zero is taken off before the sign is turned, and the limits move with it', () => {
  const zeroed = { ...noCalibration, zeros: { force: { offset: 0.4, spread: 0.01, at } } };
  const turned = { rates: {}, channels: { force: { reversed: true } } };
  expect(shown(1.4, zeroed)).toBeCloseTo(1, 12);
  expect(shown(1.4, zeroed, turned)).toBeCloseTo(-1, 12);
  const view = viewOf(force, turned, zeroed);
  expect([view.low, view.high]).toEqual([-49.6, 50.4]);
});

test('two typed values: a sensor that reads 0.12 with nothing on it and 5.02 with 4.905 N shows what hangs on it', () => {
  // A line through two points: gain = (4.905 − 0) / (5.02 − 0.12).
  const gain = 4.905 / 4.9;
  const calibrated = {
    zeros: { force: { offset: 0.12, spread: 0, at } },
    scales: {
      force: {
        gain,
        points: [
          { read: 0.12, known: 0 },
          { read: 5.02, known: 4.905 },
        ],
        at,
      },
    },
    numbers: {},
  };
  expect(shown(0.12, calibrated)).toBeCloseTo(0, 12);
  expect(shown(5.02, calibrated)).toBeCloseTo(4.905, 12);
  expect(shown(2.57, calibrated)).toBeCloseTo(4.905 / 2, 12);
  // In millinewtons, with the noise and the step that then belong to it.
  const view = viewOf(force, { rates: {}, channels: { force: { unit: 'mN' } } }, calibrated);
  expect(view.scale * 5.02 + view.offset).toBeCloseTo(4905, 9);
  expect(view.noise).toBeCloseTo(10 * gain, 9);
  const applied = appliedOf(view, calibrated);
  expect(applied).toMatchObject({
    range: 'only',
    reversed: false,
    zero: { offset: 0.12 },
    twoPoint: { gain },
  });
  expect(applied.scale * 5.02 + applied.offset).toBeCloseTo(4905, 9);
});
