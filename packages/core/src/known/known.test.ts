import { Refusal } from '../refusal';
import { measureOfUnit } from '../units/conversion';
import { parseUnit } from '../units/unit';
import { densities, fundamentalConstants } from './constants';
import { normalGravity } from './gravity';
import { resistorOf } from './resistor';

// Source: NIMA TR8350.2, table 3.4: normal gravity at the equator and at the poles; at 45° the value of the international gravity
// formula of 1980, 9.806199 m/s² (Moritz, Geodetic Reference System 1980), which differs in the seventh digit. From memory.
test.each([
  [0, 9.7803253359, 9],
  [90, 9.8321849378, 8],
  [-90, 9.8321849378, 8],
  [45, 9.806199, 5],
])('normal gravity at %p° is %p m/s²', (latitude, gravity, digits) =>
  expect(normalGravity(latitude, 0)).toBeCloseTo(gravity, digits),
);

test('gravity falls by 0.3086 mGal a metre (free-air gradient, any textbook of geophysics)', () => {
  expect((normalGravity(45, 0) - normalGravity(45, 1000)) / 1000).toBeCloseTo(3.086e-6, 8);
  expect(() => normalGravity(91, 0)).toThrow(Refusal);
  expect(() => normalGravity(45, 1e6)).toThrow(Refusal);
});

// Readings by IEC 60062, as in any shop’s table.
test.each([
  [['brown', 'black', 'red', 'gold'], 1000, 0.05],
  [['yellow', 'violet', 'orange', 'gold'], 47_000, 0.05],
  [['red', 'red', 'brown'], 220, 0.2],
  [['brown', 'black', 'black', 'brown', 'brown'], 1000, 0.01],
  [['orange', 'orange', 'gold', 'silver'], 3.3, 0.1],
  [['green', 'blue', 'silver', 'gold'], 0.56, 0.05],
] as const)('the bands %j are %p Ω within %p', (bands, ohms, tolerance) => {
  const found = resistorOf(bands);
  expect(found.ohms).toBeCloseTo(ohms, 9);
  expect(found.tolerance).toBe(tolerance);
  expect(found.standardUncertainty).toBeCloseTo((ohms * tolerance) / Math.sqrt(3), 9);
});

test('bands that say nothing are refused', () => {
  expect(() => resistorOf(['gold', 'red', 'red', 'brown'])).toThrow('other end');
  expect(() => resistorOf(['red', 'red', 'red', 'white'])).toThrow('tolerance');
  expect(() => resistorOf(['black', 'black', 'red', 'gold'])).toThrow('0 Ω');
  expect(() => resistorOf(['red', 'red'])).toThrow('three to five');
});

test('constants that ship have units that are known, and belong to each other', () => {
  for (const { unit, uncertainty, source } of [...fundamentalConstants, ...densities]) {
    expect(measureOfUnit(parseUnit(unit))).toBeDefined();
    expect(uncertainty).toBeGreaterThanOrEqual(0);
    expect(source).not.toBe('');
  }
  const of = (symbol: string) => fundamentalConstants.find((one) => one.symbol === symbol)?.value ?? NaN;
  // By definition, or by the equations of electromagnetism and of radiation.
  expect(of('R') / (of('N_A') * of('k_B'))).toBeCloseTo(1, 12);
  expect(of('ε0') * of('μ0') * of('c') ** 2).toBeCloseTo(1, 10);
  expect(of('σ') / ((2 * Math.PI ** 5 * of('k_B') ** 4) / (15 * of('h') ** 3 * of('c') ** 2))).toBeCloseTo(
    1,
    9,
  );
});
