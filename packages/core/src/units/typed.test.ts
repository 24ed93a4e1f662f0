import { typedLoad, typedQuantity, typedRate } from './typed';
import { parseUnit } from './unit';

test.each([
  ['50', 50],
  ['80 Hz', 80],
  ['50hz', 50],
  ['2 kHz', 2000],
  ['25 ms', 40],
  ['every 25 ms', 40],
  ['6 an hour', 1 / 600],
  ['100 µs', 10_000],
  ['1 a minute', 1 / 60],
  ['10 per second', 10],
  ['10 readings per second', 10],
  ['5/s', 5],
  ['2 min', 1 / 120],
  ['every minute', 1 / 60],
  ['every 5 minutes', 1 / 300],
  ['0,5 Hz', 0.5],
  ['30 s', 1 / 30],
  ['1/60 Hz', 1 / 60],
  ['once a minute', 1 / 60],
  ['Twice a second', 2],
  ['10 readings a second', 10],
  ['50 hertz', 50],
  ['2 seconds', 0.5],
])('a rate typed as %p is %p Hz', (text, rate) => expect(typedRate(text)).toBeCloseTo(rate, 12));

test.each(['', 'fast', '0', '-5 Hz', '20 m', '1 a week', 'Hz', '5 m/s'])('%p is no rate', (text) =>
  expect(() => typedRate(text)).toThrow('is no rate. Type one like 80 Hz, 25 ms or 6 an hour.'),
);

test.each([
  ['1 1/2', 1.5],
  ['-1 1/2', -1.5],
  ['1/2', 0.5],
  ['10 000', 10_000],
  ["12'500.5", 12_500.5],
  ['1\u202f234,5', 1234.5],
  ['3 x 10^4', 3e4],
  ['2.5 × 10−3', 2.5e-3],
  ['1e3', 1000],
])('%p is read as %p', (text, value) => expect(typedQuantity(text, [])).toBeCloseTo(value, 12));

test.each(['10 5', '1.5.2', '1,5,2', '1 2 3', '3/2/1', '1/0', '1 000 0', '.', '-'])('%p is refused', (text) =>
  expect(() => typedQuantity(text, [])).toThrow('is no number'),
);

// A mixed fraction of an inch: 1 1/2 in = 38.1 mm (1 in = 25.4 mm, 1959).
test('a mixed fraction takes a unit', () =>
  expect(typedQuantity('1 1/2 in', parseUnit('mm'))).toBeCloseTo(38.1, 12));

// SI Brochure, 9th edition, table 8 and its notes; 1 psi = 6894.757 Pa and 1 cal = 4.184 J (ISO 80000-4 and -5); 1 eV and 1 u by
// CODATA 2022.
test.each([
  ['1 kWh', 'J', 3.6e6],
  ['1 MeV', 'J', 1.602176634e-13],
  ['1 u', 'kg', 1.66053906892e-27],
  ['1 psi', 'Pa', 6894.757293168],
  ['3000 rpm', 'rad/s', 100 * Math.PI],
  ['1 kcal', 'J', 4184],
  ['2 t', 'kg', 2000],
  ['1 mAh', 'C', 3.6],
  ['5 kBq', 's-1', 5000],
  ['400 ppm', '%', 0.04],
  ['20 dB', 'Np', Math.LN10],
  ['250 ml', 'L', 0.25],
])('%p in %s is %p', (text, unit, value) =>
  expect(typedQuantity(text, parseUnit(unit)) / value).toBeCloseTo(1, 9),
);

// Source: international yard and pound, 1959: 1 in = 25.4 mm exactly; SI Brochure (2019): 1° = π/180 rad, 0 °C = 273.15 K.
test.each([
  ['53 in', 'm', 1.3462],
  ['12 cm', 'm', 0.12],
  ['30 deg', 'rad', Math.PI / 6],
  ['0,5', 'm', 0.5],
  ['−3.5 N', 'N', -3.5],
  ['1.5e-3', 'T', 0.0015],
  ['20 °C', 'K', 293.15],
  ['2 turns', 'rad', 4 * Math.PI],
  ['50 G', 'mT', 5],
  ['1 013.25 hPa', 'kPa', 101.325],
  ['36 km/h', 'm/s', 10],
  ['1/2 in', 'm', 0.0127],
  ['53 inches', 'm', 1.3462],
  ['6 feet', 'm', 1.8288],
  ['2"', 'm', 0.0508],
  ['3 Metres', 'm', 3],
  ['45 degrees', 'deg', 45],
  // 1 lbf = 4.448 221 615 260 5 N, 1 mi/h = 0.447 04 m/s, 1 atm = 101 325 Pa, 1 mmHg = 133.322 Pa: NIST SP 811, from memory.
  ['1 lbf', 'N', 4.4482216152605],
  ['1 mph', 'm/s', 0.44704],
  ['1 atm', 'hPa', 1013.25],
  ['100 gon', 'deg', 90],
  ['68 °F', 'K', 293.15],
  ['20 C', 'K', 293.15],
  ['-40 °F', 'Cel', -40],
])('%p where %s is expected is %p', (text, unit, value) =>
  expect(typedQuantity(text, parseUnit(unit))).toBeCloseTo(value, 12),
);

test.each([
  ['twelve', 'm', 'is no number. Type one like 1.25 m.'],
  ['5 kg', 'm', 'measures something else. It is expected in m or the like.'],
  ['5 wobbles', 'm', 'is no unit that is known here. It is expected in m.'],
  ['5 m', '1', 'This is a plain number, without “m”.'],
])('%p where %s is expected is refused', (text, unit, words) =>
  expect(() => typedQuantity(text, parseUnit(unit))).toThrow(words),
);

test('a millimetre of mercury is written as people write it', () => {
  expect(typedQuantity('760 mmHg', parseUnit('hPa'))).toBeCloseTo(1013.25, 3);
});

test('what hangs on a force sensor is typed as a force or as a mass, which pulls with its weight', () => {
  const newton = parseUnit('N');
  expect(typedLoad('500 g', newton)).toEqual({ value: 0.5 * 9.80665, mass: 0.5 });
  expect(typedLoad('1 lb', newton).value).toBeCloseTo(4.4482216152605, 9);
  expect(typedLoad('0,2 kg', parseUnit('mN')).value).toBeCloseTo(1961.33, 9);
  expect(typedLoad('4.9', newton)).toEqual({ value: 4.9, mass: null });
  expect(() => typedLoad('5 m', newton)).toThrow('measures something else');
  expect(() => typedLoad('500 g', parseUnit('m'))).toThrow('measures something else');
});

test('thousands set off by a comma are not taken for decimals', () => {
  expect(() => typedQuantity('1,234.5', parseUnit('m'))).toThrow();
  expect(() => typedQuantity('1/2/3', parseUnit('m'))).toThrow();
});
