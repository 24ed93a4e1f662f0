import { type WorkingsDocument } from '@heuristor/contracts';
import { type Condition, type OpenedResult, sameName, ucumCode } from '@heuristor/core';
import { type RunOutcome } from './rowOutcomes';

/**
 * What conclusions can speak of beside the table: constants of the workings, and results by formulas that are the same in every run.
 * Their roots of uncertainty stay what they are, so that what a column owes to a constant, too, counts with its covariance.
 * @param taken names of columns, which mean the columns
 */
export function givenOf(
  { entries }: Pick<WorkingsDocument, 'entries'>,
  outcomes: ReadonlyMap<string, RunOutcome>,
  taken: readonly string[],
): Condition[] {
  const names = new Set(taken.map(sameName));
  return entries.flatMap((entry): Condition[] => {
    if (entry.name === '' || names.has(sameName(entry.name))) return [];
    const found: OpenedResult[] = [];
    for (const { results } of outcomes.values())
      for (const result of results.values()) if (result.entry === entry.id && result.main) found.push(result);
    const [first] = found;
    if (first === undefined || !Number.isFinite(first.quantity.value)) return [];
    const isSame = found.every(({ quantity }) => quantity.value === first.quantity.value);
    if (entry.kind !== 'constant' && !(isSame && found.length > 1 && entry.kind === 'calculation')) return [];
    const { value, unit, standardUncertainty } = first.quantity;
    return [
      {
        name: entry.name,
        value,
        uncertainty: standardUncertainty,
        unit: ucumCode(unit),
        roots: first.quantity
          .influences()
          .map(({ root, label, effect }) => ({ root, label, by: effect.weights[0] ?? 0 })),
      },
    ];
  });
}
