import { typedQuantity, typedRate } from './typed';
import { parseUnit } from './unit';

test.each([
  ['50', 50],
  ['50 Hz', 50],
  ['50hz', 50],
  ['2 kHz', 2000],
  ['20 ms', 50],
  ['every 20 ms', 50],
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
])('a rate typed as %p is %p Hz', (text, rate) => expect(typedRate(text)).toBeCloseTo(rate, 12));

test.each(['', 'fast', '0', '-5 Hz', '20 m', '1 a week', 'Hz', '5 m/s'])('%p is no rate', (text) =>
  expect(() => typedRate(text)).toThrow('is no rate. Type one like 50 Hz, 20 ms or 1 a minute.'),
);

// Source: international yard and pound, 1959: 1 in = 25.4 mm exactly; SI Brochure (2019): 1° = π/180 rad, 0 °C = 273.15 K.
test.each([
  ['71 in', 'm', 1.8034],
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
