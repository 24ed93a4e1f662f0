import { pow } from '../elementary';
import { shiftedScales } from '../units/atoms';
import { measureOfUnit } from '../units/conversion';
import { type Unit, multiplyUnits, parseUnit, powerOfUnit } from '../units/unit';

/** Exponents of base quantities, by the code of their SI unit; what is counted in a word of its own is a base of its own. */
export type Dimension = ReadonlyMap<string, number>;

/** A unit as formulas reckon with it: coherent SI units on the inside. */
export interface Measured {
  dimension: Dimension;
  /** SI value = factor × (value + zero). */
  factor: number;
  zero: number;
}

const bases = ['m', 'kg', 's', 'A', 'K', 'mol', 'cd'] as const;

export const plain: Dimension = new Map();

/** Exponents nearer to a whole or broken number than this are that. */
const nearlyNothing = 1e-9;

const cleaned = (exponents: Map<string, number>): Dimension =>
  new Map([...exponents].filter(([, exponent]) => Math.abs(exponent) > nearlyNothing));

/** a + factor · b, exponent by exponent: the dimension of a product with a power. */
export function addDimensions(a: Dimension, b: Dimension, factor = 1): Dimension {
  const sum = new Map(a);
  for (const [base, exponent] of b) sum.set(base, (sum.get(base) ?? 0) + factor * exponent);
  return cleaned(sum);
}

export const scaleDimension = (a: Dimension, factor: number): Dimension => addDimensions(plain, a, factor);

export const sameDimension = (a: Dimension, b: Dimension): boolean => addDimensions(a, b, -1).size === 0;

/** A unit with its dimension and size. A temperature alone is counted from absolute zero. */
export function measured(unit: Unit): Measured {
  const [only] = unit;
  if (unit.length === 1 && only.power === 1 && Object.hasOwn(shiftedScales, only.atom))
    return { dimension: new Map([['K', 1]]), ...shiftedScales[only.atom] };
  let factor = 1;
  let dimension: Dimension = plain;
  for (const { atom, power } of unit) {
    const measure = measureOfUnit([{ atom, power: 1 }]);
    if (measure === undefined) dimension = addDimensions(dimension, new Map([[atom, 1]]), power);
    else {
      factor *= pow(measure.scale, power);
      const exponents = new Map(bases.map((base, i) => [base as string, measure.dimension[i]]));
      dimension = addDimensions(dimension, exponents, power);
    }
  }
  return { dimension, factor, zero: 0 };
}

/** Derived units that have a name, in the order in which they are thought of. */
const named = ['N', 'J', 'W', 'Pa', 'V', 'Ohm', 'C', 'F', 'H', 'Wb', 'T'].map((code) => {
  const unit = parseUnit(code);
  return { unit, dimension: measured(unit).dimension };
});

/** The coherent SI unit of a dimension: by its name where it has one, else in base units. */
export function coherentUnit(dimension: Dimension): Unit {
  const known = named.find((candidate) => sameDimension(candidate.dimension, dimension));
  if (known !== undefined) return known.unit;
  return [...dimension].reduce<Unit>(
    (unit, [base, exponent]) => multiplyUnits(unit, powerOfUnit([{ atom: base, power: 1 }], exponent)),
    [],
  );
}

const isPlainAtom = (atom: string) => measured([{ atom, power: 1 }]).dimension.size === 0;

/** The product of units, angles left out of it: metres times radians are metres. */
export function productUnit(a: Unit, b: Unit, power = 1): Unit {
  const raised = powerOfUnit(b, power);
  const joined = multiplyUnits(a, raised);
  if (a.length === 0 || b.length === 0 || joined.every(({ atom }) => isPlainAtom(atom))) return joined;
  return joined.filter(({ atom }) => !isPlainAtom(atom));
}

/**
 * The unit in which something is shown, from the units that went into it: joule rather than kg m² s⁻², nothing of which two
 * factors measure the same (cm/m).
 */
export function shownUnit(written: Unit | null, dimension: Dimension): Unit {
  if (written === null || written.some(({ power }) => !Number.isInteger(power)))
    return coherentUnit(dimension);
  if (written.length > 1 && written.some(({ atom }) => Object.hasOwn(shiftedScales, atom)))
    return coherentUnit(dimension);
  const factors = written.map(({ atom }) => measured([{ atom, power: 1 }]).dimension);
  const doubles = factors.some((one, i) =>
    factors.some((other, j) => j > i && one.size > 0 && isMultiple(one, other)),
  );
  if (doubles || !sameDimension(measured(written).dimension, dimension)) return coherentUnit(dimension);
  const coherent = coherentUnit(dimension);
  return written.length > 1 && coherent.length < written.length ? coherent : written;
}

/** Whether one dimension is a power of the other. */
function isMultiple(a: Dimension, b: Dimension): boolean {
  if (a.size !== b.size) return false;
  const [[base, exponent]] = a;
  const ratio = (b.get(base) ?? 0) / exponent;
  return ratio !== 0 && sameDimension(scaleDimension(a, ratio), b);
}
