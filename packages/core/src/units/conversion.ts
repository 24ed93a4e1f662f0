import { pow } from '../elementary';
import { Refusal, orRefusal } from '../refusal';
import { type Measure, atomOf, shiftedScales } from './atoms';
import { type Unit, printedUnit, sameUnit } from './unit';

const temperature: Measure['dimension'] = [0, 0, 0, 0, 1, 0, 0];

/**
 * Size and dimension of a unit in coherent SI units, or undefined where an atom is not known. A degree of a shifted
 * scale counts as the interval that it is: a degree Celsius as one kelvin.
 */
export function measureOfUnit(unit: Unit): Measure | undefined {
  let scale = 1;
  const dimension: [number, number, number, number, number, number, number] = [0, 0, 0, 0, 0, 0, 0];
  for (const { atom, power } of unit) {
    const known = Object.hasOwn(shiftedScales, atom)
      ? { scale: shiftedScales[atom].factor, dimension: temperature }
      : atomOf(atom);
    if (known === undefined) return undefined;
    scale *= pow(known.scale, power);
    known.dimension.forEach((exponent, index) => (dimension[index] += exponent * power));
  }
  return { scale, dimension };
}

/** The scale of a temperature that is counted from another zero than kelvin; null of any other unit. */
const shiftOf = (unit: Unit) =>
  unit.length === 1 && unit[0].power === 1 && Object.hasOwn(shiftedScales, unit[0].atom)
    ? shiftedScales[unit[0].atom]
    : null;

/** Whether two units measure the same kind of quantity and can be converted by a factor. */
export function canConvert(from: Unit, to: Unit): boolean {
  if (shiftOf(from) !== shiftOf(to)) return false;
  const a = measureOfUnit(from);
  const b = measureOfUnit(to);
  return (
    a !== undefined && b !== undefined && a.dimension.every((exponent, i) => exponent === b.dimension[i])
  );
}

/**
 * The factor that turns a number in `from` into one in `to`.
 * @throws Refusal where the two measure different things or one of them is unknown.
 */
export function conversionFactor(from: Unit, to: Unit): number {
  const a = measureOfUnit(from);
  const b = measureOfUnit(to);
  if (a === undefined || b === undefined || !canConvert(from, to))
    throw new Refusal(`“${printedUnit(from)}” cannot be converted into “${printedUnit(to)}”.`);
  return a.scale / b.scale;
}

/** Whether a unit measures time. */
export function isTimeUnit(unit: Unit): boolean {
  const measure = measureOfUnit(unit);
  return (
    measure !== undefined && measure.dimension.every((exponent, index) => exponent === (index === 2 ? 1 : 0))
  );
}

/** Whether a unit measures temperature, on whatever scale. */
export const isTemperature = (unit: Unit): boolean =>
  measureOfUnit(unit)?.dimension.every((exponent, i) => exponent === temperature[i]) ?? false;

const kelvins = { factor: 1, zero: 0 };
/** Kelvin that may be a point on the scale. */
const isKelvin = (unit: Unit) =>
  unit.length === 1 && unit[0].atom === 'K' && unit[0].power === 1 && unit[0].scale !== 'interval';

/**
 * How a reading in `from` becomes one in `to`: factor × reading + offset, where the offset is 0 but between scales of temperature
 * with different zeros.
 * @throws Refusal where the two measure different things or one of them is unknown.
 */
export function conversionOf(from: Unit, to: Unit): { factor: number; offset: number } {
  const [a, b] = [from, to].map((unit) => shiftOf(unit) ?? (isKelvin(unit) ? kelvins : null));
  if (a === null || b === null || a === b) return { factor: conversionFactor(from, to), offset: 0 };
  const factor = a.factor / b.factor;
  return { factor, offset: factor * a.zero - b.zero };
}

/** The same, or null where the two measure different things. */
export function conversionBetween(from: Unit, to: Unit): { factor: number; offset: number } | null {
  if (sameUnit(from, to)) return { factor: 1, offset: 0 };
  const conversion = orRefusal(() => conversionOf(from, to));
  return conversion instanceof Refusal ? null : conversion;
}

/** A reading in another unit; null where that measures something else. */
export function readIn(value: number, from: Unit, to: Unit): number | null {
  const conversion = conversionBetween(from, to);
  return conversion === null ? null : conversion.factor * value + conversion.offset;
}
