import { square } from '../../elementary';
import { intervalUnit } from '../../units/temperature';
import { describe, medianOf } from '../../statistics/describe';
import { raised, writeResult } from '../../results/rounding';
import { isMotion, meanOfCorrelated } from '../../statistics/correlated';
import { uncertaintyByStep } from '../../statistics/still';
import { stepOf } from '../../statistics/steps';
import {
  type Influence,
  type Quantity,
  effectiveDegreesOfFreedom,
  exactly,
  merged,
  withShared,
} from '../../results/quantity';
import { type WeightSpan, spanAt } from '../../series/noisePath';
import { intervalOf } from '../../series/sampling';
import { type Series } from '../../series/series';
import { regionField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { type NamedResult } from '../outcome';
import { leftOutNotes, reachNote, select } from '../selection';
import { type Selection } from '../selected';
import { powerOfUnit, printedUnit } from '../../units/unit';
import { meanOfSymbol, symbolOf, texPart, withWorkings, workingBy } from '../working';
import { movedTogether, noiseOfSum, rootOfValues } from '../weighed';

/**
 * Mean with standard deviation, extremes and duration. Of readings that rest, ± is the standard error of their mean, widened where
 * neighbours go together, or the step of the sensor where they stay within it. Of something that moves it is what the noise of the
 * readings does to the mean, followed through any filter; that of a derived series knows that neighbours share their noise. Where
 * readings do not follow each other in time it is s/√n (JCGM 100:2008, 4.2.3). What moves all readings together, such as a typed
 * length or the zero of the sensor, counts in full. Which of them it is, the entry says.
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
    const { results, says } = statisticsOf(series, selection);
    return {
      kind: 'results',
      results,
      notes: [
        ...leftOutNotes(selection, count),
        ...(count === 1
          ? ['One reading has no spread. Make the region longer for a standard deviation.']
          : []),
        ...reachNote(series, region),
        ...says,
      ],
      fitted: null,
    };
  },
});

/** What is stated of the readings of a selection: mean, sd, least, greatest, duration, count. */
export function statisticsOf(
  series: Series,
  selection: Selection,
): { results: NamedResult[]; says: string[] } {
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
  const found = meanOf(series, selection, mean, spread);
  const standardError = found.isOfRest ? found.quantity.standardUncertainty : null;
  const letter = symbolOf(symbol);
  const all = [
    {
      key: 'mean',
      name: 'mean',
      quantity: found.quantity,
      roundTo: spread,
      main: true,
    },
    ...(spread === null
      ? []
      : [plain('sd', 'sd', spread, spread > 0 ? spread / Math.sqrt(2 * (count - 1)) : null, between)]),
    ...(standardError === null
      ? []
      : [
          plain(
            'standardError',
            'standard error',
            standardError,
            standardError / Math.sqrt(2 * Math.max(count - 1, 1)),
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
  const results = withWorkings(all, {
    mean: () => ({
      formula: `${meanOfSymbol(symbol)} = \\frac{1}{n}\\sum_{i=1}^{n} {${letter}}_i`,
      putIn: `= \\frac{${texPart(part(mean * count))}}{${count}}`,
    }),
    sd: () => ({
      formula: `s = \\sqrt{\\frac{1}{n-1}\\sum_{i=1}^{n} \\left({${letter}}_i-${meanOfSymbol(symbol)}\\right)^2}`,
      putIn: `= \\sqrt{\\frac{${texPart(part(square(standardDeviation) * (count - 1), powerOfUnit(unit, 2)))}}{${count}-1}}`,
    }),
    ...(found.says[0] === byScatter && standardError === (spread ?? NaN) / Math.sqrt(count)
      ? {
          standardError: () =>
            workingBy(`s_{${meanOfSymbol(symbol)}}`, 's/sqrt(n)', {
              s: part(standardDeviation, between),
              n: part(count, []),
            }),
        }
      : {}),
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
  return { results, says: found.says };
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
    mean: meanOf(series, { indices, first: 0, past: count, y: values }, mean, spread).quantity,
    standardDeviation: spread,
  };
}

type Picked = Pick<Selection, 'indices' | 'first' | 'past' | 'y'>;

/** A mean, whether its ± is the standard error of readings that rest, and what ± is, in a sentence. */
interface Mean {
  quantity: Quantity;
  isOfRest: boolean;
  says: string[];
}

function meanOf(series: Series, selection: Picked, mean: number, spread: number | null): Mean {
  const found = meanByReadings(series, selection, mean, spread);
  const own = found.quantity;
  const { indices } = selection;
  const shared: Influence[] = (series.shared ?? []).map((one) =>
    movedTogether(one, one.uniform ?? meanAt(one.effect, indices)),
  );
  if (shared.length === 0 || (own.standardUncertainty === null && found.says.includes(tooFewIndependent)))
    return found;
  return {
    ...found,
    quantity: {
      ...own,
      ...withShared(own, shared),
      influences: () => merged([...own.influences(), ...shared]),
    },
  };
}

function meanAt(values: Float64Array, indices: Int32Array): number {
  let sum = 0;
  for (let i = 0; i < indices.length; i++) sum += values[indices[i]];
  return sum / indices.length;
}

/** Neighbours that count as fewer independent readings than this tell no honest uncertainty. */
const fewestIndependent = 10;
const fewestToTell = 16;
const tooFewIndependent =
  'Neighbouring readings are so alike here that all of them count as fewer than ten; no reliable ± of this mean can be given. Make the region longer.';
const byNoise = '± is by the noise of the readings; the quantity itself changes here, as sd tells.';
const byScatter = '± is the standard error of the mean, s/√n.';

function meanByReadings(series: Series, selection: Picked, mean: number, spread: number | null): Mean {
  const { indices, first, past, y } = selection;
  const count = indices.length;
  const { noise, unit, timeUnit, repeats = false } = series;
  if (repeats) return meanOfRepeats(series, selection, mean, spread);
  /** Each reading moves the mean by as much, all of them together by so much. */
  const evenly = (total: number): WeightSpan =>
    spanAt(indices, new Float64Array(count).fill(total / Math.sqrt(count)));
  if (noise !== null && timeUnit.length > 0) {
    const isPlain = noise.independent && series.further === undefined;
    const step = isPlain && spread !== null ? stepNear(series, y, spread) : 0;
    const even = isPlain && spread !== null && count >= fewestToTell ? evenReadings(series, selection) : null;
    const rests = even !== null && !isMotion(even);
    const isTiedToItself = (series.shared ?? []).some(({ root }) => root === noise.root.key);
    // What stays within a few steps says nothing of how its noise wanders.
    if (rests && !isTiedToItself && spread !== null && spread > step / 2) {
      const { variance, independent, degreesOfFreedom } = meanOfCorrelated(even);
      if (independent < fewestIndependent)
        return { quantity: exactly(mean, unit), isOfRest: false, says: [tooFewIndependent] };
      if (independent < 0.8 * count) {
        const own = Math.sqrt(variance);
        const effect = evenly(own);
        return withStep(
          series,
          step,
          {
            quantity: {
              value: mean,
              unit,
              standardUncertainty: own,
              degreesOfFreedom,
              influences: () => [{ root: noise.root.key, label: noise.root.label, effect }],
            },
            isOfRest: true,
            says: [
              `± is the standard error of the mean, widened: neighbouring readings are alike, so that ${count} count as ${Math.round(independent)}.`,
            ],
          },
          spread,
        );
      }
    }
    const { standardDeviation, degreesOfFreedom } = noise.root.level.between(first, past);
    const weights = () => spanAt(indices, new Float64Array(count).fill(1 / count));
    let own = isPlain ? null : noiseOfSum(series, weights());
    const variance = own?.variance ?? square(standardDeviation) / count;
    const byReadings: Mean = {
      quantity:
        variance > 0
          ? {
              value: mean,
              unit,
              standardUncertainty: Math.sqrt(variance),
              degreesOfFreedom,
              influences: () => (own ??= noiseOfSum(series, weights())).influences(),
            }
          : exactly(mean, unit),
      isOfRest: rests && variance > 0,
      says: variance > 0 ? [rests ? byScatter : byNoise] : [],
    };
    if (rests && spread !== null) return withStep(series, step, byReadings, spread);
    if (variance > 0) return byReadings;
  }
  if (spread === null || spread === 0 || (noise !== null && !noise.independent))
    return { quantity: exactly(mean, unit), isOfRest: false, says: [] };
  const own = spread / Math.sqrt(count);
  return {
    quantity: {
      value: mean,
      unit,
      standardUncertainty: own,
      degreesOfFreedom: count - 1,
      influences: () =>
        noise === null ? [] : [{ root: noise.root.key, label: noise.root.label, effect: evenly(own) }],
    },
    isOfRest: true,
    says: [byScatter],
  };
}

/** So many of the readings may be missing for the others to tell how neighbours go together. */
const mostMissing = 0.05;

/** The readings at equal intervals, a few missing ones on straight lines; null where they are not at equal intervals. */
function evenReadings(
  { sampling, values }: Series,
  { indices, first, past, y }: Picked,
): Float64Array | null {
  if (sampling.kind !== 'regular') return null;
  const count = indices.length;
  if (count === past - first) return y;
  if (count < (1 - mostMissing) * (past - first)) return null;
  const out = values.slice(first, past);
  for (let k = 1; k < count; k++) {
    const [left, right] = [indices[k - 1], indices[k]];
    for (let i = left + 1; i < right; i++)
      out[i - first] = values[left] + ((i - left) / (right - left)) * (values[right] - values[left]);
  }
  return out;
}

/** Of so many readings in a row some are the same where they come in steps as wide as their noise. */
const lookedAt = 64;

/** The step of the sensor, from its own word or from readings that come in steps; 0 where they do not. */
function stepNear({ step = 0 }: Series, y: Float64Array, spread: number): number {
  if (step > 0) return step;
  if (spread === 0) return 0;
  let same = 0;
  const some = Math.min(y.length, lookedAt);
  for (let i = 1; i < some; i++) if (y[i] === y[i - 1]) same++;
  return same * 4 < some ? 0 : (stepOf(y.slice().sort()) ?? 0);
}

/** A mean of readings that rest, with what the step of the sensor leaves open about it. */
function withStep({ unit, noise, symbol }: Series, step: number, mean: Mean, spread: number): Mean {
  const byStep = uncertaintyByStep(step, spread);
  const { quantity } = mean;
  const own = quantity.standardUncertainty ?? 0;
  if (byStep < 0.05 * own || byStep === 0) return mean;
  const { value, exponent } = writeResult(step, null, 2);
  const shown = `${value}${exponent === 0 ? '' : ` × 10${raised(exponent)}`} ${printedUnit(unit)}`.trim();
  const total = Math.hypot(byStep, own);
  return {
    quantity: {
      ...quantity,
      standardUncertainty: total,
      degreesOfFreedom: effectiveDegreesOfFreedom([
        { variance: square(byStep), degreesOfFreedom: Infinity },
        { variance: square(own), degreesOfFreedom: quantity.degreesOfFreedom || 1 },
      ]),
      influences: () => [
        // What rests at the same place has the same error; elsewhere it has another one.
        {
          root: `${noise?.root.key ?? symbol}/step ${Math.round(quantity.value / step)}`,
          label: `step of ${symbol}`,
          effect: { first: 0, weights: Float64Array.of(byStep) },
        },
        ...quantity.influences(),
      ],
    },
    isOfRest: false,
    says:
      byStep > own
        ? [
            `± is of the sensor’s step of ${shown}: the readings rest within it, so ± is step/√12 and rectangular, holding the truth in 58 of 100 cases.`,
          ]
        : [`± is the standard error of the mean, and of the sensor’s step of ${shown}.`],
  };
}

/** The mean of measurements, each of its own: s/√n, by n − 1 degrees of freedom (JCGM 100:2008, 4.2.3). */
function meanOfRepeats(series: Series, { indices }: Picked, mean: number, spread: number | null): Mean {
  const { unit, symbol } = series;
  if (spread === null || spread === 0) return { quantity: exactly(mean, unit), isOfRest: false, says: [] };
  const count = indices.length;
  const quantity: Quantity = {
    value: mean,
    unit,
    standardUncertainty: spread / Math.sqrt(count),
    degreesOfFreedom: count - 1,
    influences: () => [
      {
        root: rootOfValues(series),
        label: `scatter of ${symbol}`,
        // One number a value, so that means of different values share nothing.
        effect: spanAt(indices, new Float64Array(count).fill(spread / count)),
      },
    ],
  };
  return {
    quantity,
    isOfRest: true,
    says: [byScatter],
  };
}
