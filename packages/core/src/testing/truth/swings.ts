import { channelOf } from '../sheet';
import { type TruthCase } from './case';
import { chance, entryOf, sheetCase } from './sheets';

const tau = 2 * Math.PI;

/** Readings of one channel x in metres, 50 a second, with normal noise; what moves may be chosen anew in every repetition. */
export const noisy =
  (
    count: number,
    noise: number,
    motion: (t: number, uniform: readonly number[]) => number,
    interval = 0.02,
    unit = 'm',
  ) =>
  (i: number) => {
    const { normal, uniform } = chance(i);
    const some = Array.from({ length: 4 }, uniform);
    return [
      channelOf(
        'x',
        unit,
        Float64Array.from({ length: count }, (_, k) => motion(k * interval, some) + noise * normal()),
        interval,
      ),
    ];
  };

const spectrumOf = (window: string, padding: string) =>
  entryOf('spectrum', 'q', { of: 'channel:x', window, padding });

// 256 readings of 0.02 s are 5.12 s: lines of the spectrum are 1/5.12 Hz apart.
const between = 10.5 / 5.12;

/** Swings and their spectra. */
export const swingCases: readonly TruthCase[] = [
  ...['1', '2', '4'].map((padding) =>
    sheetCase({
      title: `frequency half-way between two lines, no window, zeros ${padding}`,
      entries: [spectrumOf('none', padding)],
      channels: noisy(256, 0.02, (t, [phase]) => 0.3 * Math.sin(tau * (between * t + phase))),
      truth: between,
      key: 'frequency',
    }),
  ),
  ...['hann', 'none'].map((window) =>
    sheetCase({
      title: `amplitude in a spectrum, window ${window}`,
      entries: [spectrumOf(window, '1')],
      channels: noisy(256, 0.02, (t, [phase]) => 0.3 * Math.sin(tau * (between * t + phase))),
      truth: 0.3,
      key: 'amplitude',
    }),
  ),
  ...['hann', 'none'].map((window) =>
    sheetCase({
      title: `frequency over a straight drift, window ${window}`,
      entries: [spectrumOf(window, '4')],
      channels: noisy(256, 0.02, (t, [phase]) => 0.3 * Math.sin(tau * (0.8 * t + phase)) + 0.4 * t),
      truth: 0.8,
      key: 'frequency',
    }),
  ),
];
