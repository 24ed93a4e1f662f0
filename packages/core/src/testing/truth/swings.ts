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

const cyclesEntry = entryOf('cycles', 'q', { of: 'channel:x' });
const peaksEntry = entryOf('peaks', 'q', { of: 'channel:x' });
const swinging = (t: number, phase: number) => 0.3 * Math.sin(tau * (0.9 * t + phase));
const dying = (t: number, phase: number) => Math.exp(-t / 4) * swinging(t, phase);

/** Periods, amplitudes and peaks at a noise of 1 and 5 % of the amplitude. */
const turnCases = [0.003, 0.015].flatMap((noise) => [
  sheetCase({
    title: `period, cycle by cycle, noise ${noise}`,
    entries: [cyclesEntry],
    channels: noisy(300, noise, (t, [phase]) => swinging(t, phase)),
    truth: 1 / 0.9,
    key: 'period',
  }),
  sheetCase({
    title: `period of a swing that dies away, noise ${noise}`,
    entries: [cyclesEntry],
    channels: noisy(300, noise, (t, [phase]) => dying(t, phase)),
    truth: 1 / 0.9,
    key: 'period',
  }),
  sheetCase({
    title: `period of a swing that drifts, noise ${noise}`,
    entries: [cyclesEntry],
    channels: noisy(300, noise, (t, [phase]) => swinging(t, phase) + 0.02 * t),
    truth: 1 / 0.9,
    key: 'period',
  }),
  sheetCase({
    title: `mean amplitude, noise ${noise}`,
    entries: [cyclesEntry],
    channels: noisy(300, noise, (t, [phase]) => swinging(t, phase)),
    truth: 0.3,
    key: 'amplitude',
  }),
  sheetCase({
    title: `logarithmic decrement, noise ${noise}`,
    entries: [cyclesEntry],
    channels: noisy(200, noise, (t, [phase]) => dying(t, phase)),
    truth: 1 / (4 * 0.9),
    key: 'decrement',
  }),
  sheetCase({
    title: `highest of equal peaks, noise ${noise}`,
    entries: [peaksEntry],
    channels: noisy(300, noise, (t, [phase]) => swinging(t, phase)),
    truth: 0.3,
    key: 'peak',
  }),
  sheetCase({
    title: `highest of peaks that die away, noise ${noise}`,
    entries: [peaksEntry],
    // The first peak stands at t = τ with tan(ωτ) = 4 ω.
    channels: noisy(300, noise, (t) => dying(t, 0)),
    truth: dying(Math.atan(4 * tau * 0.9) / (tau * 0.9), 0),
    key: 'peak',
  }),
  sheetCase({
    title: `half from trough to peak, noise ${noise}`,
    entries: [peaksEntry],
    channels: noisy(300, noise, (t, [phase]) => swinging(t, phase)),
    truth: 0.3,
    key: 'amplitude',
  }),
]);

/** Swings and their spectra. */
export const swingCases: readonly TruthCase[] = [
  ...turnCases,
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
