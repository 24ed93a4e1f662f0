import fc from 'fast-check';
import { Refusal, orRefusal } from '../refusal';
import { parseUnit } from '../units/unit';
import { repetitions } from '../testing/effort';
import { readSenml, ucumOfSenml } from './senml';

// The examples of RFC 8428, section 5.1, and what they resolve to; packs and values from memory of that document.
describe('RFC 8428', () => {
  test('5.1.1: a single data point', () => {
    expect(readSenml([{ n: 'urn:dev:ow:10e2073a01080063', u: 'Cel', v: 23.1 }])).toEqual([
      { name: 'urn:dev:ow:10e2073a01080063', unit: 'Cel', time: 0, value: 23.1, sum: null },
    ]);
  });

  test('5.1.2: several data points with a base name, a voltage and currents at relative times', () => {
    const pack = [
      {
        bn: 'urn:dev:ow:10e2073a0108006:',
        bt: 1.276020076001e9,
        bu: 'A',
        bver: 5,
        n: 'voltage',
        u: 'V',
        v: 120.1,
      },
      { n: 'current', t: -5, v: 1.2 },
      { n: 'current', t: -4, v: 1.3 },
      { n: 'current', t: -3, v: 1.4 },
      { n: 'current', t: -2, v: 1.5 },
      { n: 'current', t: -1, v: 1.6 },
      { n: 'current', v: 1.7 },
    ];
    const records = readSenml(pack);
    // 5.1.4: resolved, in the order of their times, each with its absolute time and its own unit.
    expect(records.map(({ time }) => time)).toEqual([
      1276020071.001, 1276020072.001, 1276020073.001, 1276020074.001, 1276020075.001, 1276020076.001,
      1276020076.001,
    ]);
    expect(records.slice(0, 5).map(({ value, unit }) => [value, unit])).toEqual([
      [1.2, 'A'],
      [1.3, 'A'],
      [1.4, 'A'],
      [1.5, 'A'],
      [1.6, 'A'],
    ]);
    expect(records[5]).toMatchObject({ name: 'urn:dev:ow:10e2073a0108006:voltage', unit: 'V', value: 120.1 });
    expect(records[6]).toMatchObject({ name: 'urn:dev:ow:10e2073a0108006:current', unit: 'A', value: 1.7 });
  });

  test('5.1.3: several measurements of one sensor, with a base unit and base time', () => {
    const records = readSenml([
      { bn: 'urn:dev:ow:10e2073a01080063', bt: 1.320067464e9, bu: '%RH', v: 20 },
      { u: 'lon', v: 24.30621 },
      { u: 'lat', v: 60.07965 },
      { t: 60, v: 20.3 },
      { u: 'lon', t: 60, v: 24.30622 },
    ]);
    expect(records.map(({ unit, time, value }) => [unit, time, value])).toEqual([
      ['%RH', 1320067464, 20],
      ['lon', 1320067464, 24.30621],
      ['lat', 1320067464, 60.07965],
      ['%RH', 1320067524, 20.3],
      ['lon', 1320067524, 24.30622],
    ]);
  });

  test('5.1.5: numbers, texts, truth values and data', () => {
    const records = readSenml([
      { bn: 'urn:dev:ow:10e2073a01080063:', n: 'temp', u: 'Cel', v: 23.1 },
      { n: 'label', vs: 'Machine Room' },
      { n: 'open', vb: false },
      { n: 'nfc-reader', vd: 'aGkgCg' },
    ]);
    expect(records.map(({ value }) => value)).toEqual([23.1, 'Machine Room', false, 'aGkgCg']);
  });

  test('5.1.6: names of several devices below one base', () => {
    const records = readSenml([
      { bn: '2001:db8::2/', bt: 1.320078429e9, n: 'temperature', u: 'Cel', v: 27.2 },
      { n: 'humidity', u: '%RH', v: 80 },
    ]);
    expect(records.map(({ name }) => name)).toEqual(['2001:db8::2/temperature', '2001:db8::2/humidity']);
  });

  test('section 6: the labels of CBOR mean the same', () => {
    const map = (entries: [number, unknown][]) => new Map<unknown, unknown>(entries);
    expect(
      readSenml([
        map([
          [-2, 'urn:dev:ow:10e2073a0108006:'],
          [-3, 1.276020076001e9],
          [-4, 'A'],
          [-1, 5],
          [0, 'voltage'],
          [1, 'V'],
          [2, 120.1],
        ]),
        map([
          [0, 'current'],
          [6, -5],
          [2, 1.2],
        ]),
      ]),
    ).toMatchObject([
      { unit: 'A', time: 1276020071.001, value: 1.2 },
      { unit: 'V', value: 120.1 },
    ]);
  });

  test('base value and base sum are added; either stands for itself', () => {
    const records = readSenml([
      { bn: 'm', bv: 20, v: 0.5 },
      { n: 'a' },
      { n: 'b', bs: 100, s: 3 },
      { n: 'c', v: -1 },
    ]);
    expect(records.map(({ value, sum }) => [value, sum])).toEqual([
      [20.5, null],
      [20, null],
      [20, 103],
      [19, 100],
    ]);
  });
});

test.each([
  [{}, 'an array of records'],
  [[], 'at least one record'],
  [[{ v: 1 }], 'Record 1: it has no name'],
  [[{ n: 'a' }], 'neither a value nor a sum'],
  [[{ n: '-a', v: 1 }], 'has to begin with a letter or digit'],
  [[{ n: 'a b', v: 1 }], 'nothing but letters'],
  [
    [
      { n: 'a', v: 1 },
      { n: 'b', v: '2' },
    ],
    'Record 2: “v” is "2"',
  ],
  [[{ n: 'a', v: 1, vs: 'x' }], 'has v and vs'],
  [[{ n: 'a', v: 1, bver: 11 }], 'understands versions up to 10'],
  [[{ n: 'a', v: 1, must_: 1 }], 'has to be understood'],
  [[{ n: 'a', v: Infinity }], 'a finite number'],
  [[[1]], 'it is no record'],
])('%j is refused in words', (pack, words) => {
  const found = orRefusal(() => readSenml(pack));
  expect(found instanceof Refusal ? found.message : 'read').toContain(words);
});

test('a field that need not be understood is passed over, whatever it is called', () => {
  expect(readSenml([{ n: 'a', v: 1, note: 'x' }])).toHaveLength(1);
  expect(readSenml([JSON.parse('{"n":"a","v":1,"toString":1}')])).toHaveLength(1);
  expect(() => readSenml([JSON.parse('{"toString":null}')])).toThrow('it has no name');
  expect(() => readSenml([JSON.parse('{"n":"a","v":1,"__proto__":2}')])).toThrow('has to be understood');
});

test('whatever comes, it is read or refused, and never disturbs', () => {
  fc.assert(
    fc.property(
      fc.jsonValue(),
      fc.array(
        fc.dictionary(
          fc.constantFrom('n', 'v', 't', 'bn', 'bt', 'u', 'vs', 's', 'bver', 'x_'),
          fc.jsonValue(),
        ),
      ),
      (any, pack) => {
        for (const given of [any, pack]) {
          const found = orRefusal(() => readSenml(given));
          if (found instanceof Refusal) continue;
          for (const { name, time, value } of found) {
            expect(name).toMatch(/^[A-Za-z0-9]/);
            expect(Number.isFinite(time)).toBe(true);
            expect(typeof value === 'number' ? Number.isFinite(value) : true).toBe(true);
          }
        }
      },
    ),
    { numRuns: repetitions(1500, 7500) },
  );
}, 60_000);

test('units of its registry become UCUM codes that are known', () => {
  expect(['%RH', 'lat', 'beat/min', '1/s', 'm/s2', 'Cel'].map(ucumOfSenml)).toEqual([
    '%',
    'deg',
    '/min',
    's-1',
    'm/s2',
    'Cel',
  ]);
  expect(parseUnit(ucumOfSenml('m/s2'))).toEqual(parseUnit('m.s-2'));
});
