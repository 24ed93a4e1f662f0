import { type Plan, type Run } from '@heuristor/contracts';
import { type Condition } from '@heuristor/core';

/** The numbers that were typed for a run, under the names of their columns: what formulas can use of them. */
export const conditionsOf = (run: Run, { conditions: columns }: Pick<Plan, 'conditions'>): Condition[] =>
  columns.flatMap(({ key, name, unit }) => {
    const said = run.conditions[key];
    return said === undefined || 'word' in said
      ? []
      : [{ name, value: said.value, uncertainty: said.u, unit }];
  });
