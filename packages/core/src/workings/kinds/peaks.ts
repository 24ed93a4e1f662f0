import { intervalUnit } from '../../units/temperature';
import { type WeightedValue, differenceOf } from '../../calculus/cycles';
import { type Turn, turnsOf } from '../../calculus/turns';
import { Refusal } from '../../refusal';
import { exactly } from '../../results/quantity';
import { type Series } from '../../series/series';
import { regionField, seriesField } from '../fields';
import { type Unit } from '../../units/unit';
import { defineKind } from '../kind';
import { type EachFound, type NamedResult, mostEach } from '../outcome';
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
    // Where it breaks near an end, nobody can tell how far it went.
    const turns = turnsOf(series, first, past).filter(({ isUntold }) => isUntold !== true);
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
      each: () => eachTurn(series, turns, named),
      fitted: null,
    };
  },
});

/**
 * Each peak and each trough: how high it is, when, and how long it is from the turn before it to the one after it, such as the flight of
 * a ball between two bounces.
 */
function eachTurn(
  { symbol, unit, timeUnit }: Series,
  turns: readonly Turn[],
  named: (key: string, name: string, found: WeightedValue, unit: Unit) => NamedResult,
): EachFound[] {
  if (turns.length > 2 * mostEach) return [];
  const quantityOf = (found: WeightedValue, own: Unit) => named('', '', found, own).quantity;
  const between = (later: number) => `readings of ${symbol} between numbers ${later} and ${later + 1}`;
  const of = (kind: Turn['kind'], own: { level: string; moment: string }): EachFound[] => {
    const all = turns.filter((turn) => turn.kind === kind);
    return [
      {
        key: kind,
        symbol: `${own.level} of ${symbol}`,
        unit,
        quantities: all.map(({ value }) => quantityOf(value, unit)),
        reach: 1,
        between,
      },
      {
        key: `${kind}At`,
        symbol: `${own.moment} of ${symbol}`,
        unit: timeUnit,
        quantities: all.map(({ time }) => quantityOf(time, timeUnit)),
        reach: 1,
        between,
      },
    ];
  };
  /** Of each turn of one kind, how long it is from the turn before it to the one after it. */
  const spanned = (kind: Turn['kind'], others: string): EachFound => ({
    key: kind === 'peak' ? 'betweenTroughs' : 'betweenPeaks',
    symbol: `time between the ${others} of ${symbol}`,
    unit: timeUnit,
    quantities: turns.flatMap((turn, i) => {
      if (turn.kind !== kind) return [];
      const [before, after] = [i > 0 ? turns[i - 1] : undefined, turns.at(i + 1)];
      return before === undefined || after === undefined || before.kind === kind || after.kind === kind
        ? [exactly(NaN, timeUnit)]
        : [quantityOf(differenceOf(after.time, before.time, 1), timeUnit)];
    }),
    reach: 1,
    between: (later) => `one of the ${others} of ${symbol}, before number ${later + 1}`,
  });
  return [
    ...of('peak', { level: 'peak', moment: 'time of the peak' }),
    spanned('peak', 'troughs'),
    ...of('trough', { level: 'trough', moment: 'time of the trough' }),
    spanned('trough', 'peaks'),
  ];
}

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
