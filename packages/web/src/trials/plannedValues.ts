import { type ConditionColumn, type ConditionValue, type PlannedRow } from '@heuristor/contracts';
import { conditionTyped, faultOfTyping } from '../runs/conditions/conditionText';

/** Values that were typed for a condition, separated by semicolons. @throws Error that says what would be right */
export const valuesTyped = (text: string, column: ConditionColumn): ConditionValue[] =>
  text.split(';').flatMap((part) => conditionTyped(part, column) ?? []);

/** What is wrong with values that were typed; null where they are right. */
export const faultOfValues = (text: string, column: ConditionColumn): string | null =>
  faultOfTyping(() => valuesTyped(text, column));

/**
 * Every combination of the values of conditions, so often, the last condition changing first. Conditions without a value are not
 * planned; without any value there is no row.
 */
export function combinations(
  conditions: readonly { key: string; values: readonly ConditionValue[] }[],
  times: number,
): PlannedRow['conditions'][] {
  const given = conditions.filter(({ values }) => values.length > 0);
  if (given.length === 0) return [];
  let rows: PlannedRow['conditions'][] = [{}];
  for (const { key, values } of given)
    rows = rows.flatMap((row) => values.map((value) => ({ ...row, [key]: value })));
  return rows.flatMap((row) => Array.from({ length: times }, () => ({ ...row })));
}
