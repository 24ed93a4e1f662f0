import { type Cell, grouped, halfWidth, printedUnit } from '@heuristor/core';
import { fineText, resultText, roundedText, shortText } from '../ui/numberText';

/** What stands in a cell, without its unit: rounded to its uncertainty, or as it was typed. */
export function cellText(cell: Cell): string {
  if (cell.kind === 'word') return cell.text;
  if (cell.kind === 'nothing') return '';
  const { quantity, roundTo } = cell;
  const half = halfWidth(quantity);
  if (half !== null) return resultText(quantity.value, half);
  // What was typed has the digits that were typed.
  if (roundTo === 0) return shortText(quantity.value, 10);
  return roundTo === null ? grouped(fineText(quantity.value)) : grouped(roundedText(quantity.value, roundTo));
}

/** Cells for a spreadsheet: a number and its uncertainty, with every digit. */
export function plainCells(cell: Cell): [value: string, uncertainty: string] {
  if (cell.kind === 'word') return [cell.text, ''];
  if (cell.kind === 'nothing') return ['', ''];
  const { value, standardUncertainty } = cell.quantity;
  return [String(value), standardUncertainty === null ? '' : String(standardUncertainty)];
}

/** What a cell is called where it tells groups or points apart: the word, or the number without how well it is known. */
export function calledBy(cell: Cell): string {
  if (cell.kind !== 'number') return cellText(cell);
  const { value, unit } = cell.quantity;
  return `${shortText(value, 6)} ${printedUnit(unit)}`.trim();
}
