import { normalRandom } from '../random';
import { regular } from '../series/sampling';
import { repetitions } from '../testing/effort';
import { channelOf } from '../testing/sheet';
import { entryOf } from '../testing/truth/sheets';
import { type Entry } from './entries';
import { evaluate } from './evaluate';

const interval = 0.05;
const count = 400;
const tau = 2 * Math.PI;

const waves: Record<string, (t: number) => number> = {
  parabola: (t) => 0.3 + 1.2 * t - 0.45 * t * t,
  line: (t) => 2 - 0.3 * t,
  cubic: (t) => 1 + t - 0.2 * t * t + 0.01 * t ** 3,
  decay: (t) => 4 * Math.exp(-t / 6) + 0.5,
  approach: (t) => 3 - 2 * Math.exp(-t / 6),
  sine: (t) => 5 * Math.sin((tau * t) / 1.7 + 0.4) + 1,
  dampedSine: (t) => 5 * Math.exp(-t / 9) * Math.sin((tau * t) / 1.7 + 0.4) + 1,
  sineOnLine: (t) => 5 * Math.sin((tau * t) / 1.7 + 0.4) + 1 + 0.2 * t,
};
const typed: Record<string, keyof typeof waves> = {
  'A sin(2 pi t/T + phi) + c': 'sine',
  'A sin(omega t + phi) + c': 'sine',
  'A sin(2 pi (t - t0)/T) + c': 'sine',
  'A cos(2 pi f t) + B sin(2 pi f t) + c': 'sine',
  'A exp(-g t) sin(2 pi t/T + phi) + c': 'dampedSine',
  'a + b t + c t^2': 'parabola',
  'A exp(-t/tau) + D': 'decay',
};

function outcomeOf(entry: Entry, wave: keyof typeof waves, start: number) {
  const normal = normalRandom(17);
  const values = Float64Array.from({ length: count }, (_, i) => waves[wave](i * interval) + 0.05 * normal());
  const channel = { ...channelOf('x', 'm', values, interval), sampling: regular(start, interval, count) };
  const outcome = evaluate({ entries: [entry] }, { id: 'r', channels: [channel] }).outcomes.get('q');
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  return outcome;
}

const fitEntry = (relation: string) =>
  entryOf('fit', 'q', { of: 'channel:x', against: 't', relation, weights: 'equal', showResiduals: false });
const formulaEntry = (text: string) =>
  entryOf('formulaFit', 'q', {
    formula: { text, names: {} },
    of: 'channel:x',
    against: 't',
    parameters: {},
    weights: 'equal',
    showResiduals: false,
  });

// The truth is the same fit with time from 0: where a run's clock begins does not change what is in it.
const cases = [
  ...Object.keys(waves).map((relation) => [relation, fitEntry(relation), relation] as const),
  ...Object.entries(typed).map(([text, wave]) => [text, formulaEntry(text), wave] as const),
];
describe.each([1e6, 1.7e9])('with times from %d s on', (start) => {
  test.each(cases)('%s says what it says with times from 0', (_, entry, wave) => {
    const [near, far] = [outcomeOf(entry, wave, 0), outcomeOf(entry, wave, start)];
    near.results.forEach(({ name, quantity }, i) => {
      const other = far.results[i].quantity;
      const size = Math.abs(quantity.value) + (quantity.standardUncertainty ?? 0);
      expect({ name, off: Math.abs(other.value - quantity.value) < 1e-4 * size }).toEqual({
        name,
        off: true,
      });
      if (quantity.standardUncertainty !== null)
        expect((other.standardUncertainty ?? NaN) / quantity.standardUncertainty).toBeCloseTo(1, 3);
    });
    expect(far.notes.join(' ')).toContain(`t counts from ${start} s in this fit`);
  });
});

test('a decay long before its region counts from where that begins', () => {
  const found = outcomeOf(fitEntry('decay'), 'decay', 6000);
  expect(found.results[0].quantity.value).toBeCloseTo(4, 0);
});

describe('a typed sine without starts', () => {
  const wave = (cycles: number, n: number, noise = 0.1, seed = 3) => {
    const normal = normalRandom(seed);
    return channelOf(
      'x',
      'm',
      Float64Array.from(
        { length: n },
        (_, i) => 2 * Math.sin((tau * cycles * i) / n + 1.1) + noise * normal(),
      ),
      20 / n,
    );
  };
  test.each([1, 3, 9.7, 10, 14.2, 22.6, 31, 39.5, 40])('finds %d cycles', (cycles) => {
    for (const n of [200, 1000]) {
      const outcome = evaluate(
        { entries: [formulaEntry('A sin(2 pi t/T + phi) + c')] },
        { id: 'r', channels: [wave(cycles, n)] },
      ).outcomes.get('q');
      if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
      const [amplitude, period] = outcome.results.map(({ quantity }) => quantity.value);
      expect(Math.abs(amplitude)).toBeCloseTo(2, 1);
      expect(Math.abs(period) * cycles).toBeCloseTo(20, 0);
    }
  });

  test('is refused where nothing swings, and never shown with a curve that explains nothing', () => {
    for (let seed = 1; seed <= repetitions(15, 40); seed++) {
      const outcome = evaluate(
        { entries: [formulaEntry('A sin(2 pi t/T + phi) + c')] },
        { id: 'r', channels: [{ ...wave(0.001, 300, 1, seed) }] },
      ).outcomes.get('q');
      expect(outcome?.kind).toBe('refused');
    }
  });
});
