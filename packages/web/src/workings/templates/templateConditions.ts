import { type ConditionColumn, type Template, type TrialTable } from '@heuristor/contracts';
import { canConvert, parseUnit, referencesIn, resultRef, sameName, withNames } from '@heuristor/core';
import { formulasOf } from '../formulas/formulas';

/** Something that a template asks for, and that may be what is said of each run here already. */
export interface Alike {
  /** What the template calls it. */
  symbol: string;
  /** The constant of the template that it would stand for; null where the template asks for it as a condition of its own. */
  constantId: string | null;
  condition: ConditionColumn;
}

/** What of a template may be a condition that is asked of the runs here under another name. */
export function alikesOf(template: Template, present: readonly ConditionColumn[]): Alike[] {
  const { entries } = template.workings;
  const asked = template.conditions
    .filter(
      ({ kind, name }) => kind === 'number' && !present.some((one) => sameName(one.name) === sameName(name)),
    )
    .map(({ name, unit }) => ({ symbol: name, unit, constantId: null }));
  const constants = entries.flatMap((entry) => {
    if (entry.kind !== 'constant' || entry.name === '') return [];
    const reference = resultRef(entry.id, 'value');
    // Only a formula can speak of a condition.
    const isUsedElsewhere = entries.some(
      (other) =>
        referencesIn(other).results.includes(reference) &&
        !formulasOf(other).some(([, { names }]) => Object.values(names).includes(reference)),
    );
    return isUsedElsewhere ? [] : [{ symbol: entry.name, unit: entry.unit, constantId: entry.id }];
  });
  return [...asked, ...constants].flatMap(({ symbol, unit, constantId }): Alike[] => {
    const condition = present.find((one) => one.kind === 'number' && isOfKind(one.unit, unit));
    return condition === undefined ? [] : [{ symbol, constantId, condition }];
  });
}

/** Whether two units measure the same; plain numbers say nothing of what they are of. */
function isOfKind(a: string, b: string): boolean {
  const [first, second] = [parseUnit(a), parseUnit(b)];
  return first.length > 0 && canConvert(first, second);
}

/** Whether a symbol looks like the beginning of a name: m of mass, l of length. */
export const looksLike = ({ symbol, condition }: Alike): boolean =>
  condition.name.toLowerCase().startsWith(symbol.charAt(0).toLowerCase());

/** The template with conditions of the runs here in place of what it asks for. */
export function withAlikes(template: Template, alikes: readonly Alike[]): Template {
  return alikes.reduce((changed, { symbol, constantId, condition: { name, unit } }): Template => {
    const reference = constantId === null ? null : resultRef(constantId, 'value');
    const isIt = (names: Readonly<Record<string, string>>, called: string) =>
      reference === null
        ? !Object.hasOwn(names, called) && sameName(called) === sameName(symbol)
        : names[called] === reference ||
          (!Object.hasOwn(names, called) && sameName(called) === sameName(symbol));
    const renamed = (table: TrialTable): TrialTable => ({
      ...table,
      columns: table.columns.map((column) =>
        column.kind === 'formula'
          ? {
              ...column,
              formula: withNames(column.formula, (called) =>
                sameName(called) === sameName(symbol) ? name : undefined,
              ),
            }
          : column,
      ),
    });
    const entries = changed.workings.entries
      .filter(({ id }) => id !== constantId)
      .map((entry) => ({
        ...entry,
        ...Object.fromEntries(
          formulasOf(entry).map(([field, { text, names }]) => [
            field,
            {
              text: withNames(text, (called) => (isIt(names, called) ? name : undefined)),
              names: Object.fromEntries(Object.entries(names).filter(([called]) => !isIt(names, called))),
            },
          ]),
        ),
      }));
    return {
      ...changed,
      // It goes on under the name that it has here, so that tables find it.
      conditions: changed.conditions.map((column) =>
        constantId === null && sameName(column.name) === sameName(symbol)
          ? { ...column, name, unit }
          : column,
      ),
      trials: { ...changed.trials, tables: changed.trials.tables.map(renamed) },
      workings: { ...changed.workings, entries: entries as Template['workings']['entries'] },
    };
  }, template);
}
