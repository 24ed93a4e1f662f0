import fc from 'fast-check';
import { orRefusal } from '../refusal';
import { type Unit, parseUnit, printedUnit, sameUnit } from '../units/unit';
import { checkUnits } from './check';
import { measured } from './dimension';
import { FormulaFault } from './fault';
import { parseFormula } from './parse';
import { Program } from './program';

const units: Readonly<Record<string, string>> = {
  m: 'kg',
  v: 'm/s',
  x: 'm',
  y: 'cm',
  t: 's',
  g: 'm/s2',
  k: 'N/m',
  θ: 'deg',
  F: 'N',
  U: 'V',
  I: 'A',
  R: 'Ohm',
  C: 'uF',
  n: '{counts}',
  T: 'Cel',
  p: 'hPa',
};

const unitOf = (name: string): Unit | undefined => (name in units ? parseUnit(units[name]) : undefined);
const check = (text: string, result?: string) =>
  checkUnits(parseFormula(text), text, unitOf, result === undefined ? undefined : parseUnit(result));

// Derived units: SI Brochure, 9th edition (BIPM 2019), table 4.
test.each([
  ['1/2 m v^2', 'J'],
  ['m g x', 'J'],
  ['m v', 'kg m s⁻¹'],
  ['F t', 'N s'],
  ['m v^2 + k x^2', 'J'],
  ['x / t', 'm s⁻¹'],
  ['x / y', ''],
  ['x + y', 'm'],
  ['y - x', 'cm'],
  ['2 pi sqrt(m/k)', 's'],
  ['sin(θ)', ''],
  ['θ', '°'],
  ['asin(x/y)', 'rad'],
  ['R C', 's'],
  ['U / I', 'Ω'],
  ['U I', 'W'],
  ['U^2/R', 'W'],
  ['U t', 'Wb'],
  ['71 [in]', 'in'],
  ['x + 71 [in]', 'm'],
  ['d(x)/d(t)', 'm s⁻¹'],
  ['d^2(x)/d(t)^2', 'm s⁻²'],
  ['n / t', 'counts s⁻¹'],
  ['sqrt(x)', 'm⁰·⁵'],
  ['max(x, y)', 'm'],
  ['2^(t / (3 [s]))', ''],
  ['x / (θ y)', ''],
])('%s is in “%s”', (text, unit) => expect(printedUnit(check(text).unit)).toBe(unit));

test.each([
  ['1/2 m v^2 + m g', '“1/2 m v^2” is in J, but “m g” is in N; they cannot be added.', 0, 15],
  ['x - t', '“x” is in m, but “t” is in s; they cannot be subtracted.', 0, 5],
  ['sin(x)', '“x” is in m; sin takes an angle or a plain number.', 4, 5],
  ['exp(-t)', '“-t” is in s; exp takes a plain number.', 4, 6],
  ['2^x', '“x” is in m; an exponent is a plain number.', 2, 3],
  ['x + 1', '“x” is in m, but “1” is a plain number; they cannot be added.', 0, 5],
  ['max(x, t)', 'cannot be compared', 4, 5],
  ['n + 1', '“n” is in counts', 0, 5],
])('%s is refused: %s', (text, message, from, to) => {
  const fault = orRefusal(() => check(text));
  expect(fault).toBeInstanceOf(FormulaFault);
  expect((fault as FormulaFault).message).toContain(message);
  expect([(fault as FormulaFault).from, (fault as FormulaFault).to]).toEqual([from, to]);
});

test('the units of parameters follow from what the formula has to measure', () => {
  const found = (text: string, result: string) =>
    Object.fromEntries(
      [...check(text, result).found].map(([name, unit]) => [name, unit === null ? null : printedUnit(unit)]),
    );
  expect(found('A exp(-t/tau) + c', 'm')).toEqual({ A: 'm', tau: 's', c: 'm' });
  expect(found('b1 (1 - exp(-b2 t))', 'V')).toEqual({ b1: 'V', b2: 's⁻¹' });
  expect(found('a x^q', 'N')).toEqual({ a: null, q: '' });
  expect(found('x0 + v0 t + 1/2 a t^2', 'm')).toEqual({ x0: 'm', v0: 'm s⁻¹', a: 'm s⁻²' });
  expect(found('a / sqrt((f0^2 - (1/t)^2)^2 + (w/t)^2)', 'm')).toEqual({ a: 'm s⁻²', f0: 's⁻¹', w: 's⁻¹' });
  expect(() => found('A sin(w t) + w', 'm')).toThrow(FormulaFault);
});

const inSi = (values: number | Float64Array) => ({ values, factor: 1, zero: 0 });
const si = (name: string, value: number) => {
  const { factor, zero } = measured(parseUnit(units[name]));
  return factor * (value + zero);
};
const value = (text: string, values: Readonly<Record<string, number>> = {}) => {
  const program = new Program(parseFormula(text));
  return program.valueOf(
    program.leaves.map(({ formula }) =>
      formula.kind === 'name' ? si(formula.name, values[formula.name]) : NaN,
    ),
  );
};

test('formulas are worked out in SI units, whatever the units they were typed in', () => {
  expect(value('71 [in]')).toBeCloseTo(1.8034, 12);
  expect(value('1/2 m v^2', { m: 0.5, v: 3 })).toBeCloseTo(2.25, 12);
  expect(value('x + y', { x: 1, y: 20 })).toBeCloseTo(1.2, 12);
  expect(value('sin(θ)', { θ: 30 })).toBeCloseTo(0.5, 12);
  expect(value('sin(30 [deg])')).toBeCloseTo(0.5, 12);
  expect(value('R C', { R: 1e5, C: 47 })).toBeCloseTo(4.7, 12);
  // The amount of gas in a litre at 20 °C and 1013.25 hPa: 0.041570 mol (with R = 8.314462618 J/(mol K), CODATA 2018).
  expect(value('p 1 [L] / (8.314462618 [J/(mol K)] T)', { p: 1013.25, T: 20 })).toBeCloseTo(0.04157, 5);
  expect(value('pi')).toBe(Math.PI);
  expect(value('atan2(1, -1)')).toBeCloseTo((3 * Math.PI) / 4, 12);
  expect(value('sqrt(-1)')).toBeNaN();
});

test('partial derivatives are those of differences, at random places', () => {
  const formulas = [
    'a b / c + a^2',
    'a^b',
    'sin(a) cos(b) + tan(c)',
    'exp(-a/b) ln(c)',
    'sqrt(a^2 + b^2) - hypot(b, c)',
    'atan2(a, b) + asin(a/(a + b)) + acos(b/(b + 1)) + atan(c)',
    'sinh(a/5) + cosh(b/5) tanh(c/5)',
    'lg(a) + cbrt(b) + abs(c) + sign(c) + max(a, b) + min(b, c)',
    '-(a - b)^3 / (1 + c^2)',
  ].map((text) => new Program(parseFormula(text)));
  const positive = fc.double({ min: 0.3, max: 4, noNaN: true });
  fc.assert(
    fc.property(fc.constantFrom(...formulas), fc.tuple(positive, positive, positive), (program, place) => {
      // Where two are equal, the greater of them has no derivative.
      fc.pre(Math.abs(place[0] - place[1]) > 0.01 && Math.abs(place[1] - place[2]) > 0.01);
      const inputs = program.leaves.map(
        ({ formula }) => place['abc'.indexOf(formula.kind === 'name' ? formula.name : '')],
      );
      program.leaves.forEach((_, leaf) => {
        const h = 1e-5;
        const moved = (by: number) =>
          program.valueOf(inputs.map((input, i) => (i === leaf ? input + by : input)));
        const [partial] = program.partials(inputs.map(inSi), leaf, 0, 1);
        const difference = (moved(h) - moved(-h)) / (2 * h);
        expect(Math.abs(partial - difference)).toBeLessThan(1e-4 * (1 + Math.abs(difference) ** 2));
      });
    }),
    { numRuns: 1000 },
  );
});

test('arrays and single values give the same, over the seams of blocks', () => {
  const program = new Program(parseFormula('1/2 m v^2 + m g x'));
  const n = 5000;
  const v = Float64Array.from({ length: n }, (_, i) => Math.sin(i / 50));
  const x = Float64Array.from({ length: n }, (_, i) => i / 100);
  const at = (m: number, i: number) => 0.5 * m * v[i] ** 2 + m * 9.81 * x[i];
  const values = program.values([2, v, 9.81, x].map(inSi), 1000, 3500);
  for (const i of [1000, 1023, 1024, 2047, 2048, 4499]) expect(values[i - 1000]).toBeCloseTo(at(2, i), 10);
  expect(values).toHaveLength(3500);
  expect(sameUnit(check('1/2 m v^2').unit, parseUnit('J'))).toBe(true);
});
