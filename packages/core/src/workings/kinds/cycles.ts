import { log, square } from '../../elementary';
import { intervalUnit } from '../../units/temperature';
import { type Cycles, type WeightedValue, differenceOf } from '../../calculus/cycles';
import { swingsOf } from '../../calculus/swings';
import { Refusal } from '../../refusal';
import { exactly } from '../../results/quantity';
import { addSpans, scaledSpan } from '../../series/noisePath';
import { type Series } from '../../series/series';
import { describe } from '../../statistics/describe';
import { type Unit, divideUnits } from '../../units/unit';
import { regionField, seriesField } from '../fields';
import { type RegionBounds, defineKind } from '../kind';
import { type EachFound, type NamedResult, mostEach } from '../outcome';
import { rangeIn, reachNote } from '../selection';
import { meanWeightedValue, weightedQuantity } from '../weightedValues';
import { symbolOf, texPart, withWorkings, workingBy } from '../working';

/** How far beyond its region it looks for what tells a crossing, and for a crossing itself, as shares of the region's length. */
const beyond = 0.1;
const spare = 0.01;

const widened = (region: RegionBounds, share: number): RegionBounds => ({
  ...region,
  start: region.start - share * (region.end - region.start),
  end: region.end + share * (region.end - region.start),
});

/** The cycles that lie in a region. */
function within({ starts, amplitudes }: Cycles, { start, end }: RegionBounds): Cycles {
  const isIn = ({ value }: WeightedValue) => value >= start && value <= end;
  return {
    starts: starts.filter(isIn),
    amplitudes: amplitudes.filter((_, i) => isIn(starts[i]) && isIn(starts[i + 1])),
  };
}

/**
 * Swings counted one by one, from each rise through their middle, which follows them, to the next: period, amplitude, and the logarithmic decrement
 * ln(aₖ/aₖ₊₁) by the first and the last cycle. Uncertain by the noise of the readings at the crossings and at the turns.
 */
export const cycles = defineKind({
  kind: 'cycles',
  title: 'periods',
  yields: 'results',
  beyond,
  offered: 'region',
  offers: [{ title: 'periods', preset: {} }],
  fields: { of: seriesField(), region: regionField() },
  sentence: ({ of }, nameOf) => `periods of ${nameOf(of)}, cycle by cycle`,
  evaluate({ of, region: regionId }, context) {
    const series = context.series(of);
    const region = context.region(regionId);
    const [first, past] = rangeIn(series, region);
    // A region that is cut to whole cycles begins and ends at crossings, which only what is beyond them tells.
    const { starts, amplitudes } =
      region?.along === 't'
        ? within(swingsOf(series, ...rangeIn(series, widened(region, beyond))), widened(region, spare))
        : swingsOf(series, first, past);
    const count = starts.length - 1;
    if (count < 1)
      throw new Refusal(
        'No whole cycle lies in this region: it has to rise through its middle twice. Make the region longer.',
      );
    const named = weightedQuantity(series, first, past);
    const periods = starts.slice(1).map(({ value }, i) => value - starts[i].value);
    const period = differenceOf(starts[count], starts[0], count);
    const spread = count > 1 ? describe(Float64Array.from(periods)).standardDeviation : null;
    return {
      kind: 'results',
      results: withWorkings(
        [
          named('period', 'mean period', period, series.timeUnit, true),
          named('frequency', 'frequency', inverse(period), divideUnits([], series.timeUnit)),
          ...(spread === null
            ? []
            : [
                {
                  key: 'spread',
                  name: 'sd of the periods',
                  quantity: exactly(spread, series.timeUnit),
                  roundTo: spread / Math.sqrt(2 * (count - 1)),
                  main: false,
                },
              ]),
          ...(amplitudes.length === 0
            ? []
            : [
                named(
                  'amplitude',
                  'mean amplitude',
                  meanWeightedValue(amplitudes),
                  intervalUnit(series.unit),
                ),
              ]),
          ...decrementOf(amplitudes, named),
          { key: 'count', name: 'cycles', quantity: exactly(count, []), roundTo: 1, main: false },
        ],
        workingsOfCycles(series, starts, amplitudes),
      ),
      notes: reachNote(series, region),
      each: () => eachCycle(series, starts, amplitudes, named),
      fitted: null,
    };
  },
});

/**
 * The period and the amplitude of each cycle. A crossing ends one period and begins the next: what is uncertain about it makes one of
 * them longer and the other shorter. The middle that the crossings are of is told by readings of more than one cycle.
 */
function eachCycle(
  { symbol, timeUnit, unit }: Series,
  starts: readonly WeightedValue[],
  amplitudes: readonly WeightedValue[],
  named: (key: string, name: string, found: WeightedValue, unit: Unit) => NamedResult,
): EachFound[] {
  if (starts.length - 1 > mostEach) return [];
  const quantityOf = (found: WeightedValue, own: Unit) => named('', '', found, own).quantity;
  return [
    {
      key: 'period',
      symbol: `period of ${symbol}`,
      unit: timeUnit,
      quantities: starts.slice(1).map((start, i) => quantityOf(differenceOf(start, starts[i], 1), timeUnit)),
      reach: 2,
      between: (later, apart) =>
        apart === 1 ? `crossing ${later + 1} of ${symbol}` : `middle of ${symbol} about crossing ${later}`,
    },
    {
      key: 'amplitude',
      symbol: `amplitude of ${symbol}`,
      unit: intervalUnit(unit),
      quantities: amplitudes.map((amplitude) => quantityOf(amplitude, intervalUnit(unit))),
      reach: 1,
      between: (later) => `readings of ${symbol} between cycles ${later} and ${later + 1}`,
    },
  ];
}

function workingsOfCycles(
  { timeUnit, unit, symbol }: Series,
  starts: readonly WeightedValue[],
  amplitudes: readonly WeightedValue[],
) {
  const n = { value: starts.length - 1, unit: [] };
  const at = ({ value }: WeightedValue) => ({ value, unit: timeUnit });
  const high = ({ value }: WeightedValue) => ({ value, unit: intervalUnit(unit) });
  const [first, last] = [starts[0], starts[starts.length - 1]];
  const period = { value: (last.value - first.value) / n.value, unit: timeUnit };
  return {
    period: () => workingBy('T', '(t_n - t_0)/n', { t_n: at(last), t_0: at(first), n }),
    frequency: () => workingBy('f', '1/T', { T: period }),
    amplitude: () => ({
      formula: `\\overline{a} = \\frac{1}{n}\\sum_{k=1}^{n} \\frac{${symbolOf(symbol, '\\max,k')}-${symbolOf(symbol, '\\min,k')}}{2}`,
      putIn: `= \\frac{${texPart({ value: amplitudes.reduce((sum, { value }) => sum + value, 0), unit: intervalUnit(unit) })}}{${amplitudes.length}}`,
    }),
    decrement: () =>
      workingBy('\\Lambda', 'ln(a_1/a_n)/(n - 1)', {
        a_1: high(amplitudes[0]),
        a_n: high(amplitudes[amplitudes.length - 1]),
        n: { value: amplitudes.length, unit: [] },
      }),
  };
}

const inverse = ({ value, weights }: WeightedValue): WeightedValue => ({
  value: 1 / value,
  weights: scaledSpan(weights, -1 / square(value)),
});

function decrementOf(
  amplitudes: readonly WeightedValue[],
  named: (key: string, name: string, found: WeightedValue, unit: Unit) => NamedResult,
): NamedResult[] {
  const steps = amplitudes.length - 1;
  if (steps < 1) return [];
  const [first, last] = [amplitudes[0], amplitudes[steps]];
  if (!(first.value > 0 && last.value > 0)) return [];
  const weights = scaledSpan(
    addSpans(scaledSpan(first.weights, 1 / first.value), scaledSpan(last.weights, 1 / last.value), -1),
    1 / steps,
  );
  return [
    named(
      'decrement',
      'logarithmic decrement',
      { value: log(first.value / last.value) / steps, weights },
      [],
    ),
  ];
}
