import { intervalUnit } from '../../units/temperature';
import { describe, medianOf } from '../../statistics/describe';
import { type Influence, type Quantity, exactly, merged, withShared } from '../../results/quantity';
import { stretchAt } from '../../series/noisePath';
import { intervalOf } from '../../series/sampling';
import { type Series } from '../../series/series';
import { regionField, seriesField } from '../fields';
import { flatteningNote } from '../flatteningNote';
import { defineKind } from '../kind';
import { type NamedResult, noted } from '../outcome';
import { type Selection, leftOutNotes, reachNote, select } from '../selection';
import { powerOfUnit } from '../../units/unit';
import { meanOfSymbol, symbolOf, texPart, withWorkings, workingBy } from '../working';
import { movedTogether, noiseOfSum, rootOfValues } from '../weighed';

/**
 * Mean with standard deviation, extremes and duration. The uncertainty beside the mean is what the noise of the readings does
 * to it, followed through any filter; so a mean of something that moves is as certain as its readings, and that of a derived
 * series knows that neighbours share their noise. Where readings do not follow each other in time, or are too few to tell
 * their noise, it is s/√n (JCGM 100:2008, 4.2.3). What moves all readings together, such as a typed length, counts in full.
 */
export const statistics = defineKind({
  kind: 'statistics',
  title: 'mean',
  yields: 'results',
  offered: 'region',
  offers: [{ title: 'mean', preset: {} }],
  fields: { of: seriesField(), region: regionField() },
  sentence: ({ of }, nameOf) => `mean of ${nameOf(of)}`,
  evaluate({ of, region: regionId }, context) {
    const series = context.series(of);
    const region = context.region(regionId);
    const selection = select(context, series, 't', region);
    const count = selection.indices.length;
    return {
      kind: 'results',
      results: statisticsOf(series, selection),
      ...noted(
        [
          ...leftOutNotes(selection, count),
          ...(count === 1
            ? ['One reading has no spread. Make the region longer for a standard deviation.']
            : []),
          ...reachNote(series, region),
        ],
        context.moving ? null : flatteningNote(series, selection.first, selection.past),
      ),
      fitted: null,
    };
  },
});

/** What is told of the readings of a selection: mean, sd, least, greatest, duration, count. */
export function statisticsOf(series: Series, selection: Selection): NamedResult[] {
  const { count, mean, standardDeviation, minimum, maximum } = describe(selection.y);
  const spread = count > 1 ? standardDeviation : null;
  const { unit, timeUnit, symbol } = series;
  const between = intervalUnit(unit);
  const { x } = selection;
  const plain = (
    key: string,
    name: string,
    value: number,
    roundTo: number | null,
    of = unit,
  ): NamedResult => ({
    key,
    name,
    quantity: exactly(value, of),
    roundTo,
    main: false,
  });
  const part = (value: number, of = unit) => ({ value, unit: of });
  const n = part(count, []);
  const letter = symbolOf(symbol);
  const all = [
    {
      key: 'mean',
      name: 'mean',
      quantity: meanOf(series, selection, mean, spread),
      roundTo: spread,
      main: true,
    },
    ...(spread === null
      ? []
      : [plain('sd', 'sd', spread, spread > 0 ? spread / Math.sqrt(2 * (count - 1)) : null, between)]),
    ...(spread === null
      ? []
      : [
          plain(
            'standardError',
            'standard error',
            spread / Math.sqrt(count),
            spread > 0 ? spread / Math.sqrt(2 * count * (count - 1)) : null,
            between,
          ),
        ]),
    plain('median', 'median', medianOf(selection.y), spread),
    plain('min', 'min', minimum, spread),
    plain('max', 'max', maximum, spread),
    plain('range', 'range', maximum - minimum, spread, between),
    plain(
      'duration',
      'duration',
      selection.x[count - 1] - selection.x[0],
      intervalOf(series.sampling),
      timeUnit,
    ),
    plain('count', 'readings', count, 10, []),
  ];
  return withWorkings(all, {
    mean: () => ({
      formula: `${meanOfSymbol(symbol)} = \\frac{1}{n}\\sum_{i=1}^{n} {${letter}}_i`,
      putIn: `= \\frac{${texPart(part(mean * count))}}{${count}}`,
    }),
    sd: () => ({
      formula: `s = \\sqrt{\\frac{1}{n-1}\\sum_{i=1}^{n} \\left({${letter}}_i-${meanOfSymbol(symbol)}\\right)^2}`,
      putIn: `= \\sqrt{\\frac{${texPart(part(standardDeviation ** 2 * (count - 1), powerOfUnit(unit, 2)))}}{${count}-1}}`,
    }),
    standardError: () =>
      workingBy(`s_{${meanOfSymbol(symbol)}}`, 's/sqrt(n)', { s: part(standardDeviation, between), n }),
    range: () =>
      workingBy(
        'R',
        'a - b',
        { a: part(maximum), b: part(minimum) },
        { a: symbolOf(symbol, '\\max'), b: symbolOf(symbol, '\\min') },
      ),
    duration: () =>
      workingBy('\\Delta t', 't_n - t_1', { t_n: part(x[count - 1], timeUnit), t_1: part(x[0], timeUnit) }),
  });
}

/** Mean of all values of a series that are measurements of their own, and their standard deviation. */
export function summaryOfRepeats(series: Series): {
  mean: Quantity | null;
  standardDeviation: number | null;
} {
  const { values } = series;
  if (values.length === 0) return { mean: null, standardDeviation: null };
  const { count, mean, standardDeviation } = describe(values);
  const spread = count > 1 ? standardDeviation : null;
  const indices = Int32Array.from({ length: count }, (_, i) => i);
  return {
    mean: meanOf(series, { indices, first: 0, past: count }, mean, spread),
    standardDeviation: spread,
  };
}

type Picked = Pick<Selection, 'indices' | 'first' | 'past'>;

function meanOf(series: Series, selection: Picked, mean: number, spread: number | null): Quantity {
  const own = meanByReadings(series, selection, mean, spread);
  const { indices } = selection;
  const shared: Influence[] = (series.shared ?? []).map((one) =>
    movedTogether(one, meanAt(one.effect, indices)),
  );
  if (shared.length === 0) return own;
  return {
    ...own,
    ...withShared(own, shared),
    influences: () => merged([...own.influences(), ...shared]),
  };
}

function meanAt(values: Float64Array, indices: Int32Array): number {
  let sum = 0;
  for (let i = 0; i < indices.length; i++) sum += values[indices[i]];
  return sum / indices.length;
}

function meanByReadings(series: Series, selection: Picked, mean: number, spread: number | null): Quantity {
  const { indices, first, past } = selection;
  const count = indices.length;
  const { noise, unit, timeUnit, repeats = false } = series;
  if (repeats) return meanOfRepeats(series, selection, mean, spread);
  const weights = () => stretchAt(indices, new Float64Array(count).fill(1 / count));
  if (noise !== null && timeUnit.length > 0) {
    const { standardDeviation, degreesOfFreedom } = noise.root.level.between(first, past);
    const isPlain = noise.independent && series.further === undefined;
    let own = isPlain ? null : noiseOfSum(series, weights());
    const variance = own?.variance ?? standardDeviation ** 2 / count;
    if (variance > 0)
      return {
        value: mean,
        unit,
        standardUncertainty: Math.sqrt(variance),
        degreesOfFreedom,
        influences: () => (own ??= noiseOfSum(series, weights())).influences(),
      };
  }
  if (spread === null || spread === 0 || (noise !== null && !noise.independent)) return exactly(mean, unit);
  return {
    value: mean,
    unit,
    standardUncertainty: spread / Math.sqrt(count),
    degreesOfFreedom: count - 1,
    influences: () =>
      noise === null
        ? []
        : [
            {
              root: noise.root.key,
              label: noise.root.label,
              effect: stretchAt(indices, new Float64Array(count).fill(spread / count)),
            },
          ],
  };
}

/** The mean of measurements, each of its own: s/√n, by n − 1 degrees of freedom (JCGM 100:2008, 4.2.3). */
function meanOfRepeats(series: Series, { indices }: Picked, mean: number, spread: number | null): Quantity {
  const { unit, symbol } = series;
  if (spread === null || spread === 0) return exactly(mean, unit);
  const count = indices.length;
  return {
    value: mean,
    unit,
    standardUncertainty: spread / Math.sqrt(count),
    degreesOfFreedom: count - 1,
    influences: () => [
      {
        root: rootOfValues(series),
        label: `scatter of ${symbol}`,
        // One number a value, so that means of different values share nothing.
        effect: stretchAt(indices, new Float64Array(count).fill(spread / count)),
      },
    ],
  };
}
