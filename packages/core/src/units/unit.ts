import { atomOf, celsius, fahrenheit, intervalFahrenheit, shiftedScales } from './atoms';
import { withPlainMicro } from './prefixes';

/**
 * A unit as a product of powers of atoms, e.g. m·s⁻². Atoms are UCUM case-sensitive codes with their prefix ("cm", "mV").
 * Factors are sorted (positive powers first, then by atom), so equal units are equal lists.
 */
export interface UnitFactor {
  readonly atom: string;
  readonly power: number;
  /** Of kelvin alone: whether a point on the scale is meant or an interval; absent where nobody knows (see `temperature.ts`). */
  readonly scale?: 'point' | 'interval';
}

export type Unit = readonly UnitFactor[];

/** The unit of a plain number (UCUM code "1"). */
export const one: Unit = [];

function normalised(powers: ReadonlyMap<string, number>): Unit {
  return [...powers]
    .filter(([, power]) => power !== 0)
    .map(([atom, power]) => ({ atom, power }))
    .sort((a, b) => Number(b.power > 0) - Number(a.power > 0) || (a.atom < b.atom ? -1 : 1));
}

/** Products and quotients are of intervals of temperature: a degree counts as one, not from the zero of its scale. */
const intervals: Readonly<Record<string, string>> = { [celsius]: 'K', [fahrenheit]: intervalFahrenheit };
const asFactor = (atom: string): string => (Object.hasOwn(intervals, atom) ? intervals[atom] : atom);

/** A product; kelvin that are left alone in it are an interval. */
const product = (powers: ReadonlyMap<string, number>): Unit => {
  const unit = normalised(powers);
  return unit.length === 1 && unit[0].atom === 'K' && unit[0].power === 1
    ? [{ ...unit[0], scale: 'interval' }]
    : unit;
};

function combined(a: Unit, b: Unit, sign: 1 | -1): Unit {
  const powers = new Map<string, number>();
  const take = (unit: Unit, times: number) => {
    for (const { atom, power } of unit)
      powers.set(asFactor(atom), (powers.get(asFactor(atom)) ?? 0) + times * power);
  };
  take(a, 1);
  take(b, sign);
  return product(powers);
}

/** The product of two units; equal atoms are gathered, so m·s⁻¹ times s is m. */
export const multiplyUnits = (a: Unit, b: Unit): Unit => combined(a, b, 1);

/** The quotient of two units. */
export const divideUnits = (a: Unit, b: Unit): Unit => combined(a, b, -1);

/** An integer power of a unit. */
export function powerOfUnit(unit: Unit, power: number): Unit {
  if (power === 1) return unit;
  return product(new Map(unit.map((factor) => [asFactor(factor.atom), factor.power * power])));
}

const superscripts: Readonly<Record<string, string>> = {
  '⁰': '0',
  '¹': '1',
  '²': '2',
  '³': '3',
  '⁴': '4',
  '⁵': '5',
  '⁶': '6',
  '⁷': '7',
  '⁸': '8',
  '⁹': '9',
  '⁻': '-',
};

const spellings: Readonly<Record<string, string>> = {
  '°': 'deg',
  '°C': celsius,
  degC: celsius,
  '°F': fahrenheit,
  degF: fahrenheit,
  'Δ°C': '{Δ°C}',
  'Δ°F': intervalFahrenheit,
  ΔK: 'K',
  Ω: 'Ohm',
  ohm: 'Ohm',
  sec: 's',
  l: 'L',
  ft: '[ft_i]',
  in: '[in_i]',
  yd: '[yd_i]',
  mi: '[mi_i]',
  lb: '[lb_av]',
  oz: '[oz_av]',
  lbf: '[lbf_av]',
  mmHg: 'mm[Hg]',
  ml: 'mL',
  psi: '[psi]',
  ppm: '[ppm]',
  '‰': '[ppth]',
  rpm: '{rpm}',
  turns: '{turn}',
  turn: '{turn}',
  rev: '{turn}',
};

const annotation = (text: string): Unit => [{ atom: `{${text.replace(/[{}]/g, '')}}`, power: 1 }];

/** One factor's UCUM code, or undefined where it is no unit. */
function codeOf(name: string): string | undefined {
  const spelled = Object.hasOwn(spellings, name) ? spellings[name] : name.replace(/Ω$/, 'Ohm');
  const isAnnotation = /^\{[^{}]*\}$/.test(spelled);
  return isAnnotation || Object.hasOwn(shiftedScales, spelled) || atomOf(spelled) !== undefined
    ? spelled
    : undefined;
}

/**
 * Reads a unit: a UCUM code ("m/s2", "m.s-2", "J/(kg.K)"), or the ways people write one in a heading ("m/s²", "m s^-2",
 * "m·s⁻²", "J/(kg K)", "°C"). What a solidus divides by is the next factor, or all that stands in brackets after it. A word
 * that is no unit is kept as an annotation in UCUM's braces ("{counts}"), so nothing that was written is lost.
 */
export function parseUnit(text: string): Unit {
  const written = text.trim();
  const plain = withPlainMicro(
    written
      .replace(/[⁰¹²³⁴-⁹⁻]/g, (character) => superscripts[character] ?? character)
      .replace(/[−–]/g, '-')
      .replace(/\^|\*\*/g, ''),
  );
  if (plain === '' || plain === '1') return one;
  const tokens =
    plain.match(/\{[^{}]*\}-?\d*|[^()/.·\s*{}[\]]*\[[^\]]*\]-?\d*|[()/]|[^()/.·\s*{}[\]]+/g) ?? [];
  let place = 0;

  const product = (): Map<string, number> | undefined => {
    const powers = new Map<string, number>();
    let sign = 1;
    while (place < tokens.length && tokens[place] !== ')') {
      const token = tokens[place++];
      if (token === '/') {
        if (sign === -1) return undefined;
        sign = -1;
        continue;
      }
      if (token === '(') {
        const inner = product();
        if (inner === undefined || tokens[place++] !== ')') return undefined;
        for (const [atom, power] of inner) powers.set(atom, (powers.get(atom) ?? 0) + sign * power);
      } else if (token !== '1') {
        const match = /^(.*?[^\d-])(-?\d+)?$/.exec(token);
        const code = match === null ? undefined : codeOf(match[1]);
        if (match === null || code === undefined) return undefined;
        powers.set(code, (powers.get(code) ?? 0) + sign * Number(match[2] ?? 1));
      }
      sign = 1;
    }
    return sign === 1 ? powers : undefined;
  };

  const powers = product();
  return powers === undefined || place < tokens.length ? annotation(written) : normalised(powers);
}

/** The UCUM code of a unit, e.g. "m.s-2"; "1" for a plain number. */
export function ucumCode(unit: Unit): string {
  if (unit.length === 0) return '1';
  return unit.map(({ atom, power }) => (power === 1 ? atom : `${atom}${power}`)).join('.');
}

const printed: Readonly<Record<string, string>> = {
  deg: '°',
  Cel: '°C',
  Ohm: 'Ω',
  '[ft_i]': 'ft',
  '[in_i]': 'in',
  '[yd_i]': 'yd',
  '[mi_i]': 'mi',
  '[lb_av]': 'lb',
  '[oz_av]': 'oz',
  '[lbf_av]': 'lbf',
  '[degF]': '°F',
  'mm[Hg]': 'mmHg',
  '[psi]': 'psi',
  '[ppm]': 'ppm',
  '[ppth]': '‰',
};

/** How an atom is printed: "uV" as µV, "deg" as °, "{turn}" as turn. */
export function printedAtom(atom: string): string {
  const bare = atom.replace(/^\{(.*)\}$/, '$1');
  return printed[bare] ?? bare.replace(/^u(?=[A-Za-z])/, 'µ').replace(/Ohm$/, 'Ω');
}

/** The unit in print, with superscripts: "m s⁻²" (ISO 80000-1, 7.2); empty for a plain number. */
export function printedUnit(unit: Unit): string {
  const raised = (power: number) =>
    power === 1
      ? ''
      : [...String(Number(power.toPrecision(4)))]
          .map((digit) =>
            digit === '.'
              ? '·'
              : (Object.keys(superscripts).find((key) => superscripts[key] === digit) ?? digit),
          )
          .join('');
  return unit.map(({ atom, power }) => printedAtom(atom) + raised(power)).join(' ');
}

export const sameUnit = (a: Unit, b: Unit): boolean => ucumCode(a) === ucumCode(b);
