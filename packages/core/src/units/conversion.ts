import { Refusal } from '../refusal';
import { type Unit, printedUnit } from './unit';

/** Exponents of the seven base quantities of the SI, in the order m, kg, s, A, K, mol, cd. */
type Dimension = readonly [number, number, number, number, number, number, number];

interface Atom {
  dimension: Dimension;
  /** Size in coherent SI units. Source: the SI Brochure, 9th edition (BIPM 2019), tables 2, 4 and 8. */
  scale: number;
}

const atom = (scale: number, ...dimension: Dimension): Atom => ({ scale, dimension });

const atoms: Record<string, Atom> = {
  m: atom(1, 1, 0, 0, 0, 0, 0, 0),
  g: atom(1e-3, 0, 1, 0, 0, 0, 0, 0),
  s: atom(1, 0, 0, 1, 0, 0, 0, 0),
  min: atom(60, 0, 0, 1, 0, 0, 0, 0),
  h: atom(3600, 0, 0, 1, 0, 0, 0, 0),
  A: atom(1, 0, 0, 0, 1, 0, 0, 0),
  K: atom(1, 0, 0, 0, 0, 1, 0, 0),
  mol: atom(1, 0, 0, 0, 0, 0, 1, 0),
  cd: atom(1, 0, 0, 0, 0, 0, 0, 1),
  rad: atom(1, 0, 0, 0, 0, 0, 0, 0),
  deg: atom(Math.PI / 180, 0, 0, 0, 0, 0, 0, 0),
  '{turn}': atom(2 * Math.PI, 0, 0, 0, 0, 0, 0, 0),
  '%': atom(0.01, 0, 0, 0, 0, 0, 0, 0),
  Hz: atom(1, 0, 0, -1, 0, 0, 0, 0),
  N: atom(1, 1, 1, -2, 0, 0, 0, 0),
  J: atom(1, 2, 1, -2, 0, 0, 0, 0),
  W: atom(1, 2, 1, -3, 0, 0, 0, 0),
  Pa: atom(1, -1, 1, -2, 0, 0, 0, 0),
  bar: atom(1e5, -1, 1, -2, 0, 0, 0, 0),
  C: atom(1, 0, 0, 1, 1, 0, 0, 0),
  V: atom(1, 2, 1, -3, -1, 0, 0, 0),
  Ohm: atom(1, 2, 1, -3, -2, 0, 0, 0),
  F: atom(1, -2, -1, 4, 2, 0, 0, 0),
  H: atom(1, 2, 1, -2, -2, 0, 0, 0),
  Wb: atom(1, 2, 1, -2, -1, 0, 0, 0),
  T: atom(1, 0, 1, -2, -1, 0, 0, 0),
};

const prefixes: Record<string, number> = {
  p: 1e-12,
  n: 1e-9,
  u: 1e-6,
  m: 1e-3,
  c: 1e-2,
  d: 1e-1,
  h: 1e2,
  k: 1e3,
  M: 1e6,
  G: 1e9,
};

function atomOf(code: string): Atom | undefined {
  if (code in atoms) return atoms[code];
  const rest = atoms[code.slice(1)];
  const prefix = prefixes[code.slice(0, 1)];
  return rest === undefined || prefix === undefined ? undefined : { ...rest, scale: rest.scale * prefix };
}

/** Size and dimension of a unit in coherent SI units, or undefined where an atom is not known. */
export function measureOfUnit(unit: Unit): Atom | undefined {
  let scale = 1;
  const dimension: [number, number, number, number, number, number, number] = [0, 0, 0, 0, 0, 0, 0];
  for (const factor of unit) {
    const known = atomOf(factor.atom);
    if (known === undefined) return undefined;
    scale *= known.scale ** factor.power;
    known.dimension.forEach((exponent, index) => (dimension[index] += exponent * factor.power));
  }
  return { scale, dimension };
}

/**
 * The factor that turns a number in `from` into one in `to`.
 * @throws Refusal where the two measure different things or one of them is unknown.
 */
export function conversionFactor(from: Unit, to: Unit): number {
  const a = measureOfUnit(from);
  const b = measureOfUnit(to);
  if (a === undefined || b === undefined || a.dimension.some((exponent, i) => exponent !== b.dimension[i]))
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
