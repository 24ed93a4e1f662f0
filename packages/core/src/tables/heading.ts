import { type Unit, parseUnit, printedUnit, ucumCode } from '../units/unit';

export interface Heading {
  name: string;
  unit: Unit;
}

/** Longer names are cut, since they have to stand beside axes and in menus. */
const longestName = 60;

/** A name of a length that can be worked with. */
export const shortName = (name: string): string =>
  name.length <= longestName ? name : `${name.slice(0, longestName - 1).trimEnd()}…`;

/**
 * Reads the heading of a column: "x / m" (ISO 80000-1), "x (m)", "x [m]", "x in m"; without a unit the column holds plain
 * numbers. A quotation mark before =, +, - or @, with which tables keep a text from being taken for a formula, is left out.
 */
export function parseHeading(text: string): Heading {
  const trimmed = text.trim().replace(/^'(?=[=+\-@])/, '');
  const match =
    /^(.+?)\s*\[([^\]]*)\]$/.exec(trimmed) ??
    /^(.+?)\s+\/\s+\((.*)\)$/.exec(trimmed) ??
    /^(.+?)\s*\(([^()]*)\)$/.exec(trimmed) ??
    /^(.+?)\s*\/\s*(.+)$/.exec(trimmed) ??
    /^(.+?)\s+in\s+(\S.*)$/.exec(trimmed);
  if (match === null) return { name: shortName(trimmed), unit: [] };
  return { name: shortName(match[1].trim()), unit: parseUnit(match[2]) };
}

/** The heading of a column as it is written into a file: "v / (m.s-1)", with UCUM codes, which any program can read. */
export function writeHeading(name: string, unit: Unit): string {
  if (unit.length === 0) return name;
  const code = ucumCode(unit);
  return unit.length === 1 && unit[0].power === 1 ? `${name} / ${code}` : `${name} / (${code})`;
}

/** The label of an axis: quantity over unit (ISO 80000-1, 7.1.4). */
export function axisLabel(name: string, unit: Unit): string {
  if (unit.length === 0) return name;
  return unit.length === 1 && unit[0].power === 1
    ? `${name} / ${printedUnit(unit)}`
    : `${name} / (${printedUnit(unit)})`;
}
