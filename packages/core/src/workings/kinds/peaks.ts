import { intervalUnit } from '../../units/temperature';
import { type WeightedValue, differenceOf } from '../../calculus/cycles';
import { type Turn, turnsOf } from '../../calculus/turns';
import { Refusal } from '../../refusal';
import { exactly } from '../../results/quantity';
import { type Series } from '../../series/series';
import { regionField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { type NamedResult } from '../outcome';
import { rangeIn, reachNote } from '../selection';
import { meanWeightedValue, weightedQuantity } from '../weightedValues';
import { symbolOf, withWorkings, workingBy } from '../working';

/**
 * Peaks and troughs of an interval: how many, how high, when. What stands out less than a twentieth of the whole range, or less
 * than six times its noise, is none.
 */
export const peaks = defineKind({
  kind: 'peaks',
  title: 'peaks',
  yields: 'results',
  offered: 'region',
  offers: [{ title: 'peaks', preset: {} }],
  fields: { of: seriesField(), region: regionField() },
  sentence: ({ of }, nameOf) => `peaks and troughs of ${nameOf(of)}`,
  evaluate({ of, region: regionId }, context) {
    const series = context.series(of);
    const region = context.region(regionId);
    const [first, past] = rangeIn(series, region);
    const turns = turnsOf(series, first, past);
    if (turns.length === 0)
      throw new Refusal(
        `${series.symbol} has no peak and no trough here that stands out of what is on both sides of it. Make the region longer.`,
      );
    const named = weightedQuantity(series, first, past);
    const tops = turns.filter(({ kind }) => kind === 'peak');
    const bottoms = turns.filter(({ kind }) => kind === 'trough');
    const sigma = (one: WeightedValue) => named('', '', one, series.unit).quantity.standardUncertainty ?? 0;
    const highest = extreme(tops, 1, sigma);
    const lowest = extreme(bottoms, -1, sigma);
    const isPeakMain = highest !== undefined;
    const spacing = (all: readonly Turn[], name: string, key: string): NamedResult[] =>
      all.length < 2
        ? []
        : [
            named(
              key,
              name,
              differenceOf(all[all.length - 1].time, all[0].time, all.length - 1),
              series.timeUnit,
            ),
          ];
    const [height, depth] = [meanOf(tops), meanOf(bottoms)];
    return {
      kind: 'results',
      results: withWorkings(
        [
          ...(highest === undefined
            ? []
            : [
                named('peak', 'highest peak', highest.value, series.unit, true),
                named('peakAt', 'time of the highest peak', highest.time, series.timeUnit),
              ]),
          ...(lowest === undefined
            ? []
            : [
                named('trough', 'lowest trough', lowest.value, series.unit, !isPeakMain),
                named('troughAt', 'time of the lowest trough', lowest.time, series.timeUnit),
              ]),
          ...(height !== null && tops.length > 1
            ? [named('meanPeak', 'mean peak', height, series.unit)]
            : []),
          ...(depth !== null && bottoms.length > 1
            ? [named('meanTrough', 'mean trough', depth, series.unit)]
            : []),
          ...(height === null || depth === null
            ? []
            : [
                named(
                  'amplitude',
                  'half from trough to peak',
                  differenceOf(height, depth, 2),
                  intervalUnit(series.unit),
                ),
              ]),
          ...spacing(tops, 'from peak to peak', 'spacing'),
          { key: 'count', name: 'peaks', quantity: exactly(tops.length, []), roundTo: 1, main: false },
          { key: 'troughs', name: 'troughs', quantity: exactly(bottoms.length, []), roundTo: 1, main: false },
        ],
        workingsOfPeaks(series, tops, height, depth),
      ),
      notes: [
        ...equalNote(highest, 'peaks', 'high'),
        ...equalNote(lowest, 'troughs', 'low'),
        ...reachNote(series, region),
      ],
      fitted: null,
    };
  },
});

function workingsOfPeaks(
  { symbol, unit, timeUnit }: Series,
  tops: readonly Turn[],
  height: WeightedValue | null,
  depth: WeightedValue | null,
) {
  const at = ({ time: { value } }: Turn) => ({ value, unit: timeUnit });
  const high = (weighted: WeightedValue | null) => ({ value: weighted?.value ?? NaN, unit });
  const letters = {
    p: `\\overline{${symbolOf(symbol, '\\max')}}`,
    q: `\\overline{${symbolOf(symbol, '\\min')}}`,
  };
  return {
    amplitude: () => workingBy('a', '(p - q)/2', { p: high(height), q: high(depth) }, letters),
    spacing: () =>
      workingBy('\\Delta t', '(t_n - t_1)/(n - 1)', {
        t_n: at(tops[tops.length - 1]),
        t_1: at(tops[0]),
        n: { value: tops.length, unit: [] },
      }),
  };
}

interface Extreme {
  value: WeightedValue;
  time: WeightedValue;
  /** How many are as high within their uncertainties. */
  count: number;
}

/** Two values that are the same differ by so many standard uncertainties of their difference once in 370. */
const clearly = 3;

/**
 * The highest or lowest turn. Of turns that are equally high within their uncertainties noise would choose the one that it raised
 * most, so their mean is taken.
 */
function extreme(
  all: readonly Turn[],
  sign: 1 | -1,
  sigma: (one: WeightedValue) => number,
): Extreme | undefined {
  const [first, ...others] = all;
  if (first === undefined) return undefined;
  const best = others.reduce(
    (found, one) => (sign * (one.value.value - found.value.value) > 0 ? one : found),
    first,
  );
  const equal = all.filter(
    ({ value }) =>
      Math.abs(best.value.value - value.value) <= clearly * Math.hypot(sigma(best.value), sigma(value)),
  );
  return { value: meanWeightedValue(equal.map(({ value }) => value)), time: best.time, count: equal.length };
}

const equalNote = (found: Extreme | undefined, what: string, high: string): string[] =>
  found === undefined || found.count < 2
    ? []
    : [
        `${found.count} ${what} are equally ${high} within their uncertainties; what stands here is their mean.`,
      ];

const meanOf = (all: readonly Turn[]): WeightedValue | null =>
  all.length === 0 ? null : meanWeightedValue(all.map(({ value }) => value));
