import { type ConditionColumn, type PlannedRow } from '@heuristor/contracts';
import { parseUnit, printedUnit } from '@heuristor/core';
import { textOfCondition } from '../runs/conditions/conditionText';

/** What a planned row is called: its conditions, as "load 0.35 kg, elastic". */
export function plannedName({ conditions }: PlannedRow, columns: readonly ConditionColumn[]): string {
  const parts = columns.flatMap(({ key, name, unit }) => {
    const said = conditions[key];
    if (said === undefined) return [];
    const text = textOfCondition(said);
    return ['word' in said ? text : `${name} ${text} ${printedUnit(parseUnit(unit))}`.trim()];
  });
  return parts.length === 0 ? 'planned' : parts.join(', ');
}
