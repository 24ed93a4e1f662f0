import { parseUnit, printedUnit } from '../units/unit';
import { readableUnit, resultInUnit, unitChoices, unitShown } from './readable';
import { resultText } from './rounding';

const shown = (value: number, halfWidth: number | null, unit: string, chosen?: string): string => {
  const told = { value, halfWidth, roundTo: null, unit: parseUnit(unit) };
  const wanted = resultInUnit(told, unitShown(told, chosen));
  return `${resultText(wanted.value, wanted.halfWidth)} ${printedUnit(wanted.unit)}`;
};

// Engineering notation: prefixes of powers of a thousand (ISO 80000-1, 7.2.2 and the SI Brochure, 9th edition, table 7).
test.each([
  [0.0004309165, 2.1e-6, 's', '430.9 ± 2.1 µs'],
  [0.027464, 0.000059, 'm', '27.464 ± 0.059 mm'],
  [-8.1e-5, 4.2e-5, 'm', '−81 ± 42 µm'],
  [0.94277, 0.00019, 's', '0.94277 ± 0.00019 s'],
  [47_200, 120, 'Ohm', '47.20 ± 0.12 kΩ'],
  [3.2e6, 4e3, 'Hz', '3.2000 ± 0.0040 MHz'],
  [0.0123, 0.0002, 'A', '12.30 ± 0.20 mA'],
  [4.7e-8, 1e-9, 'F', '47.0 ± 1.0 nF'],
  [0.0215, 0.0003, 'kg', '21.50 ± 0.30 g'],
  [0.0000001, null, 'g', '0.1000 µg'],
  // A product of units is left alone, and so is what is read well.
  [0.0123, 0.0002, 'm/s', '0.01230 ± 0.00020 m s⁻¹'],
  [999, 1, 's', '999.0 ± 1.0 s'],
  [0, 0.002, 'N', '0.0 ± 2.0 mN'],
  [0, null, 's', '0 s'],
])('%p ± %p %s is shown as %s', (value, halfWidth, unit, text) => {
  expect(shown(value, halfWidth, unit)).toBe(text);
});

test('what somebody chose is kept, as long as it goes with the result', () => {
  expect(shown(0.027464, 0.000059, 'm', 'cm')).toBe('2.7464 ± 0.0059 cm');
  expect(shown(3600, 60, 's', 'h')).toBe('1.000 ± 0.017 h');
  expect(shown(0.027464, 0.000059, 'm', 's')).toBe('27.464 ± 0.059 mm');
  expect(shown(20, 0.5, 'Cel', '[degF]')).toBe('68.00 ± 0.90 °F');
  expect(shown(20, 0.5, 'Cel', 'K')).toBe('293.15 ± 0.50 K');
  // A difference of temperatures is no point on a scale.
  expect(shown(5, 0.5, '{Δ°C}', 'Cel')).toBe('5.00 ± 0.50 Δ°C');
  expect(shown(5, 0.5, '{Δ°C}', '{Δ°F}')).toBe('9.00 ± 0.90 Δ°F');
});

test('the choices hold the unit itself and others of its kind, the smallest first', () => {
  const codes = (unit: string) => unitChoices(parseUnit(unit)).map(printedUnit);
  expect(codes('s')).toEqual(['ns', 'µs', 'ms', 's', 'min', 'h']);
  expect(codes('m')).toEqual(['nm', 'µm', 'mm', 'cm', 'm', 'km']);
  expect(codes('rad')).toEqual(['°', 'rad', 'turn']);
  expect(codes('1')).toEqual(['']);
  expect(codes('m/s2')).toEqual(['m s⁻²']);
  expect(codes('Cel')).toEqual(expect.arrayContaining(['°C', '°F', 'K']));
  expect(readableUnit(NaN, parseUnit('s'))).toEqual(parseUnit('s'));
});
