import { type Plan, type Run } from '@heuristor/contracts';
import { type Condition } from '@heuristor/core';

/** The numbers that were typed for a run, under the names of their columns: what formulas can use of them. */
export const conditionsOf = (run: Run, { conditions: columns }: Pick<Plan, 'conditions'>): Condition[] =>
  columns.flatMap(({ key, name, kind, unit }): Condition[] => {
    const said = run.conditions[key];
    if (said === undefined) return kind === 'number' ? [{ name, value: null, uncertainty: null, unit }] : [];
    return 'word' in said ? [] : [{ name, value: said.value, uncertainty: said.u, unit }];
  });
