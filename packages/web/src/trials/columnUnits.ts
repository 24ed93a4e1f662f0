import { type Unit, canConvert, parseUnit, printedUnit, ucumCode } from '@heuristor/core';

/** What is wrong with a unit that was typed for a column; null where it is right. */
export function unitFault(text: string, present: Unit): string | null {
  if (text.trim() === '') return null;
  try {
    const unit = parseUnit(text);
    if (canConvert(unit, present) || (unit.length === 0 && present.length === 0)) return null;
    return `${text.trim()} does not measure what this column holds, which is in ${printedUnit(present) || 'plain numbers'}.`;
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
}

/** Its UCUM code; '' of none. */
export const unitTyped = (text: string): string => (text.trim() === '' ? '' : ucumCode(parseUnit(text)));
