import { type MeasuredCell, type SpotColumn } from '@heuristor/contracts';
import { parseUnit, printedUnit } from '@heuristor/core';

type Cells = Record<string, MeasuredCell>;

/** A change by less than this share of what is read is none, where a sensor without noise tells no uncertainty. */
const nothing = 1e-3;

/** Whether two readings in a row agree within their standard uncertainties. */
export function haveSettled(before: Cells, here: Cells): boolean {
  return Object.entries(here).every(([key, { value, u }]) => {
    const earlier = before[key];
    return (
      Math.abs(value - earlier.value) <=
      Math.max(Math.hypot(u ?? 0, earlier.u ?? 0), nothing * Math.abs(value))
    );
  });
}

/** Readings that still change, their uncertainties widened by as much as they changed last. */
export function withRest(before: Cells, here: Cells): Cells {
  return Object.fromEntries(
    Object.entries(here).map(([key, cell]) => [
      key,
      { ...cell, u: Math.hypot(cell.u ?? 0, cell.value - before[key].value) },
    ]),
  );
}

/** What was set for a reading: “f = 12.5 Hz”. */
export function givenWords(
  columns: readonly SpotColumn[],
  given: Readonly<Record<string, { typed: number } | { word: string }>>,
): string {
  return columns
    .flatMap((column) => {
      const cell = given[column.key];
      if (column.kind !== 'typed' || column.output === null || cell === undefined || !('typed' in cell))
        return [];
      return [`${column.name} = ${cell.typed} ${printedUnit(parseUnit(column.unit))}`.trim()];
    })
    .join(', ');
}

/** What is said of a reading that was taken before it had settled. */
export const restWords = (where: string, tries: number): string =>
  `At ${where} the reading still changed after ${tries} tries. It was taken, and its ± includes the last change. Wait longer before each reading for a smaller one.`;
