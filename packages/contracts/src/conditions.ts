import { z } from 'zod';
import { finite, plainText } from './basics';

const name = plainText
  .transform((text) => text.trim())
  .pipe(z.string().min(1, 'a condition needs a name').max(40, 'a name has 40 letters at most'));

/** Something that is said of every run of an investigation: a number with its unit, or a word. */
export const conditionColumnSchema = z.object({
  key: z.string().min(1).max(20),
  name,
  kind: z.enum(['number', 'word']),
  /** UCUM code; of a word it is that of no unit. */
  unit: plainText.pipe(z.string().max(20)),
});
export type ConditionColumn = z.infer<typeof conditionColumnSchema>;

/** A column beside others, under a key that none of them has. */
export function columnBeside(columns: readonly ConditionColumn[], column: ConditionColumn): ConditionColumn {
  const keys = new Set(columns.map((one) => one.key));
  let { key } = column;
  for (let n = 2; keys.has(key); n++) key = `${column.key}${n}`;
  return { ...column, key };
}

/** What a person has said of one run; `u` is a standard uncertainty in the column's unit. */
export const conditionValueSchema = z.union([
  z.object({ value: finite, u: finite.nonnegative('an uncertainty is not negative').nullable() }).strict(),
  z.object({ word: plainText.pipe(z.string().max(80)) }).strict(),
]);
export type ConditionValue = z.infer<typeof conditionValueSchema>;

export const conditionValuesSchema = z.record(z.string().max(20), conditionValueSchema);
export type ConditionValues = z.infer<typeof conditionValuesSchema>;

export const groupSchema = plainText.pipe(z.string().max(80, 'a group’s name has 80 letters at most'));

/** The id of a planned row of the trials. */
export const plannedKey = z.string().max(40);

/** What changes of the conditions of a run, each by the key of its column: a new value, or null where it is taken back. */
export const conditionChangesSchema = z.record(z.string().max(20), conditionValueSchema.nullable());
export type ConditionChanges = z.infer<typeof conditionChangesSchema>;

/** The values with what has changed of them; two who change different ones keep both. */
export const withConditionsChanged = (values: ConditionValues, changes: ConditionChanges): ConditionValues =>
  Object.fromEntries(
    Object.entries({ ...values, ...changes }).filter(
      (entry): entry is [string, ConditionValue] => entry[1] !== null,
    ),
  );

/** What takes these changes back, where the values stand as they did before them. */
export const changesBack = (values: ConditionValues, changes: ConditionChanges): ConditionChanges =>
  Object.fromEntries(Object.keys(changes).map((key) => [key, values[key] ?? null]));
