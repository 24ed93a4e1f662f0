import { type ConditionColumn, type ConditionValue, type Run, type TrialColumn } from '@heuristor/contracts';
import { type Cell, conditionResult, nothing, numberCell, typedQuantityOf } from '@heuristor/core';
import { runDate } from '../runs/runDate';

/** What is known of a run. */
export function runFieldCell(of: Extract<TrialColumn, { kind: 'run' }>['of'], run: Run): Cell {
  const word = (text: string): Cell => (text === '' ? nothing : { kind: 'word', text });
  switch (of) {
    case 'number':
      return numberCell(typedQuantityOf(run.number, null, [], { root: '', label: '' }), asTyped);
    case 'name':
      return word(run.name);
    case 'group':
      return word(run.group);
    case 'note':
      return word(run.remark);
    case 'date':
      return word(runDate(run));
  }
}

/** What was said of a run. */
export function conditionCell(said: ConditionValue | undefined, { name, unit }: ConditionColumn): Cell {
  if (said === undefined) return nothing;
  if ('word' in said) return { kind: 'word', text: said.word };
  // As results of the workings use it: what both owe to it is the same.
  const result = conditionResult({ name, unit, value: said.value, uncertainty: said.u });
  return result === null ? nothing : numberCell(result.quantity, asTyped);
}

/** What was typed is shown with the digits that it has. */
export const asTyped = 0;
