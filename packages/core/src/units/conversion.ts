import { Refusal } from '../refusal';
import { type Measure, atomOf, celsius } from './atoms';
import { type Unit, printedUnit } from './unit';

const kelvin: Measure = { scale: 1, dimension: [0, 0, 0, 0, 1, 0, 0] };

/**
 * Size and dimension of a unit in coherent SI units, or undefined where an atom is not known. A degree Celsius counts as
 * the interval of one kelvin that it is.
 */
export function measureOfUnit(unit: Unit): Measure | undefined {
  let scale = 1;
  const dimension: [number, number, number, number, number, number, number] = [0, 0, 0, 0, 0, 0, 0];
  for (const { atom, power } of unit) {
    const known = atom === celsius ? kelvin : atomOf(atom);
    if (known === undefined) return undefined;
    scale *= known.scale ** power;
    known.dimension.forEach((exponent, index) => (dimension[index] += exponent * power));
  }
  return { scale, dimension };
}

const isCelsius = (unit: Unit) => unit.length === 1 && unit[0].atom === celsius && unit[0].power === 1;

/** Whether two units measure the same kind of quantity and can be converted by a factor. */
export function canConvert(from: Unit, to: Unit): boolean {
  if (isCelsius(from) !== isCelsius(to)) return false;
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

/** 0 °C in kelvins. Source: the SI Brochure, 9th edition (BIPM 2019), section 2.3.1. */
const celsiusZero = 273.15;
const isKelvin = (unit: Unit) => unit.length === 1 && unit[0].atom === 'K' && unit[0].power === 1;

/**
 * How a reading in `from` becomes one in `to`: factor × reading + offset, where the offset is 0 but between degrees Celsius
 * and kelvins.
 * @throws Refusal where the two measure different things or one of them is unknown.
 */
export function conversionOf(from: Unit, to: Unit): { factor: number; offset: number } {
  if (isCelsius(from) && isKelvin(to)) return { factor: 1, offset: celsiusZero };
  if (isKelvin(from) && isCelsius(to)) return { factor: 1, offset: -celsiusZero };
  return { factor: conversionFactor(from, to), offset: 0 };
}
