import { normalRandom } from '../random';
import { coverageOf, resultIn } from '../testing/coverage';
import { channelOf } from '../testing/sheet';
import { type Entry } from './entries';
import { evaluate } from './evaluate';
import { type ChannelData } from './run';

// Truths are those of the functions that the readings are made from, by hand.

const of = (value: (t: number) => number, { n = 400, interval = 0.01, key = 'x', unit = 'm' } = {}) =>
  channelOf(
    key,
    unit,
    Float64Array.from({ length: n }, (_, i) => value(i * interval)),
    interval,
  );
const seriesIn = (entries: Entry[], channels: ChannelData[], id: string) => {
  const outcome = evaluate({ entries }, { id: 'r', channels }).outcomes.get(id);
  if (outcome?.kind !== 'series') throw new Error(JSON.stringify(outcome));
  return outcome.series;
};
const refusal = (entries: Entry[], channels: ChannelData[], id: string) => {
  const outcome = evaluate({ entries }, { id: 'r', channels }).outcomes.get(id);
  return outcome?.kind === 'refused' ? outcome.sentence : null;
};
const base = { name: 'q', id: 'q' } as const;
const A: Entry = { kind: 'region', id: 'A', name: '', letter: 'A', along: 't', start: 0, end: 0.5 };
const rest = { kind: 'region', id: 'B', name: '', letter: 'B', along: 't', start: 0, end: 1 } as const;
const x = 'channel:x';
const inRange = (share: number) => {
  expect(share).toBeGreaterThanOrEqual(0.64);
  expect(share).toBeLessThanOrEqual(0.725);
};

describe('a derivative', () => {
  const derivative: Entry = { kind: 'derivative', ...base, of: x, windowPoints: 11 };

  it('of order two is the bend, in the unit over the time squared', () => {
    const series = seriesIn([{ ...derivative, order: '2' }], [of((t) => 3 * t * t - t)], 'q');
    series.values.forEach((value) => expect(value).toBeCloseTo(6, 6));
    expect(series.unit).toEqual([
      { atom: 'm', power: 1 },
      { atom: 's', power: -2 },
    ]);
  });

  it('of a higher degree follows what a parabola flattens', () => {
    const swing = of((t) => Math.sin(12 * t));
    const off = (degree: '2' | '4') =>
      Math.max(
        ...seriesIn([{ ...derivative, windowPoints: 21, degree }], [swing], 'q').values.map((value, i) =>
          Math.abs(value - 12 * Math.cos(12 * 0.01 * i)),
        ),
      );
    expect(off('2')).toBeGreaterThan(10 * off('4'));
  });

  it('over a time holds the readings of that time, at any rate', () => {
    for (const [interval, points] of [
      [0.01, 21],
      [0.05, 5],
    ]) {
      const entry: Entry = { ...derivative, windowIn: 'seconds', windowLength: 0.2 };
      const series = seriesIn([entry], [of((t) => t, { interval })], 'q');
      expect(series.made[0].windowPoints).toBe(points);
    }
    expect(
      refusal([{ ...derivative, windowIn: 'seconds', windowLength: 0.004 }], [of((t) => t)], 'q'),
    ).toMatch(/less than three readings of x, which come every 0.01 s/);
  });
});

describe('a running median', () => {
  const median: Entry = { kind: 'smoothing', ...base, of: x, way: 'median', windowPoints: 5 };

  it('takes wrong readings off whole, and keeps an edge', () => {
    const step = of((t) => (t < 1.995 ? 1 : 2));
    step.values[50] = 9;
    step.values[300] = -4;
    const { values } = seriesIn([median], [step], 'q');
    values.forEach((value, i) => expect(value).toBe(i < 200 ? 1 : 2));
  });

  // The same by an independent way: scipy.signal.medfilt pads with zeros, so only what is away from the ends is compared; here
  // the window is sorted anew for every reading.
  it('is the median of its window, at the ends of a shorter one', () => {
    const normal = normalRandom(4);
    const noisy = of(() => normal(), { n: 60 });
    const { values } = seriesIn([{ ...median, windowPoints: 7 }], [noisy], 'q');
    values.forEach((value, i) => {
      const reach = Math.min(3, i, 59 - i);
      const window = [...noisy.values.slice(i - reach, i + reach + 1)].sort((a, b) => a - b);
      expect(value).toBe(window[reach]);
    });
  });

  it.each([
    ['something still', () => 0.4],
    ['something steep', (t: number) => 3 * t],
    ['a swing', (t: number) => 0.2 * Math.sin(4 * t)],
  ])('lets the mean of %s know what it is uncertain by', (_, value) => {
    const normal = normalRandom(31);
    const region: Entry = { ...A, start: 0.5, end: 3.5 };
    const mean: Entry = { kind: 'statistics', id: 'm', name: '', of: 'entry:q', region: 'A' };
    let truth = 0;
    for (let i = 50; i <= 350; i++) truth += value(i * 0.01) / 301;
    const share = coverageOf(
      [region, { ...median, windowPoints: 9 }, mean],
      truth,
      () => [of((t) => value(t) + 0.01 * normal())],
      { id: 'm', repetitions: 400 },
    );
    // A median is not linear: its interval is an estimate, and may be a little wide.
    expect(share).toBeGreaterThan(0.62);
    expect(share).toBeLessThan(0.78);
  });
});

describe('a running integral', () => {
  const integral: Entry = { kind: 'integral', ...base, of: x };
  const force = of((t) => 0.7 + (t > 1 ? 2 * (t - 1) : 0));

  it('is taken from a level, or from the mean of a region where nothing happens', () => {
    const upTo = (more: Partial<typeof integral>) =>
      seriesIn([rest, { ...integral, ...more } as Entry], [force], 'q').values[300];
    // ∫₁³ 2 (t − 1) dt = 4.
    expect(upTo({ baseline: 'level', level: 0.7 })).toBeCloseTo(4, 3);
    expect(upTo({ baseline: 'mean', meanOf: 'B' })).toBeCloseTo(4, 3);
    expect(refusal([{ ...integral, baseline: 'mean' }], [force], 'q')).toMatch(
      /Choose the region whose mean/,
    );
  });

  it('is zero where something happens', () => {
    const start = { event: 'rises', of: x, level: 0.9, count: 1, offset: 0.2 } as const;
    const { values } = seriesIn([{ ...integral, start }], [force], 'q');
    expect(values[130]).toBeCloseTo(0, 6);
    expect(values[0]).toBeLessThan(0);
  });

  it('knows what the mean that was taken off does to it', () => {
    const normal = normalRandom(8);
    const last: Entry = { kind: 'readout', id: 'm', name: '', of: 'entry:q', at: 3 };
    const share = coverageOf(
      [{ ...rest, end: 0.6 }, { ...integral, baseline: 'mean', meanOf: 'B' }, last],
      4,
      () => [of((t) => 0.7 + (t > 1 ? 2 * (t - 1) : 0) + 0.05 * normal())],
      { id: 'm' },
    );
    inRange(share);
  });
});

describe('a shifted series', () => {
  const shift: Entry = { kind: 'shifted', ...base, of: x, less: 'number', number: 0, factor: 1 };

  it('is less a number, times a factor', () => {
    const { values } = seriesIn([{ ...shift, number: 2, factor: -10 }], [of((t) => t)], 'q');
    expect(values[100]).toBeCloseTo(10, 12);
    expect(refusal([{ ...shift, factor: 0 }], [of((t) => t)], 'q')).toMatch('Times 0 leaves nothing');
  });

  it('lets time count from an event', () => {
    const when = { event: 'rises', of: x, level: 1, count: 1, offset: 0 } as const;
    const series = seriesIn([{ ...shift, of: 't', less: 'event', when }], [of((t) => t * t)], 'q');
    expect(series.values[100]).toBeCloseTo(0, 9);
    expect(series.values[0]).toBeCloseTo(-1, 9);
  });

  it('knows that all its values hang on the mean that was taken off', () => {
    const normal = normalRandom(12);
    const mean: Entry = { kind: 'statistics', id: 'm', name: '', of: 'entry:q', region: 'A' };
    const share = coverageOf(
      [
        { ...rest, end: 0.1 },
        { ...A, start: 2, end: 2.2 },
        { ...shift, less: 'mean', meanOf: 'B', factor: 3 },
        mean,
      ],
      // The mean of t from 2 to 2.2 less that from 0 to 0.1, three times.
      3 * (2.1 - 0.05),
      () => [of((t) => t + 0.02 * normal())],
      { id: 'm' },
    );
    inRange(share);
  });
});

describe('an envelope', () => {
  const decaying = (t: number) => 0.3 + 0.05 * t + 0.2 * Math.exp(-t / 1.5) * Math.sin(18 * t);
  const amplitude: Entry = { kind: 'envelope', ...base, of: x, side: 'amplitude' };

  it('runs through the amplitudes, a drift left out', () => {
    const { values, sampling } = seriesIn([amplitude], [of(decaying)], 'q');
    if (sampling.kind !== 'timed') throw new Error('an envelope has times of its own');
    expect(values.length).toBeGreaterThan(15);
    values.forEach((value, i) => {
      const truth = 0.2 * Math.exp(-sampling.times[i] / 1.5);
      expect(Math.abs(value / truth - 1)).toBeLessThan(0.03);
    });
  });

  it('lets a decay through it know its uncertainty', () => {
    const normal = normalRandom(6);
    const fit: Entry = {
      kind: 'fit',
      id: 'm',
      name: '',
      relation: 'decay',
      of: 'entry:q',
      against: 't',
      region: null,
      weights: 'equal',
      showResiduals: false,
    };
    const tau = resultIn([amplitude, fit], [of((t) => decaying(t) + 0.0005 * normal())], 'm');
    expect(Math.abs(tau.quantity.value - 1.5)).toBeLessThan(0.15);
    expect(tau.quantity.standardUncertainty).not.toBeNull();
  });

  it('says where nothing swings', () => {
    expect(refusal([amplitude], [of((t) => t)], 'q')).toMatch('x does not swing');
  });
});
