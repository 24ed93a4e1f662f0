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
  ['J/(kg K)', 'J.K-1.kg-1'],
  ['J/(kg.K)', 'J.K-1.kg-1'],
  ['m/s/s', 'm.s-2'],
  ['mmT', '{mmT}'],
  ['kmin', '{kmin}'],
  ['counts', '{counts}'],
  ['kΩ', 'kOhm'],
  ['(m', '{(m}'],
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

test('feet and gauss are what the standards say; degrees Celsius are not kelvins', () => {
  // Source: NIST Special Publication 811 (2008), appendix B.8: 1 ft = 0.3048 m, 1 G = 10⁻⁴ T.
  expect(conversionFactor(parseUnit('ft'), parseUnit('cm'))).toBeCloseTo(30.48, 12);
  expect(conversionFactor(parseUnit('G'), parseUnit('mT'))).toBeCloseTo(0.1, 15);
  expect(() => conversionFactor(parseUnit('°C'), parseUnit('K'))).toThrow('cannot be converted');
});

test.each([
  ...[
    'm',
    'kg',
    's',
    'min',
    'h',
    'd',
    'mL',
    'deg',
    '{turn}',
    '%',
    'Hz',
    'hPa',
    'mbar',
    'mV',
    'kOhm',
    'uF',
    'mT',
    'G',
  ],
  ...['[ft_i]', '[in_i]', 'Cel', '{Newton}', 'deg.s-1', '{turn}.min-1', 'm2.s-2', 'J.kg-1.K-1', 'W.m-2'],
])('%s in print reads back as the same unit, as it has to in a field where people mend it', (code) => {
  const unit = parseUnit(code);
  expect(ucumCode(parseUnit(printedUnit(unit)))).toBe(ucumCode(unit));
});
