import { type GuideCheck } from '@heuristor/contracts';
import { parseUnit, printedUnit } from '@heuristor/core';
import { shortText } from '../../ui/numberText';
import { checkKindsHere } from '.';

/** The number that a check asks for, with its unit; a rate is so many times a second, and has none. */
export function amountOf({ kind, number, unit }: GuideCheck): string {
  if (number === null) return '';
  const printed = checkKindsHere[kind].number?.unit === 'Hz' ? '' : printedUnit(parseUnit(unit));
  return `${shortText(number, 4)}${printed === '' ? '' : ` ${printed}`}`;
}
