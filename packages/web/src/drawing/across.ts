import { type Series, conversionBetween } from '@heuristor/core';
import { marked } from '../traces/axes/axisScale';
import { type RenderRequest, type Sight } from '../workers/protocol';

/** How what the horizontal axis shows is brought into its unit. */
export type Across = NonNullable<ReturnType<typeof conversionBetween>>;

/** What stands on the horizontal axis in one run, and how it comes there. */
export interface Horizontal {
  series: Series;
  across: Across;
}

/** For one run; null where what stands on the axis measures something else in it. */
export const acrossOf = (
  { unit }: Pick<Series, 'unit'>,
  { horizontal, axisUnit }: Pick<RenderRequest, 'horizontal' | 'axisUnit'>,
): Across | null => (horizontal === 't' ? { factor: 1, offset: 0 } : conversionBetween(unit, axisUnit));

/** Places that are given in the unit of the run, in that of the axis; the same array where that is the same. */
export const onAxis = (places: Float64Array, { factor, offset }: Across): Float64Array =>
  factor === 1 && offset === 0 ? places : places.map((place) => place * factor + offset);

/** A part of the axis, in the unit of the run. */
export function inRun({ from, to, isLogarithmic }: Sight, { factor, offset }: Across): Sight {
  const ends = [from, to].map((end) => (end - offset) / factor);
  const low = Math.min(...ends);
  return { from: low, to: Math.max(...ends), ...marked(isLogarithmic === true && low > 0) };
}
