import { type Device, type DeviceChannel, type Plan, usualPlan } from '@heuristor/contracts';
import { hintsOf } from './hints';
import { type SeenReadings } from '../../workers/seen';
import { beginningWords, endingWords, rateWordsOf, timesWords } from './planWords';
import { quantitiesOf } from '../../sensors/sensors';
import { unitsFor } from '../../ui/unitsOffered';

const now = Date.parse('2026-11-25T10:00:00Z');

const channel = (changes: Partial<DeviceChannel> = {}): DeviceChannel => ({
  key: 'x',
  quantity: 'position',
  symbol: 'x',
  unit: 'm',
  own: { quantity: 'position', symbol: 'x', unit: 'm' },
  ranges: [{ key: 'only', low: 0.15, high: 6, noise: 0.0003 }],
  range: 'only',
  on: true,
  reversed: false,
  zeroAtStart: false,
  scale: 1,
  offset: 0,
  low: 0.15,
  high: 6,
  noise: 0.0003,
  resolution: 0,
  ...changes,
});

function device(
  code: string,
  { rate = 50, of = channel(), ...changes }: Partial<Device> & { rate?: number; of?: DeviceChannel } = {},
): Device {
  return {
    code,
    model: 'Motion sensor',
    use: { investigation: 'i', name: 'Here' },
    present: true,
    sendsAgain: true,
    waiting: false,
    battery: null,
    signal: null,
    drift: null,
    streams: [
      {
        key: 'motion',
        handle: 1,
        sampling: 'regular',
        edges: null,
        states: [],
        rate,
        liveRate: rate,
        rates: { lowest: 1, highest: Math.max(100, rate), usual: 50 },
        channels: [of],
      },
    ],
    numbers: [],
    outputs: [],
    calibration: { zeros: {}, scales: {}, numbers: {} },
    stage: null,
    away: null,
    remark: '',
    ...changes,
  };
}

const said = (
  plan: Partial<Plan>,
  devices: readonly Device[],
  { recent = [], runs = [] }: { recent?: number[]; runs?: Partial<SeenReadings>[] } = {},
) => {
  const whole = { ...usualPlan, ...plan };
  const seen = runs.map((run) => ({
    key: 'x',
    deviceCode: null,
    least: NaN,
    greatest: NaN,
    band: null,
    ...run,
  }));
  return hintsOf(whole, quantitiesOf(devices, whole, 'i'), { recent: () => recent, inRuns: () => seen }, now);
};

describe('what the next run will hold', () => {
  test('are the channels that are on of the devices that are used here, under keys of their own', () => {
    const elsewhere = device('K9-Z', { use: { investigation: 'j', name: 'There' } });
    const off = device('K8-Y', { of: channel({ on: false }) });
    const found = quantitiesOf(
      [device('K2-B'), device('K1-A'), elsewhere, off, device('K3-C', { present: false })],
      usualPlan,
      'i',
    );
    expect(found.map(({ key, device: { code } }) => [key, code])).toEqual([
      ['x', 'K1-A'],
      ['x2', 'K2-B'],
    ]);
  });

  test('a binding keeps its key, whatever order devices come in', () => {
    const bindings = [{ key: 'x', code: 'K2-B', channel: 'x' }];
    const found = quantitiesOf([device('K1-A'), device('K2-B')], { ...usualPlan, bindings }, 'i');
    expect(found.map(({ key, device: { code } }) => [key, code])).toEqual([
      ['x2', 'K1-A'],
      ['x', 'K2-B'],
    ]);
  });
});

describe('the plan as a sentence', () => {
  const quantities = quantitiesOf([device('K1-A')], usualPlan, 'i');
  test.each([
    [{ kind: 'at-once' as const }, 'when pressed'],
    [{ kind: 'countdown' as const, seconds: 3 }, 'after a countdown of 3 s'],
    [
      {
        kind: 'level' as const,
        level: {
          quantity: 'x',
          of: 'reading' as const,
          direction: 'rise' as const,
          value: -0.05,
          unit: 'm',
        },
        keptSeconds: 0.2,
      },
      'when x rises through −0.05 m, keeping 0.2 s from before',
    ],
    [{ kind: 'switch' as const, quantity: 'S', to: 'off' as const, keptSeconds: 0 }, 'when S switches off'],
  ])('%j', (begin, words) => expect(beginningWords(begin, quantities)).toBe(words));

  test('ends and repeats in words', () => {
    expect(endingWords({ kind: 'events', quantity: 'S', count: 10, atMostSeconds: 60 }, [])).toBe(
      'after 10 times that S switched on, after 60 s at the latest',
    );
    expect(endingWords({ kind: 'stopped' }, [])).toBe('when stopped');
    expect([1, 2, 3, 7, null].map((times) => timesWords({ times }))).toEqual([
      'Once',
      'Twice',
      'Three times',
      '7 times',
      'Again and again until stopped',
    ]);
    expect(
      rateWordsOf(quantitiesOf([device('A1-A'), device('A2-A', { rate: 1 / 60 })], usualPlan, 'i')),
    ).toBe('50 readings a second and a reading a minute');
    const many = [50, 20, 1].map((rate, i) => device(`A${i}-A`, { rate }));
    expect(rateWordsOf(quantitiesOf(many, usualPlan, 'i'))).toBe('readings at 3 rates');
  });
});

describe('what looks wrong about the next run', () => {
  test('nothing, where nothing is', () => expect(said({}, [device('K1-A')])).toEqual([]));

  test('a rate that met the motion of the last run too coarsely; what hands do between runs is none', () => {
    const [hint] = said({}, [device('K1-A')], { runs: [{ band: 0.5 }, { band: 4 }] });
    expect(hint.text).toBe(
      'In the last run x moved with up to 4 Hz: at 50 Hz a period has 13 readings; 20 show it well.',
    );
    expect(hint.mend?.label).toBe('Take 100 Hz');
    expect(said({}, [device('K1-A')], { runs: [{ band: 4 }, { band: 2.5 }] })).toEqual([]);
    const wave = Array.from({ length: 500 }, (_, i) => 1 + 0.1 * Math.sin((2 * Math.PI * 7 * i) / 50));
    expect(said({}, [device('K1-A')], { recent: wave })).toEqual([]);
    expect(said({}, [device('K1-A', { rate: 10 })])).toEqual([]);
  });

  const field = (range: 'fine' | 'coarse') =>
    channel({
      own: { quantity: 'magnetic flux density', symbol: 'B', unit: 'mT' },
      symbol: 'B',
      unit: 'mT',
      ranges: [
        { key: 'coarse', low: -90, high: 90, noise: 0.02 },
        { key: 'fine', low: -8, high: 8, noise: 0.001 },
      ],
      range,
      low: range === 'fine' ? -8 : -90,
      high: range === 'fine' ? 8 : 90,
      zeroAtStart: true,
    });

  test('a reading that stands at its limit, with the wider range as its mend', () => {
    const [hint] = said({}, [device('F1-A', { of: field('fine') })], {
      recent: Array<number>(100).fill(8),
    });
    expect(hint.text).toBe('B is at its limit (F1-A) and measures nothing.');
    expect(hint.mend?.does).toMatchObject({ kind: 'range', range: 'coarse' });
  });

  test('a range that is needlessly large', () => {
    const coarse = device('F1-A', { of: field('coarse') });
    const [hint] = said({}, [coarse], { runs: [{ least: -1, greatest: 2 }] });
    expect(hint.text).toBe('All that B showed in the run lies within a finer range, which is more precise.');
    expect(hint.mend?.label).toBe('Take the range to 8 mT');
    // A run that went beyond it, though all is quiet now; and no run at all.
    const runs = [
      { least: -1, greatest: 40 },
      { least: -1, greatest: 2 },
    ];
    expect(said({}, [coarse], { runs, recent: Array<number>(500).fill(2) })).toEqual([]);
    expect(said({}, [coarse], { recent: Array<number>(500).fill(2) })).toEqual([]);
  });

  test('a force that was never zeroed, a zero of an hour ago, and none where every run makes its own', () => {
    const force = channel({ own: { quantity: 'force', symbol: 'F', unit: 'N' }, symbol: 'F', unit: 'N' });
    const never = device('M1-F', { of: force });
    expect(said({}, [never])[0]).toMatchObject({
      text: 'F (M1-F) was never zeroed.',
      mend: { does: { kind: 'zero' } },
    });
    const zeros = { x: { offset: 0.1, spread: 0.01, at: '2026-11-25T09:00:00Z' } };
    const stale = { ...never, calibration: { zeros, scales: {}, numbers: {} } };
    expect(said({}, [stale])[0].text).toBe('F (M1-F) was last zeroed 60 minutes ago.');
    expect(said({}, [device('M1-F', { of: { ...force, zeroAtStart: true } })])).toEqual([]);
  });

  test('zeros of one device are said and made together', () => {
    const field3 = device('F1-A');
    field3.streams[0].channels = ['B', 'By'].map((symbol) => ({
      ...channel(),
      key: symbol.toLowerCase(),
      symbol,
      own: { quantity: 'magnetic flux density', symbol, unit: 'mT' },
    }));
    expect(said({}, [field3])).toMatchObject([
      {
        text: 'B, By (F1-A) were never zeroed.',
        mend: { label: 'Zero them now', does: { channels: ['b', 'by'] } },
      },
    ]);
  });

  test('a run that begins beyond the level at which it is to end', () => {
    const through = (value: number) => ({
      quantity: 'x',
      of: 'reading' as const,
      direction: 'rise' as const,
      value,
      unit: 'm',
    });
    const plan = (from: number, to: number) => ({
      begin: { kind: 'level' as const, level: through(from), keptSeconds: 0 },
      end: { kind: 'level' as const, level: through(to), atMostSeconds: 60 },
    });
    expect(said(plan(0.9, 0.5), [device('K1-A')])[0].text).toContain('or when x comes back');
    expect(said(plan(0.9, 0.5), [device('K1-A')])[0].mend?.does).toMatchObject({
      patch: { end: { kind: 'level', level: { value: 0.5, direction: 'fall' } } },
    });
    expect(said(plan(0.005, 0.9), [device('K1-A')])).toEqual([]);
  });

  test('an empty battery, a run of a gigabyte, and a quantity that nobody brings', () => {
    const texts = (hints: readonly { text: string }[]) => hints.map(({ text }) => text);
    expect(said({}, [device('K1-A', { battery: 0.1 })])).toMatchObject([
      {
        text: 'The battery of K1-A is at 10 %. Charge it soon.',
        mend: { does: { kind: 'flash', device: { code: 'K1-A' } } },
      },
    ]);
    expect(
      texts(said({ end: { kind: 'after', seconds: 86_400 } }, [device('K1-A', { rate: 2000 })])).join(),
    ).toContain('takes about 1.38 GB');
    const begin = { kind: 'switch' as const, quantity: 'S', to: 'on' as const, keptSeconds: 0 };
    expect(said({ begin }, [device('K1-A')])).toMatchObject([
      {
        text: 'The plan waits for S, and no sensor measures it.',
        mend: { does: { kind: 'plan', patch: { begin: { kind: 'at-once' } } } },
      },
    ]);
    const end = { kind: 'events' as const, quantity: 'G', count: 3, atMostSeconds: 40 };
    expect(said({ end }, [device('K1-A')])).toMatchObject([
      {
        text: 'The plan ends at G, and no sensor measures it.',
        mend: { does: { kind: 'plan', patch: { end: { kind: 'after', seconds: 40 } } } },
      },
    ]);
  });
});

test.each([
  [2000, 86_400, 200],
  [50_000, 3600, 5000],
  [1000, 100_000, 200],
])('%p Hz for %p s is a large run; %p Hz would not be one', (rate, seconds, slower) => {
  const [hint] = said({ end: { kind: 'after', seconds } }, [device('K1-A', { rate })]);
  expect(hint.mend?.does).toMatchObject({ kind: 'rate', rate: slower });
  expect(slower * seconds * 8).toBeLessThanOrEqual(200e6);
});

test('units that teachers ask for stand beside a channel’s own one, and no others', () => {
  expect(unitsFor('m')).toEqual(['m', 'cm', 'mm', '[ft_i]', '[in_i]']);
  expect(unitsFor('rad')).toContain('deg');
  expect(unitsFor('K')).toEqual(['K', 'Cel']);
  expect(unitsFor('mT')).toEqual(['mT', 'T', 'uT', 'G']);
  expect(unitsFor('{counts}')).toEqual(['{counts}']);
});
