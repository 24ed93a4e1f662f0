import { type TruthCase } from './case';
import { entryOf, regionEntry, sheetCase } from './sheets';
import { noisy } from './swings';

// Windows that flatten the swing in them by several times what ± says: 15 readings of 0.02 s in a period of 0.94 s.
const omega = (2 * Math.PI) / 0.94;
const amplitude = 0.05;
const swing = (t: number, phase: number) => amplitude * Math.sin(omega * t + 2 * Math.PI * phase);
const still = (t: number) => swing(t, 0.07);

const v = entryOf('derivative', 'v', { of: 'channel:x', windowPoints: 15 });
const a = entryOf('derivative', 'a', { of: 'entry:v', windowPoints: 15 });
const smooth = entryOf('smoothing', 's', { of: 'channel:x', windowPoints: 21 });
const bend = entryOf('derivative', 'b', { of: 'channel:x', order: '2', windowPoints: 21 });
const K = entryOf('formulaSeries', 'K', {
  formula: { text: '0.5 [kg] v^2', names: {} },
  unit: 'J',
  windowPoints: 9,
});
const region = regionEntry('A', 'A', 0.713, 3.52);
// At the ends of a run, windows hang over, and a turn there follows from what they make up.
const inside = regionEntry('A', 'A', 0.4, 5.5);
const short = regionEntry('A', 'A', 1.2, 1.56);
const moved = noisy(300, 0.0005, (t, [phase]) => swing(t, phase));
const same = noisy(300, 0.0005, still);
const onA = { region: 'A' };

const fitOf = (of: string, relation: string) =>
  entryOf('fit', 'q', { of, against: 't', relation, showResiduals: false, weights: 'equal', ...onA });

/** Mean of what is read every 0.02 s in a region. */
const meanOver = (from: number, to: number, value: (t: number) => number): number => {
  let sum = 0;
  let count = 0;
  for (let i = Math.ceil(from / 0.02 - 1e-9); i * 0.02 <= to; i++, count++) sum += value(i * 0.02);
  return sum / count;
};
const speed = (t: number) => amplitude * omega * Math.cos(omega * t + 2 * Math.PI * 0.07);

/** Results of series that windows made, where what the windows take off is many times the noise. */
export const windowCases: readonly TruthCase[] = [
  sheetCase({
    title: 'slope of a against x, flattened twice',
    entries: [region, v, a, entryOf('slope', 'q', { of: 'entry:a', against: 'channel:x', ...onA })],
    channels: moved,
    truth: -(omega ** 2),
  }),
  sheetCase({
    title: 'amplitude of a sine through a flattened v',
    costly: true,
    entries: [region, v, fitOf('entry:v', 'sine')],
    channels: moved,
    truth: amplitude * omega,
    key: 'amplitude',
  }),
  sheetCase({
    title: 'amplitude of a sine through a flattened second derivative',
    slow: true,
    entries: [region, bend, fitOf('entry:b', 'sine')],
    channels: moved,
    truth: amplitude * omega ** 2,
    key: 'amplitude',
  }),
  sheetCase({
    title: 'amplitude of a flattened v, cycle by cycle',
    entries: [inside, v, entryOf('cycles', 'q', { of: 'entry:v', ...onA })],
    channels: moved,
    truth: amplitude * omega,
    key: 'amplitude',
  }),
  sheetCase({
    title: 'amplitude in the spectrum of a flattened v',
    slow: true,
    entries: [v, entryOf('spectrum', 'q', { of: 'entry:v', window: 'hann', padding: '4' })],
    channels: moved,
    truth: amplitude * omega,
    key: 'amplitude',
  }),
  sheetCase({
    title: 'highest peak of a flattened v',
    slow: true,
    entries: [region, v, entryOf('peaks', 'q', { of: 'entry:v', ...onA })],
    channels: same,
    truth: amplitude * omega,
    key: 'peak',
  }),
  sheetCase({
    title: 'mean of a flattened v in a part of a swing',
    entries: [short, v, entryOf('statistics', 'q', { of: 'entry:v', ...onA })],
    channels: same,
    truth: meanOver(1.2, 1.56, speed),
    key: 'mean',
  }),
  sheetCase({
    title: 'mean of a flattened v of a swing, whole run',
    slow: true,
    entries: [v, entryOf('statistics', 'q', { of: 'entry:v' })],
    channels: same,
    truth: meanOver(0, 5.99, speed),
    key: 'mean',
  }),
  sheetCase({
    title: 'change of a smoothed x',
    entries: [short, smooth, entryOf('changeAcross', 'q', { of: 'entry:s', ...onA })],
    channels: same,
    truth: still(1.56) - still(1.2),
  }),
  sheetCase({
    title: 'mean of an energy of a flattened v',
    costly: true,
    entries: [region, v, K, entryOf('statistics', 'q', { of: 'entry:K', ...onA })],
    // Squares of noise add to squares of what moves: little of it.
    channels: noisy(300, 0.0001, still),
    truth: meanOver(0.713, 3.52, (t) => 0.5 * speed(t) ** 2),
    key: 'mean',
  }),
  sheetCase({
    title: 'value of a flattened v at a moment',
    entries: [v, entryOf('readout', 'q', { of: 'entry:v', at: 1.9 })],
    channels: same,
    truth: speed(1.9),
  }),
  sheetCase({
    title: 'slope of a tangent over a wide window',
    slow: true,
    entries: [entryOf('tangent', 'q', { of: 'channel:x', at: 1.9, windowPoints: 21 })],
    channels: same,
    truth: speed(1.9),
    key: 'slope',
  }),
];
