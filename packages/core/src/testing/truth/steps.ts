import { type TruthCase } from './case';
import { entryOf, sheetCase } from './sheets';
import { noisy } from './swings';

const riseEntry = (shares: string) => entryOf('riseTime', 'q', { of: 'channel:x', shares });
/** Smooth and with corners; each is at its levels in the first and the last tenth. */
const logistic = (t: number) => 1 / (1 + Math.exp(-(t - 2) / 0.1));
const ramp = (t: number) => Math.min(Math.max((t - 1.5) / 0.9, 0), 1);
const charging = (t: number) => (t < 1 ? 0 : 1 - Math.exp(-(t - 1) / 0.15));

/** Steps at a noise of 0.2, 1 and 3 % of their height. */
export const stepCases: readonly TruthCase[] = [0.002, 0.01, 0.03].flatMap((noise) => [
  sheetCase({
    title: `rise time of a smooth step, noise ${noise}`,
    entries: [riseEntry('10')],
    channels: noisy(400, noise, (t, [at]) => logistic(t + 0.01 * at), 0.01, 'V'),
    truth: 0.2 * Math.log(9),
  }),
  sheetCase({
    title: `rise time of a straight ramp, noise ${noise}`,
    entries: [riseEntry('20')],
    channels: noisy(400, noise, (t, [at]) => ramp(t + 0.01 * at), 0.01, 'V'),
    truth: 0.6 * 0.9,
  }),
  sheetCase({
    title: `rise time of a charging capacitor, noise ${noise}`,
    entries: [riseEntry('10')],
    channels: noisy(400, noise, (t, [at]) => charging(t + 0.01 * at), 0.01, 'V'),
    truth: 0.15 * Math.log(9),
  }),
]);
