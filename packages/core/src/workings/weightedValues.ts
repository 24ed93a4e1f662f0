import { type WeightedValue } from '../calculus/cycles';
import { sumOfSpans } from '../series/noisePath';
import { type Series } from '../series/series';
import { type Unit } from '../units/unit';
import { type NamedResult } from './outcome';
import { weighed } from './weighed';

/** Makes results of numbers that were found from readings of a part of a series, whose noise is that of the part. */
export const weightedQuantity =
  (series: Series, first: number, past: number) =>
  (key: string, name: string, { value, weights }: WeightedValue, unit: Unit, main = false): NamedResult => ({
    key,
    name,
    quantity: weighed(value, unit, [[series, weights]], { first, past }),
    roundTo: null,
    main,
  });

/** The mean of some, of which there is one at least. */
export const meanWeightedValue = (all: readonly WeightedValue[]): WeightedValue => ({
  value: all.reduce((sum, { value }) => sum + value, 0) / all.length,
  weights: sumOfSpans(all.map(({ weights }) => [weights, 1 / all.length])),
});
