import { channelOf } from '../testing/sheet';
import { resultIn } from '../testing/coverage';
import { parseUnit } from '../units/unit';
import { readIn } from '../units/conversion';
import { type Entry, entrySentence } from './entries';
import { evaluate } from './evaluate';
import { type ChannelData } from './run';
import { withUnitsGiven } from './givenUnits';
import { transferred } from './transfer';

// One motion, in metres and in feet (1 ft = 0.3048 m exactly, by the international yard and pound agreement of 1959):
// whatever is worked out on it must be the same thing. Truths are those of the function that the readings are made from, by hand.

const x = 'channel:x';
/** x = 0.5 t² m from 0 to 2 s. */
const motionIn = (unit: string, factor: number): ChannelData =>
  channelOf(
    'x',
    unit,
    Float64Array.from({ length: 201 }, (_, i) => (0.5 * (i * 0.01) ** 2) / factor),
    0.01,
  );
const metres = motionIn('m', 1);
const feet = motionIn('[ft_i]', 0.3048);
const region = (more: object): Entry => ({
  kind: 'region',
  id: 'A',
  name: '',
  letter: 'A',
  along: 't',
  start: 0,
  end: 2,
  ...more,
});
const outcomeOf = (entries: Entry[], channels: ChannelData[], id: string) =>
  evaluate({ entries }, { id: 'r', channels }).outcomes.get(id);
const told = { toldIn: { [x]: 'm' } };

describe('a number that was typed in metres means the same in a run in feet', () => {
  it('where a region begins', () => {
    const from = { event: 'rises', of: x, level: 0.5, count: 1, offset: 0 } as const;
    for (const channel of [metres, feet]) {
      const outcome = outcomeOf([region({ from, ...told })], [channel], 'A');
      if (outcome?.kind !== 'region') throw new Error(JSON.stringify(outcome));
      // 0.5 t² = 0.5 at t = 1.
      expect(outcome.start).toBeCloseTo(1, 9);
    }
  });

  it('where a region lies along a length, in this run and in one run alone', () => {
    const mean: Entry = { kind: 'statistics', id: 'q', name: '', of: x, region: 'A' };
    const along = { along: x, start: 0.5, end: 1.125, ...told };
    for (const channel of [metres, feet])
      for (const own of [[], [{ run: 'r', start: 0.5, end: 0.5 + 0.625 }]]) {
        const outcome = outcomeOf([region({ ...along, own }), mean], [channel], 'q');
        if (outcome?.kind !== 'results') throw new Error(JSON.stringify(outcome));
        // From t = 1 to 1.5 s: 51 readings.
        expect(outcome.results.find(({ key }) => key === 'count')?.quantity.value).toBe(51);
      }
  });

  it('when a level is crossed, and how it is said', () => {
    const entry: Entry = {
      kind: 'crossings',
      id: 'q',
      name: '',
      of: x,
      direction: 'rise',
      level: 1.28,
      region: null,
      ...told,
    };
    for (const channel of [metres, feet])
      // 0.5 t² = 1.28 at t = 1.6.
      expect(resultIn([entry], [channel], 'q', 'first').quantity.value).toBeCloseTo(1.6, 9);
    expect(entrySentence(entry, () => 'x')).toBe('x rising through 1.28 m');
    const high = { ...entry, level: 10 };
    expect(outcomeOf([high], [feet], 'q')).toMatchObject({
      sentence: 'x does not go through 32.808 ft here. Type another level, or move the region.',
    });
  });

  it('from which level an area counts, and what is taken off a series', () => {
    const area: Entry = {
      kind: 'area',
      id: 'q',
      name: '',
      of: x,
      against: 't',
      region: null,
      baseline: 'level',
      level: 0.5,
      ...told,
    };
    const shifted: Entry = {
      kind: 'shifted',
      id: 's',
      name: 'y',
      of: x,
      less: 'number',
      number: 0.5,
      factor: 1,
      ...told,
    };
    const middle: Entry = { kind: 'statistics', id: 'q', name: '', of: 'entry:s', region: null };
    for (const [channel, inMetres] of [
      [metres, 1],
      [feet, 0.3048],
    ] as const) {
      // ∫ 0.5 t² dt from 0 to 2 is 4/3, less 0.5 · 2.
      expect(resultIn([area], [channel], 'q').quantity.value * inMetres).toBeCloseTo(1 / 3, 4);
      // Σ i² over 201 readings is 200 · 201 · 401/6: the mean of 0.5 t² is 0.5 · 10⁻⁴ · 200 · 401/6.
      const mean = (0.5e-4 * 200 * 401) / 6;
      expect(resultIn([shifted, middle], [channel], 'q', 'mean').quantity.value * inMetres).toBeCloseTo(
        mean - 0.5,
        9,
      );
    }
  });

  it('how wide the bins of a histogram are', () => {
    const entry: Entry = {
      kind: 'histogram',
      id: 'q',
      name: '',
      of: x,
      region: null,
      rule: 'typed',
      width: 0.25,
      ...told,
    } as Entry;
    expect(resultIn([entry], [feet], 'q', 'width').quantity.value).toBeCloseTo(0.25 / 0.3048, 9);
  });

  it('where a parameter of a typed relation is held', () => {
    const entry: Entry = {
      kind: 'formulaFit',
      id: 'q',
      name: '',
      formula: { text: 'x0 + a/2 * t^2', names: {} },
      of: x,
      against: 't',
      region: null,
      parameters: { x0: { start: 0.2, held: true, low: null, high: null, toldIn: 'm' } },
      weights: 'equal',
      showResiduals: false,
    } as Entry;
    const found = [metres, feet].map((channel) => {
      const { value, unit } = resultIn([entry], [channel], 'q', 'a').quantity;
      return readIn(value, unit, parseUnit('m/s2'));
    });
    // a Σ t⁴/4 = Σ (0.5 t² − 0.2) t²/2 over the readings.
    let [above, below] = [0, 0];
    for (let i = 0; i <= 200; i++) {
      const t = i * 0.01;
      above += ((0.5 * t ** 2 - 0.2) * t ** 2) / 2;
      below += t ** 4 / 4;
    }
    expect(found[0]).toBeCloseTo(above / below, 9);
    expect(found[1]).toBeCloseTo(above / below, 9);
  });
});

test('a temperature that was typed in °C is that point in a run in K; a width is an interval', () => {
  // 20 °C + 2 K/s · t, so that 25 °C is reached after 2.5 s.
  const warming = (unit: string, zero: number) =>
    channelOf(
      'T',
      unit,
      Float64Array.from({ length: 101 }, (_, i) => zero + 20 + 2 * 0.1 * i),
      0.1,
    );
  const T = 'channel:T';
  const crossing: Entry = {
    kind: 'crossings',
    id: 'q',
    name: '',
    of: T,
    direction: 'both',
    level: 25,
    region: null,
    toldIn: { [T]: 'Cel' },
  };
  const bins = {
    kind: 'histogram',
    id: 'q',
    name: '',
    of: T,
    region: null,
    rule: 'typed',
    width: 2,
    toldIn: { [T]: 'Cel' },
  } as Entry;
  for (const channel of [warming('Cel', 0), warming('K', 273.15)]) {
    expect(resultIn([crossing], [channel], 'q', 'first').quantity.value).toBeCloseTo(2.5, 9);
    expect(resultIn([bins], [channel], 'q', 'width').quantity.value).toBeCloseTo(2, 9);
  }
});

test('what measures something else is refused with what was typed; a number without a unit is that of each run', () => {
  const load = { ...feet, unit: parseUnit('N') };
  const entry: Entry = {
    kind: 'crossings',
    id: 'q',
    name: '',
    of: x,
    direction: 'rise',
    level: 1.28,
    region: null,
  };
  expect(outcomeOf([{ ...entry, ...told }], [load], 'q')).toMatchObject({
    kind: 'refused',
    sentence: 'x is measured in N here, and 1.28 m was typed of it. Type it anew, or choose another series.',
  });
  // As sheets of before say it: 1.28 ft, which is 0.390144 m.
  expect(resultIn([entry], [feet], 'q', 'first').quantity.value).toBeCloseTo(Math.sqrt(2 * 0.390144), 4);
});

test('units are stored once, of what is asked for alone, and go where the entry goes', () => {
  const unitOf = (of: string) => (of === x ? 'm' : null);
  const area: Entry = { kind: 'area', id: 'q', name: '', of: x, against: 't', region: null };
  expect(withUnitsGiven(area, unitOf)).toBe(area);
  const level = withUnitsGiven({ ...area, baseline: 'level', level: 1 }, unitOf);
  expect(level.toldIn).toEqual({ [x]: 'm' });
  // Stored once, a unit stays, whatever is in front.
  expect(withUnitsGiven(level, () => '[ft_i]')).toBe(level);
  expect(withUnitsGiven({ ...level, baseline: 'zero' } as Entry, unitOf).toldIn).toBeUndefined();
  expect(withUnitsGiven({ ...level, of: 'channel:F' } as Entry, unitOf).toldIn).toBeUndefined();
  const channels = [{ key: 'x', quantity: 'position', unit: 'm' }];
  const there = { entries: [], channels: [{ key: 's', quantity: 'position', unit: 'cm' }] };
  const { entries } = transferred({ entries: [level], channels }, null, there, () => 'new');
  expect(entries[0]).toMatchObject({ of: 'channel:s', level: 1, toldIn: { 'channel:s': 'm' } });
});
