import { type Quantity } from '../results/quantity';

/** What stands where a row of a table of trials meets a column. */
export type Cell =
  | {
      kind: 'number';
      quantity: Quantity;
      /** Where it has no uncertainty to round to: the spread that decides how many digits are worth showing. */
      roundTo: number | null;
    }
  | { kind: 'word'; text: string }
  /** Nothing, with the reason where there is one to give. */
  | { kind: 'nothing'; why: string | null };

export const nothing: Cell = { kind: 'nothing', why: null };

export const numberCell = (quantity: Quantity, roundTo: number | null = null): Cell => ({
  kind: 'number',
  quantity,
  roundTo,
});

/** A number that somebody typed, with its own root of uncertainty. @param root the same for what is the same number */
export const typedQuantityOf = (
  value: number,
  uncertainty: number | null,
  unit: Quantity['unit'],
  { root, label }: { root: string; label: string },
): Quantity => {
  const isUncertain = uncertainty !== null && uncertainty > 0;
  return {
    value,
    unit,
    standardUncertainty: isUncertain ? uncertainty : null,
    degreesOfFreedom: Infinity,
    influences: () =>
      isUncertain ? [{ root, label, effect: { first: 0, weights: Float64Array.of(uncertainty) } }] : [],
  };
};
