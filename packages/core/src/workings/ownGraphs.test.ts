import { normalRandom } from '../random';
import { halfWidth } from '../results/quantity';
import { type Sampling, countOf, regular, timeAt, timed } from '../series/sampling';
import { parseUnit, printedUnit } from '../units/unit';
import { type Entry } from './entries';
import { evaluate } from './evaluate';
import { type ChannelData } from './run';

const channel = (sampling: Sampling, value: (t: number, i: number) => number): ChannelData => ({
  key: 'x',
  symbol: 'x',
  quantity: 'position',
  unit: parseUnit('m'),
  timeUnit: parseUnit('s'),
  sampling,
  values: Float64Array.from({ length: countOf(sampling) }, (_, i) => value(timeAt(sampling, i), i)),
  low: null,
  high: null,
  noise: null,
});

const spectrum = (changes: Partial<Extract<Entry, { kind: 'spectrum' }>> = {}): Entry => ({
  kind: 'spectrum',
  id: 'q',
  name: '',
  of: 'channel:x',
  region: null,
  window: 'hann',
  padding: '4',
  ...changes,
});
const histogram = (changes: Partial<Extract<Entry, { kind: 'histogram' }>> = {}): Entry => ({
  kind: 'histogram',
  id: 'q',
  name: '',
  of: 'channel:x',
  region: null,
  rule: 'spread',
  width: 0,
  ...changes,
});

function outcomeOf(entries: Entry[], own: ChannelData) {
  const outcome = evaluate({ entries }, { id: 'run', channels: [own] }).outcomes.get('q');
  if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
  return {
    ...outcome,
    by: Object.fromEntries(outcome.results.map((result) => [result.key, result.quantity])),
  };
}

test('a swing is read off its spectrum in Hz and in the unit of the readings, marked where it stands', () => {
  const { by, graph } = outcomeOf(
    [spectrum()],
    channel(regular(3, 0.02, 500), (t) => 0.3 + 0.05 * Math.sin(2 * Math.PI * 1.37 * t)),
  );
  expect(by.frequency.value).toBeCloseTo(1.37, 6);
  expect(printedUnit(by.frequency.unit)).toBe('Hz');
  expect(by.amplitude.value).toBeCloseTo(0.05, 6);
  expect(printedUnit(by.amplitude.unit)).toBe('m');
  expect(by.period.value).toBeCloseTo(1 / 1.37, 6);
  expect(by.resolution.value).toBeCloseTo(0.1, 12);
  expect(graph?.horizontal.symbol).toBe('f');
  expect(graph?.x[graph.x.length - 1]).toBeCloseTo(25, 9);
  expect(graph?.marks[0].at).toBe(by.frequency.value);
});

test('of two swings the higher one is read, also where readings are missing or their times are uneven', () => {
  const wave = (t: number) => 0.2 * Math.sin(2 * Math.PI * 3.1 * t) + 0.5 * Math.cos(2 * Math.PI * 7.7 * t);
  const missing = outcomeOf(
    [spectrum()],
    channel(regular(0, 0.01, 600), (t, i) => (i % 50 === 7 ? NaN : wave(t))),
  );
  expect(missing.by.frequency.value).toBeCloseTo(7.7, 2);
  expect(missing.notes.join(' ')).toContain('12 missing readings were bridged');
  const times = Float64Array.from({ length: 600 }, (_, i) => 0.01 * (i + 0.3 * Math.sin(i * i)));
  const uneven = outcomeOf([spectrum()], channel(timed(times), wave));
  expect(uneven.by.frequency.value).toBeCloseTo(7.7, 2);
  expect(uneven.by.amplitude.value).toBeCloseTo(0.5, 2);
  expect(uneven.notes.join(' ')).toContain('uneven');
});

test('the interval of a peak holds the truth in 68 % of 1000 noisy swings: frequency, amplitude and period', () => {
  const [frequency, amplitude] = [2.3, 0.04];
  for (const window of ['hann', 'none'] as const) {
    const inside = { frequency: 0, amplitude: 0, period: 0 };
    for (let i = 0; i < 1000; i++) {
      const random = normalRandom(100 + i);
      const { by } = outcomeOf(
        [spectrum({ window })],
        channel(
          regular(0, 0.02, 160),
          (t) => amplitude * Math.sin(2 * Math.PI * frequency * t + i) + 0.004 * random(),
        ),
      );
      const truth = { frequency, amplitude, period: 1 / frequency };
      for (const key of ['frequency', 'amplitude', 'period'] as const)
        if (Math.abs(by[key].value - truth[key]) <= (halfWidth(by[key]) ?? 0)) inside[key]++;
    }
    for (const share of Object.values(inside)) {
      expect(share / 1000).toBeGreaterThan(0.65);
      expect(share / 1000).toBeLessThan(0.72);
    }
  }
});

test('noise alone, a constant, a drift and a gap have no peak; the sentence says why', () => {
  const random = normalRandom(2);
  let peaks = 0;
  for (let i = 0; i < 200; i++)
    if (
      outcomeOf(
        [spectrum()],
        channel(regular(0, 0.02, 300), () => random()),
      ).by.frequency !== undefined
    )
      peaks++;
  expect(peaks).toBeLessThan(8);
  expect(
    outcomeOf(
      [spectrum()],
      channel(regular(0, 0.02, 300), () => 4),
    ).notes.join(),
  ).toContain('No peak');
  const told = (own: ChannelData) => {
    const outcome = evaluate({ entries: [spectrum()] }, { id: 'run', channels: [own] }).outcomes.get('q');
    return outcome?.kind === 'refused' ? outcome.sentence : '';
  };
  expect(told(channel(regular(0, 0.02, 300), (t, i) => (i > 100 && i < 200 ? NaN : t)))).toContain(
    'Choose a region without the gap',
  );
  expect(told(channel(regular(0, 0.02, 5), (t) => t))).toContain('needs 8 readings');
  const times = Float64Array.from({ length: 100 }, (_, i) => (i < 50 ? i : i + 60) * 0.01);
  expect(told(channel(timed(times), (t) => t))).toContain('Nothing was read between');
});

test('a histogram tells the mean with its uncertainty, the sd and its bins, and draws both', () => {
  const random = normalRandom(8);
  const own = channel(regular(0, 0.02, 2500), () => 1.2 + 0.003 * random());
  const { by, graph, notes } = outcomeOf([histogram()], own);
  expect(Math.abs(by.mean.value - 1.2)).toBeLessThan(3 * (by.mean.standardUncertainty ?? 0));
  expect(by.mean.standardUncertainty).toBeCloseTo(0.003 / 50, 5);
  expect(by.sd.value).toBeCloseTo(0.003, 4);
  // 2 × 1.349 σ / ∛2500 = 0.000596, rounded to 0.0005.
  expect(by.width.value).toBe(0.0005);
  expect(notes[0]).toContain('Bins of 0.0005 m');
  expect(graph?.y.reduce((sum, count) => sum + count, 0)).toBe(2500);
  expect(graph?.marks).toEqual([{ at: by.mean.value, half: by.sd.value, text: 'mean ± sd' }]);
});

test('readings that were set aside are neither in the histogram nor in the spectrum', () => {
  const own = channel(regular(0, 0.02, 200), (t, i) => (i === 60 ? 9 : Math.sin(2 * Math.PI * 2 * t)));
  const aside = [{ run: 'run', channel: 'x', ranges: [[60, 61]] as const }];
  for (const entry of [spectrum(), histogram()]) {
    const outcome = evaluate({ entries: [entry], aside }, { id: 'run', channels: [own] }).outcomes.get('q');
    if (outcome?.kind !== 'results') throw new Error('refused');
    expect(outcome.notes.join(' ')).toContain('1 reading was set aside');
    expect(Math.max(...(outcome.graph?.y ?? []))).toBeLessThan(200);
    if (entry.kind === 'histogram') expect(outcome.graph?.x.at(-1)).toBeLessThan(1.5);
    else expect(outcome.results.find(({ key }) => key === 'amplitude')?.quantity.value).toBeCloseTo(1, 2);
  }
});
