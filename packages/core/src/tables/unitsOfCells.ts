import { measureOfUnit } from '../units/conversion';
import { siPrefixes } from '../units/prefixes';
import { type Unit, parseUnit } from '../units/unit';
import { type Heading } from './heading';

/** A unit that is known, in brackets or not; undefined for anything else. */
function unitIn(text: string): Unit | undefined {
  const bare = text
    .trim()
    .replace(/^[([](.*)[)\]]$/, '$1')
    .trim();
  if (bare === '' || bare === '-' || bare === '1') return [];
  const unit = parseUnit(bare);
  return measureOfUnit(unit) === undefined ? undefined : unit;
}

/** Headings with the units that stand in a row of their own under them; null where that row is none of units. */
export function unitsUnder(headings: readonly Heading[], cells: readonly string[]): Heading[] | null {
  if (cells.length !== headings.length) return null;
  const units = cells.map(unitIn);
  if (units.some((unit) => unit === undefined) || units.every((unit) => unit?.length === 0)) return null;
  return headings.map((heading, i) =>
    heading.unit.length > 0 ? heading : { ...heading, unit: units[i] ?? [] },
  );
}

/** Headings with the units that stand behind the numbers of a row: “45 %” under a heading without one. */
export const withUnitsOfCells = (headings: readonly Heading[], cells: readonly string[]): Heading[] =>
  headings.map((heading, i) => {
    if (heading.unit.length > 0 || i >= cells.length) return heading;
    const suffix = /^[+\-−]?[\d.,]*\d(?:e[+\-−]?\d+)?\s*([^\d\s.,:/-].*)$/i.exec(cells[i].trim())?.[1];
    // A single letter may be a prefix: 4.7k, 12m.
    if (suffix === undefined || Object.hasOwn(siPrefixes, suffix)) return heading;
    return { ...heading, unit: unitIn(suffix) ?? [] };
  });
