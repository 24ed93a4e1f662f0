import { normalRandom } from '../random';
import { regular } from '../series/sampling';
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
const refusal = (entries: Entry[], channels: ChannelData[], id = 'q') => {
  const outcome = evaluate({ entries }, { id: 'r', channels }).outcomes.get(id);
  return outcome?.kind === 'refused' ? outcome.sentence : null;
};
const valueOf = (entries: Entry[], channels: ChannelData[], key?: string) =>
  resultIn(entries, channels, 'q', key).quantity.value;
const region = (id: string, start: number, end: number, more = {}): Entry => ({
  kind: 'region',
  id,
  name: '',
  letter: id,
  along: 't',
  start,
  end,
  ...more,
});
const x = 'channel:x';
const q = { id: 'q', name: '', of: x, region: 'A' } as const;
const inRange = (share: number) => {
  expect(share).toBeGreaterThanOrEqual(0.64);
  expect(share).toBeLessThanOrEqual(0.725);
};

describe('statistics', () => {
  // 2, 4, 4, 4, 5, 5, 7, 9: mean 5, Σ(x − 5)² = 32, sd √(32/7) = 2.1381, over √8 0.7559; median 4.5, range 7.
  it('tell median, standard error and range', () => {
    // Numbered, not timed: what follows in time may be a motion, which has no standard error.
    const values = Float64Array.of(2, 4, 4, 4, 5, 5, 7, 9);
    const channel = { ...of(() => 0, { n: 8 }), values, timeUnit: [] };
    const entry: Entry = { kind: 'statistics', ...q, region: null };
    const value = (key: string) => valueOf([entry], [channel], key);
    expect(value('median')).toBe(4.5);
    expect(value('range')).toBe(7);
    expect(value('standardError')).toBeCloseTo(0.755929, 6);
  });
});

describe('an area', () => {
  const area: Entry = { kind: 'area', ...q, against: 't' };
  // A triangle of height 2 between 1 and 2 over a slope of 0.5 + 0.1 t: 1 without the slope.
  const pulse = (t: number) => 0.5 + 0.1 * t + Math.max(0, 2 - 4 * Math.abs(t - 1.5));
  const A = region('A', 1, 2);

  it('is taken from zero, a level, the mean of a region, or the line between its ends', () => {
    const under = (more: object) => valueOf([A, region('B', 1, 1.0001), { ...area, ...more }], [of(pulse)]);
    expect(under({})).toBeCloseTo(1 + 0.5 + 0.15, 4);
    expect(under({ baseline: 'level', level: 0.5 })).toBeCloseTo(1.15, 4);
    expect(under({ baseline: 'mean', meanOf: 'B' })).toBeCloseTo(1.05, 4);
    expect(under({ baseline: 'ends' })).toBeCloseTo(1, 4);
  });

  it.each([
    ['the mean of a region', { baseline: 'mean', meanOf: 'B' }, 1],
    ['the line between its ends', { baseline: 'ends' }, 1],
  ] as const)('from %s covers its truth', (_, more, truth) => {
    const normal = normalRandom(14);
    inRange(
      coverageOf([A, region('B', 0, 0.4), { ...area, ...more }], truth, () => [
        of((t) => 0.5 + Math.max(0, 2 - 4 * Math.abs(t - 1.5)) + 0.1 * normal(), { interval: 0.02 }),
      ]),
    );
  });

  it('along a path, from the line between its ends, covers its truth with noise in both', () => {
    const normal = normalRandom(15);
    // F = 3 x² from x = 0.2 to 0.8 less the line between: ∫ = 0.504 − 0.6 · (0.12 + 1.92)/2 = −0.108.
    const entries: Entry[] = [
      region('A', 1, 4),
      { kind: 'area', id: 'q', name: '', region: 'A', of: 'channel:F', against: x, baseline: 'ends' },
    ];
    const position = (t: number) => 0.2 * t;
    inRange(
      coverageOf(entries, -0.108, () => [
        of((t) => position(t) + 0.002 * normal(), { n: 250, interval: 0.02 }),
        of((t) => 3 * position(t) ** 2 + 0.02 * normal(), { key: 'F', unit: 'N', n: 250, interval: 0.02 }),
      ]),
    );
  });

  it('against something that was read at other times knows whose noise is whose', () => {
    const normal = normalRandom(16);
    const entry: Entry = { kind: 'area', id: 'q', name: '', region: 'A', of: 'channel:F', against: x };
    const position = (t: number) => 0.1 * t;
    const truth = (20 * 0.1 ** 2 * (3.5 ** 2 - 0.5 ** 2)) / 2;
    inRange(
      coverageOf([region('A', 0.5, 3.5), entry], truth, () => [
        of((t) => position(t) + 0.004 * normal(), { n: 100, interval: 0.04 }),
        {
          ...of((t) => 20 * position(t) + 0.01 * normal(), { key: 'F', unit: 'N', n: 400 }),
          sampling: regular(0, 0.01, 400),
        },
      ]),
    );
  });
});

describe('peaks, crossings and steps', () => {
  const swing = (t: number) => 0.3 + 0.1 * Math.sin(2 * Math.PI * t);

  it('peaks: how many, how high, how far apart', () => {
    const entry: Entry = { kind: 'peaks', ...q, region: null };
    const value = (key: string) => valueOf([entry], [of(swing)], key);
    expect([value('count'), value('troughs')]).toEqual([4, 4]);
    expect(value('peak')).toBeCloseTo(0.4, 4);
    expect(value('amplitude')).toBeCloseTo(0.1, 4);
    expect(value('spacing')).toBeCloseTo(1, 4);
    expect(refusal([entry], [of((t) => t)])).toMatch('x has no peak and no trough here');
  });

  it('the spacing of peaks covers its truth', () => {
    const normal = normalRandom(17);
    inRange(
      coverageOf([{ kind: 'peaks', ...q, region: null }], 1, () => [of((t) => swing(t) + 0.004 * normal())], {
        key: 'spacing',
      }),
    );
  });

  it('crossings: when, how often, how long after the begin of the region', () => {
    const entry: Entry = { kind: 'crossings', ...q, direction: 'rise', level: 0.35 };
    const entries = [region('A', 0.5, 3.5), entry];
    const value = (key: string) => valueOf(entries, [of(swing)], key);
    expect(value('first')).toBeCloseTo(1 + 1 / 12, 3);
    expect(value('after')).toBeCloseTo(0.5 + 1 / 12, 3);
    expect(value('count')).toBe(3);
    expect(value('spacing')).toBeCloseTo(1, 3);
    expect(refusal([region('A', 0.5, 3.5), { ...entry, level: 2 }], [of(swing)])).toMatch(
      'does not go through 2',
    );
  });

  it('a time to a level covers its truth', () => {
    const normal = normalRandom(18);
    inRange(
      coverageOf(
        [region('A', 0.5, 3.5), { kind: 'crossings', ...q, direction: 'rise', level: 1.234 }],
        1.234,
        () => [of((t) => t + 0.01 * normal())],
      ),
    );
  });

  // 1 − exp(−t/τ) takes τ ln 9 from 10 % to 90 %.
  it('the rise time of an approach is 2.197 time constants', () => {
    const step = of((t) => (t < 0.5 ? 0 : 5 * (1 - Math.exp(-(t - 0.5) / 0.2))), { n: 400 });
    const entry: Entry = { kind: 'riseTime', ...q, region: null, shares: '10' };
    expect(valueOf([entry], [step])).toBeCloseTo(0.2 * Math.log(9), 3);
    expect(valueOf([{ ...entry, shares: '20' }], [step])).toBeCloseTo(0.2 * Math.log(4), 3);
    const down = { ...step, values: step.values.map((value) => -value) };
    expect(valueOf([entry], [down])).toBeCloseTo(0.2 * Math.log(9), 3);
    expect(refusal([entry], [of(() => 1)])).toMatch('There is no step here');
  });

  it('a rise time covers its truth', () => {
    const normal = normalRandom(19);
    inRange(
      coverageOf([{ kind: 'riseTime', ...q, region: null, shares: '10' }], 0.8, () => [
        of((t) => Math.min(Math.max(t - 1.5, 0), 1) + 0.005 * normal()),
      ]),
    );
  });

  it('the change across a region covers its truth, and is cut where the run ends', () => {
    const normal = normalRandom(24);
    const entry: Entry = { kind: 'changeAcross', ...q };
    inRange(coverageOf([region('A', 0.505, 2.505), entry], 6, () => [of((t) => 3 * t + 0.02 * normal())]));
    expect(valueOf([region('A', 3, 9), entry], [of((t) => t)])).toBeCloseTo(0.99, 9);
    expect(valueOf([region('A', 3, 9), entry], [of((t) => t)], 'rate')).toBeCloseTo(1, 9);
    const along = region('A', 0.2, 0.8, { along: x });
    expect(
      valueOf([along, { ...entry, of: 'channel:F' }], [of((t) => t), of((t) => t * t, { key: 'F' })]),
    ).toBeCloseTo(0.6, 1);
  });

  it('a value is read when something happens', () => {
    const entry: Entry = {
      kind: 'readout',
      id: 'q',
      name: '',
      of: x,
      at: 0,
      when: { event: 'peak', of: x, level: 0, count: 2, offset: 0.25 },
    };
    expect(valueOf([entry], [of(swing)])).toBeCloseTo(0.3, 4);
    expect(valueOf([entry], [of(swing)], 'at')).toBeCloseTo(1.5, 4);
  });
});

describe('a region that is attached', () => {
  const at = (event: 'rises' | 'peak' | 'begins' | 'ends', offset = 0, level = 0) =>
    ({ event, of: x, level, count: 1, offset }) as const;
  const endsIn = (entry: Entry, channels: ChannelData[], id = 'r') => {
    const outcome = evaluate({ entries: [entry] }, { id, channels }).outcomes.get('A');
    return outcome?.kind === 'region' ? [outcome.start, outcome.end] : outcome;
  };

  it('is cut alike in runs that begin at other moments', () => {
    const entry = region('A', 0, 9, { from: at('rises', 0.1, 1), until: at('ends', -0.2) });
    for (const delay of [0, 0.4, 0.9]) {
      const [start, end] = endsIn(entry, [of((t) => t - delay)]) as number[];
      expect(start).toBeCloseTo(1.1 + delay, 9);
      expect(end).toBeCloseTo(3.79, 9);
    }
  });

  it('is cut to whole cycles', () => {
    const wholeOf = (from: number, to: number) =>
      endsIn(region('A', from, to, { cyclesOf: x }), [of((t) => Math.sin(2 * Math.PI * t))]) as number[];
    // From rise to rise, or from fall to fall where that keeps more.
    expect(wholeOf(0.6, 3.4)).toEqual([expect.closeTo(1, 3), expect.closeTo(3, 3)]);
    expect(wholeOf(0.4, 2.7)).toEqual([expect.closeTo(0.5, 3), expect.closeTo(2.5, 3)]);
    // All three that fit; of a run that begins with a crossing both.
    expect(wholeOf(0.1, 3.4)).toEqual([expect.closeTo(0.1, 3), expect.closeTo(3.1, 3)]);
    expect(wholeOf(0, 2.1)).toEqual([expect.closeTo(0, 3), expect.closeTo(2, 3)]);
  });

  it('lies elsewhere in one run, and in the others where it was', () => {
    const entry = region('A', 1, 2, { own: [{ run: 'second', start: 1.5, end: 3 }] });
    expect(endsIn(entry, [of((t) => t)], 'first')).toEqual([1, 2]);
    expect(endsIn(entry, [of((t) => t)], 'second')).toEqual([1.5, 3]);
  });

  it('says in which run there is no such thing', () => {
    const entry = region('A', 0, 9, { from: at('rises', 0, 7) });
    expect(endsIn(entry, [of((t) => t)])).toMatchObject({
      sentence: 'x has no rise through 7 m in this run. Attach to something else that happens in it.',
    });
    const wrong = region('A', 0, 9, { from: at('ends'), until: at('begins') });
    expect(endsIn(wrong, [of((t) => t)])).toMatchObject({
      sentence: expect.stringContaining('the end of this region comes before its start') as unknown,
    });
  });

  it('lets what is worked out on it follow', () => {
    const entries: Entry[] = [
      region('A', 0, 9, { from: at('rises', 0, 1), until: at('rises', 1, 1) }),
      { kind: 'slope', ...q, against: 't' },
    ];
    for (const delay of [0, 0.5])
      expect(
        valueOf(entries, [of((t) => (t - delay > 1 ? 1 + 3 * (t - delay - 1) : t - delay))]),
      ).toBeCloseTo(3, 2);
  });
});

test('periods in a region that is cut to whole cycles are all of them', () => {
  const normal = normalRandom(23);
  for (const noise of [0, 0.002])
    for (const cyclesIn of [1, 2, 7]) {
      const swing = of((t) => 0.2 * Math.sin(2 * Math.PI * t - 0.6) + noise * normal(), { n: 900 });
      const entries: Entry[] = [region('A', 0.3, cyclesIn + 1.3, { cyclesOf: x }), { kind: 'cycles', ...q }];
      expect(valueOf(entries, [swing], 'count')).toBe(cyclesIn);
      expect(valueOf(entries, [swing], 'period')).toBeCloseTo(1, 2);
    }
});

test('a condition that was not typed of a run is asked for', () => {
  const entry: Entry = {
    kind: 'calculation',
    id: 'q',
    name: 'p',
    formula: { text: '2 m', names: {} },
    unit: '',
  };
  const run = {
    id: 'r',
    channels: [of((t) => t)],
    conditions: [{ name: 'm', value: null, uncertainty: null, unit: 'kg' }],
  };
  const outcome = evaluate({ entries: [entry] }, run).outcomes.get('q');
  expect(outcome).toMatchObject({
    sentence: expect.stringContaining('m was not typed of this run.') as unknown,
  });
});
