import { type ConditionColumn, type ConditionValue } from '@heuristor/contracts';
import { leadingNumber, parseUnit, printedUnit, typedQuantity } from '@heuristor/core';
import { shortText } from '../../ui/numberText';

const shown = (value: number) => shortText(value, 10);

/** A condition as it stands in its field: "0.5 ± 0.001", or the word; nothing where nothing was said. */
export function textOfCondition(given: ConditionValue | undefined): string {
  if (given === undefined) return '';
  if ('word' in given) return given.word;
  return given.u === null ? shown(given.value) : `${shown(given.value)} ± ${shown(given.u)}`;
}

/** What was typed; null of nothing, which takes the value away. @throws Error that says what would be right */
export function conditionTyped(
  text: string,
  { kind, unit }: Pick<ConditionColumn, 'kind' | 'unit'>,
): ConditionValue | null {
  if (text.trim() === '') return null;
  if (kind === 'word') return { word: text.trim() };
  const expected = parseUnit(unit);
  const [value, u] = text.split(/±|\+-/);
  if (u === undefined) return { value: typedQuantity(value, expected), u: null };
  // "0.5 ± 0.001 kg": the unit after the uncertainty is that of both.
  const own = leadingNumber(value)?.rest === '' ? (leadingNumber(u)?.rest ?? '') : '';
  return { value: typedQuantity(`${value} ${own}`, expected), u: Math.abs(typedQuantity(u, expected)) };
}

/** What is wrong with something that was typed, as whoever reads it says; null where it is right. */
export function faultOfTyping(read: () => unknown): string | null {
  try {
    read();
    return null;
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
}

/** What is wrong with a text that was typed for a condition; null where it is right. */
export const faultOfCondition = (
  text: string,
  column: Pick<ConditionColumn, 'kind' | 'unit'>,
): string | null => faultOfTyping(() => conditionTyped(text, column));

/** What was said of a run, each with its name and its unit: “mass 0.5 ± 0.001 kg”. */
export const conditionsSaid = (
  said: Readonly<Record<string, ConditionValue>>,
  columns: readonly ConditionColumn[],
): string[] =>
  columns.flatMap((column) =>
    said[column.key] === undefined ? [] : [`${column.name} ${conditionWithUnit(said[column.key], column)}`],
  );

/** A condition as it is read in a sentence, with its unit. */
export const conditionWithUnit = (
  said: ConditionValue,
  { kind, unit }: Pick<ConditionColumn, 'kind' | 'unit'>,
): string => `${textOfCondition(said)} ${kind === 'word' ? '' : printedUnit(parseUnit(unit))}`.trim();
