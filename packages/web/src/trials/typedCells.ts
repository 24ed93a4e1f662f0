import {
  type ConditionColumn,
  type ConditionValue,
  type TrialColumn,
  type TypedCell,
} from '@heuristor/contracts';
import { type Cell, type Unit, conversionBetween, parseUnit, printedUnit, ucumCode } from '@heuristor/core';
import { conditionTyped, textOfCondition } from '../runs/conditions/conditionText';
import { placeOf } from './rowOutcomes';
import { type TableInputs, type ViewColumn } from './tableView';

/** In which unit a typed cell of a column is given. */
function unitOfTyped(
  column: TrialColumn,
  { conditions, outcomes }: Pick<TableInputs, 'conditions' | 'outcomes'>,
): Unit {
  if (column.unit !== '') return parseUnit(column.unit);
  if (column.kind === 'condition')
    return parseUnit(conditions.find(({ key }) => key === column.condition)?.unit ?? '');
  if (column.kind === 'value')
    for (const { repeats } of outcomes.values()) {
      const [first] = repeats.get(column.of)?.quantities ?? [];
      if (first !== undefined) return first.unit;
    }
  if (column.kind === 'result')
    for (const { results } of outcomes.values()) {
      const found = results.get(placeOf(column.entry, column.field));
      if (found !== undefined) return found.quantity.unit;
    }
  return [];
}

/** In which unit a column is typed: that in which it is shown. */
export const unitTypedIn = (
  { column, unit }: Pick<ViewColumn, 'column' | 'unit'>,
  inputs: Pick<TableInputs, 'conditions' | 'outcomes'>,
): Unit => unit ?? unitOfTyped(column, inputs);

/** What stands in the field of a cell: as it is shown, or as it was typed where the column cannot show it. */
export function textInField(cell: Cell, said: ConditionValue | TypedCell | undefined): string {
  if (cell.kind === 'number') {
    const { value, standardUncertainty } = cell.quantity;
    return textOfCondition({ value, u: standardUncertainty });
  }
  if (said === undefined || 'word' in said) return textOfCondition(said);
  const text = textOfCondition({ value: said.value, u: said.u });
  return 'unit' in said ? `${text} ${printedUnit(parseUnit(said.unit))}`.trim() : text;
}

/** What was typed into a row of another group; null of nothing. @throws Error that says what would be right */
export function typedCell(text: string, unit: Unit, kind: 'number' | 'word'): TypedCell | null {
  const typed = conditionTyped(text, { kind, unit: ucumCode(unit) });
  return typed === null || 'word' in typed ? typed : { ...typed, unit: ucumCode(unit) };
}

/** Digits that a number has; what lies beyond is rounding of its conversion. */
const digits = 15;

/** What was typed of a run in the unit of a column, in that of the condition. @throws Error that says what would be right */
export function typedCondition(text: string, shown: Unit, condition: ConditionColumn): ConditionValue | null {
  if (condition.kind === 'word') return conditionTyped(text, condition);
  const typed = conditionTyped(text, { kind: 'number', unit: ucumCode(shown) });
  if (typed === null || 'word' in typed) return typed;
  const conversion = conversionBetween(shown, parseUnit(condition.unit));
  if (conversion === null)
    throw new Error(`${condition.name} is in ${condition.unit}. Choose a unit like it for this column.`);
  const { factor, offset } = conversion;
  if (factor === 1 && offset === 0) return typed;
  const rounded = (value: number) => Number(value.toPrecision(digits));
  return {
    value: rounded(factor * typed.value + offset),
    u: typed.u === null ? null : rounded(Math.abs(factor) * typed.u),
  };
}
