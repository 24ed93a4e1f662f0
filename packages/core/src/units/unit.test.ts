import { conversionFactor, isTimeUnit } from './conversion';
import { divideUnits, multiplyUnits, parseUnit, powerOfUnit, printedUnit, ucumCode } from './unit';

test.each([
  ['m/s2', 'm.s-2'],
  ['m.s-2', 'm.s-2'],
  ['m/s²', 'm.s-2'],
  ['m s⁻²', 'm.s-2'],
  ['m s^-2', 'm.s-2'],
  ['m·s⁻²', 'm.s-2'],
  ['°C', 'Cel'],
  ['Ω', 'Ohm'],
  ['µs', 'us'],
  ['1', '1'],
  ['', '1'],
])('%s is read as the UCUM code %s', (written, code) => expect(ucumCode(parseUnit(written))).toBe(code));

test('derived units cancel and gather', () => {
  const [m, s] = [parseUnit('m'), parseUnit('s')];
  const acceleration = divideUnits(divideUnits(m, s), s);
  expect(printedUnit(acceleration)).toBe('m s⁻²');
  expect(printedUnit(divideUnits(acceleration, m))).toBe('s⁻²');
  expect(ucumCode(multiplyUnits(acceleration, powerOfUnit(s, 2)))).toBe('m');
});

test('conversion keeps to the SI: minutes, newtons against kg m s⁻², never metres into seconds', () => {
  expect(conversionFactor(parseUnit('min'), parseUnit('s'))).toBe(60);
  expect(conversionFactor(parseUnit('mN'), parseUnit('kg.m.s-2'))).toBeCloseTo(1e-3, 15);
  expect(isTimeUnit(parseUnit('ms'))).toBe(true);
  expect(isTimeUnit(parseUnit('mm'))).toBe(false);
  expect(() => conversionFactor(parseUnit('m'), parseUnit('s'))).toThrow('cannot be converted');
});
