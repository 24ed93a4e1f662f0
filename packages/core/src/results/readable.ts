import { orRefusal, Refusal } from '../refusal';
import { canConvert, conversionOf } from '../units/conversion';
import { temperatureKind } from '../units/temperature';
import { type Unit, parseUnit, sameUnit } from '../units/unit';

/** A number as it is shown, with what decides its digits. */
export interface DisplayedResult {
  value: number;
  /** What stands behind ±; null where there is none. */
  halfWidth: number | null;
  /** Where there is none: the spread that decides the digits. */
  roundTo: number | null;
  unit: Unit;
}

/** Engineering prefixes that people write before an atom, the smallest first; '' is none. Common practice, no source. */
const prefixesOf: Readonly<Record<string, readonly string[]>> = {
  m: ['n', 'u', 'm', '', 'k'],
  g: ['u', 'm', '', 'k'],
  s: ['n', 'u', 'm', ''],
  Hz: ['m', '', 'k', 'M', 'G'],
  N: ['u', 'm', '', 'k', 'M'],
  J: ['u', 'm', '', 'k', 'M', 'G'],
  W: ['u', 'm', '', 'k', 'M'],
  Pa: ['', 'k', 'M'],
  bar: ['u', 'm', ''],
  V: ['n', 'u', 'm', '', 'k'],
  A: ['n', 'u', 'm', '', 'k'],
  C: ['n', 'u', 'm', ''],
  Ohm: ['m', '', 'k', 'M', 'G'],
  S: ['n', 'u', 'm', ''],
  F: ['p', 'n', 'u', 'm', ''],
  H: ['u', 'm', ''],
  T: ['n', 'u', 'm', ''],
  Wb: ['u', 'm', ''],
  L: ['u', 'm', ''],
  eV: ['m', '', 'k', 'M', 'G'],
  Wh: ['m', '', 'k', 'M'],
  Bq: ['', 'k', 'M', 'G'],
};

/** Units that are no prefixes of one another, of which people choose. */
const alternatives: readonly (readonly string[])[] = [
  ['mm', 'cm', 'm', 'km'],
  ['ms', 's', 'min', 'h'],
  ['cm/s', 'm/s', 'km/h'],
  ['rad', 'deg', '{turn}'],
  ['rad/s', 'deg/s', '{rpm}'],
  ['Cel', '[degF]', 'K'],
  ['K', '{Δ°C}', '{Δ°F}'],
  ['J', 'kJ', 'Wh', 'kWh'],
  ['Pa', 'hPa', 'kPa', 'bar'],
  ['g', 'kg'],
  ['mL', 'L'],
  ['mT', 'T'],
  ['N/m', 'N/cm'],
];

/** From here to there a number reads well as it is. */
const [least, most] = [0.1, 1000];

/** The atom of a unit that is nothing but one, with its engineering prefixes; null of any other. */
function prefixed(unit: Unit): { base: string; prefixes: readonly string[] } | null {
  if (unit.length !== 1 || unit[0].power !== 1) return null;
  const { atom } = unit[0];
  for (const base of [atom, atom.slice(1)])
    if (Object.hasOwn(prefixesOf, base)) return { base, prefixes: prefixesOf[base] };
  return null;
}

/**
 * The unit in which a number of that size is read easily: its own from 0.1 to below 1000, else the one with the engineering prefix
 * that brings it between 1 and 1000. Units that are products keep as they are.
 * @param size of what is told, or of its uncertainty where that is larger
 */
export function readableUnit(size: number, unit: Unit): Unit {
  const parts = prefixed(unit);
  const magnitude = Math.abs(size);
  if (parts === null || !(magnitude > 0) || !Number.isFinite(magnitude)) return unit;
  if (magnitude >= least && magnitude < most) return unit;
  const units = parts.prefixes.map((prefix) => parseUnit(`${prefix}${parts.base}`));
  const sizes = units.map((one) => magnitude * conversionOf(unit, one).factor);
  // As it will stand there: 999.96 with four figures is 1000.
  const fitting = sizes.findIndex((one) => one >= 1 && one < most * (1 - 1e-4));
  if (fitting >= 0) return units[fitting];
  return sizes[0] < 1 ? units[0] : units[units.length - 1];
}

/** The unit in which a number is read easily. */
export const readableUnitOf = ({
  value,
  halfWidth,
  unit,
}: Pick<DisplayedResult, 'value' | 'halfWidth' | 'unit'>): Unit =>
  readableUnit(Math.max(Math.abs(value), halfWidth ?? 0), unit);

/** Every card asks for the same few, each time it is drawn. */
const knownChoices = new Map<string, Unit[]>();
const mostKnown = 200;

/** The units that a result in `unit` can be shown in, its own among them, the smallest first. */
export function unitChoices(unit: Unit): Unit[] {
  const key = JSON.stringify(unit);
  let found = knownChoices.get(key);
  if (found === undefined) {
    if (knownChoices.size >= mostKnown) knownChoices.clear();
    knownChoices.set(key, (found = choicesFor(unit)));
  }
  return found;
}

function choicesFor(unit: Unit): Unit[] {
  // A plain number is no angle, though both have no dimension.
  if (unit.length === 0) return [unit];
  const parts = prefixed(unit);
  const codes = [
    ...(parts?.prefixes ?? []).map((prefix) => `${prefix}${parts?.base ?? ''}`),
    ...alternatives.flat(),
  ];
  const found: Unit[] = [unit];
  for (const code of codes) {
    const one = parseUnit(code);
    if (isShowable(unit, one) && !found.some((other) => sameUnit(other, one))) found.push(one);
  }
  return found.sort((a, b) => conversionOf(unit, b).factor - conversionOf(unit, a).factor);
}

/** A point is shown as a point, an interval as one, all else in what it can be converted into. */
function isShowable(unit: Unit, wanted: Unit): boolean {
  const [is, asked] = [temperatureKind(unit), temperatureKind(wanted)];
  if (is === null || asked === null) return is === asked && canConvert(unit, wanted);
  return is === asked || is === 'either' || asked === 'either';
}

/** A number in another unit. @throws Refusal where the two measure different things */
export function resultInUnit(
  { value, halfWidth, roundTo, unit }: DisplayedResult,
  wanted: Unit,
): DisplayedResult {
  const { factor, offset } = conversionOf(unit, wanted);
  return {
    value: value * factor + offset,
    halfWidth: halfWidth === null ? null : halfWidth * Math.abs(factor),
    roundTo: roundTo === null ? null : roundTo * Math.abs(factor),
    unit: wanted,
  };
}

/** The unit that somebody has chosen for a result, where it still goes with it; else the one that reads well. */
export function unitShown(displayed: DisplayedResult, chosen: string | undefined): Unit {
  if (chosen === undefined) return readableUnitOf(displayed);
  const wanted = orRefusal(() => parseUnit(chosen));
  return wanted instanceof Refusal || !isShowable(displayed.unit, wanted)
    ? readableUnitOf(displayed)
    : wanted;
}
