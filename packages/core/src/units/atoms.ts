import { pow, square } from '../elementary';
import { siPrefixes } from './prefixes';

/** Exponents of the seven base quantities of the SI, in the order m, kg, s, A, K, mol, cd. */
export type Dimension = readonly [number, number, number, number, number, number, number];

export interface Measure {
  dimension: Dimension;
  /** Size in coherent SI units. */
  scale: number;
}

interface Atom extends Measure {
  /** Whether SI prefixes may stand before it. */
  metric: boolean;
}

/** Normal acceleration of free fall, in m/s² (3rd CGPM, 1901). */
export const standardGravity = 9.80665;

const atom = (scale: number, metric: boolean, ...dimension: Dimension): Atom => ({
  scale,
  metric,
  dimension,
});

/** Degrees Celsius: a point on a scale of kelvins, whose zero is not that of kelvin. */
export const celsius = 'Cel';
/** Degrees Fahrenheit: a point on a scale as well. */
export const fahrenheit = '[degF]';
/** Intervals between two such points. UCUM has no code for them, so they are annotations in its braces. */
export const intervalCelsius = '{Δ°C}';
export const intervalFahrenheit = '{Δ°F}';

/**
 * Source: the SI Brochure, 9th edition (BIPM 2019), tables 2, 4 and 8; yard and pound of 1959 and what follows from them, the
 * pound-force and the pound a square inch with standard gravity; the thermochemical calorie, 4.184 J (ISO 80000-5, annex); electronvolt
 * and unified atomic mass unit (CODATA 2022); watt-hours and ampere-hours as products; standard atmosphere and conventional millimetre of mercury: ISO 80000-4, annex (values from
 * memory). Levels: 1 Np = 1 and 1 B = ½ ln 10 Np, of ratios of amplitudes, so that 20 dB are a factor of ten (SI Brochure, 8th edition, table
 * 8; from memory).
 */
const atoms: Readonly<Record<string, Atom>> = {
  m: atom(1, true, 1, 0, 0, 0, 0, 0, 0),
  g: atom(1e-3, true, 0, 1, 0, 0, 0, 0, 0),
  s: atom(1, true, 0, 0, 1, 0, 0, 0, 0),
  min: atom(60, false, 0, 0, 1, 0, 0, 0, 0),
  h: atom(3600, false, 0, 0, 1, 0, 0, 0, 0),
  d: atom(86_400, false, 0, 0, 1, 0, 0, 0, 0),
  A: atom(1, true, 0, 0, 0, 1, 0, 0, 0),
  K: atom(1, true, 0, 0, 0, 0, 1, 0, 0),
  mol: atom(1, true, 0, 0, 0, 0, 0, 1, 0),
  cd: atom(1, true, 0, 0, 0, 0, 0, 0, 1),
  lm: atom(1, true, 0, 0, 0, 0, 0, 0, 1),
  lx: atom(1, true, -2, 0, 0, 0, 0, 0, 1),
  L: atom(1e-3, true, 3, 0, 0, 0, 0, 0, 0),
  rad: atom(1, true, 0, 0, 0, 0, 0, 0, 0),
  deg: atom(Math.PI / 180, false, 0, 0, 0, 0, 0, 0, 0),
  '{turn}': atom(2 * Math.PI, false, 0, 0, 0, 0, 0, 0, 0),
  '%': atom(0.01, false, 0, 0, 0, 0, 0, 0, 0),
  Hz: atom(1, true, 0, 0, -1, 0, 0, 0, 0),
  N: atom(1, true, 1, 1, -2, 0, 0, 0, 0),
  J: atom(1, true, 2, 1, -2, 0, 0, 0, 0),
  W: atom(1, true, 2, 1, -3, 0, 0, 0, 0),
  Pa: atom(1, true, -1, 1, -2, 0, 0, 0, 0),
  bar: atom(1e5, true, -1, 1, -2, 0, 0, 0, 0),
  C: atom(1, true, 0, 0, 1, 1, 0, 0, 0),
  V: atom(1, true, 2, 1, -3, -1, 0, 0, 0),
  Ohm: atom(1, true, 2, 1, -3, -2, 0, 0, 0),
  S: atom(1, true, -2, -1, 3, 2, 0, 0, 0),
  F: atom(1, true, -2, -1, 4, 2, 0, 0, 0),
  H: atom(1, true, 2, 1, -2, -2, 0, 0, 0),
  Wb: atom(1, true, 2, 1, -2, -1, 0, 0, 0),
  T: atom(1, true, 0, 1, -2, -1, 0, 0, 0),
  G: atom(1e-4, true, 0, 1, -2, -1, 0, 0, 0),
  '[ft_i]': atom(0.3048, false, 1, 0, 0, 0, 0, 0, 0),
  '[in_i]': atom(0.0254, false, 1, 0, 0, 0, 0, 0, 0),
  '[yd_i]': atom(0.9144, false, 1, 0, 0, 0, 0, 0, 0),
  '[mi_i]': atom(1609.344, false, 1, 0, 0, 0, 0, 0, 0),
  '[lb_av]': atom(0.45359237, false, 0, 1, 0, 0, 0, 0, 0),
  '[oz_av]': atom(0.45359237 / 16, false, 0, 1, 0, 0, 0, 0, 0),
  '[lbf_av]': atom(0.45359237 * standardGravity, false, 1, 1, -2, 0, 0, 0, 0),
  atm: atom(101_325, false, -1, 1, -2, 0, 0, 0, 0),
  'm[Hg]': atom(133_322.387415, true, -1, 1, -2, 0, 0, 0, 0),
  gon: atom(Math.PI / 200, false, 0, 0, 0, 0, 0, 0, 0),
  '[ppth]': atom(1e-3, false, 0, 0, 0, 0, 0, 0, 0),
  '[ppm]': atom(1e-6, false, 0, 0, 0, 0, 0, 0, 0),
  Np: atom(1, true, 0, 0, 0, 0, 0, 0, 0),
  B: atom(Math.LN10 / 2, true, 0, 0, 0, 0, 0, 0, 0),
  '[psi]': atom((0.45359237 * standardGravity) / square(0.0254), false, -1, 1, -2, 0, 0, 0, 0),
  cal: atom(4.184, true, 2, 1, -2, 0, 0, 0, 0),
  eV: atom(1.602176634e-19, true, 2, 1, -2, 0, 0, 0, 0),
  u: atom(1.66053906892e-27, true, 0, 1, 0, 0, 0, 0, 0),
  t: atom(1e3, true, 0, 1, 0, 0, 0, 0, 0),
  Wh: atom(3600, true, 2, 1, -2, 0, 0, 0, 0),
  Ah: atom(3600, true, 0, 0, 1, 1, 0, 0, 0),
  Bq: atom(1, true, 0, 0, -1, 0, 0, 0, 0),
  Gy: atom(1, true, 2, 0, -2, 0, 0, 0, 0),
  Sv: atom(1, true, 2, 0, -2, 0, 0, 0, 0),
  '{rpm}': atom((2 * Math.PI) / 60, false, 0, 0, -1, 0, 0, 0, 0),
  [intervalCelsius]: atom(1, false, 0, 0, 0, 0, 1, 0, 0),
  [intervalFahrenheit]: atom(5 / 9, false, 0, 0, 0, 0, 1, 0, 0),
};

/** A known atom with or without an SI prefix; undefined for anything else ("mmT" is no unit). */
export function atomOf(code: string): Measure | undefined {
  const plain = Object.hasOwn(atoms, code) ? atoms[code] : undefined;
  if (plain !== undefined) return plain;
  const prefix = Object.hasOwn(siPrefixes, code.slice(0, 1)) ? siPrefixes[code.slice(0, 1)] : undefined;
  const rest = Object.hasOwn(atoms, code.slice(1)) ? atoms[code.slice(1)] : undefined;
  if (prefix === undefined || rest === undefined || !rest.metric) return undefined;
  return { dimension: rest.dimension, scale: rest.scale * pow(10, prefix) };
}

/**
 * Scales of temperature whose zero is not that of kelvin: T / K = factor × (t + zero). Source: the SI Brochure, 9th edition
 * (BIPM 2019), section 2.3.1, for degrees Celsius; 32 °F is 0 °C and 212 °F is 100 °C.
 */
export const shiftedScales: Readonly<Record<string, { factor: number; zero: number }>> = {
  [celsius]: { factor: 1, zero: 273.15 },
  [fahrenheit]: { factor: 5 / 9, zero: 459.67 },
};
