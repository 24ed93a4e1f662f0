import { Refusal } from '../../refusal';
import { type Area, areaAlongPath, areaBetween } from '../../calculus/area';
import { atTimesOf } from '../../series/atTimesOf';
import { type Influence, type Quantity, withShared } from '../../results/quantity';
import { type Series, valuesAtTimesOf } from '../../series/series';
import { type WeightedValue } from '../../calculus/cycles';
import { type WeightSpan, addSpans, sumOfSpans } from '../../series/noisePath';
import { multiplyUnits } from '../../units/unit';
import { baselineFields, baselineWords, idleOfBaseline, levelUnder, scaleNote } from '../baseline';
import { axisField, regionField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { type Working } from '../outcome';
import { rangeIn, reachNote } from '../selection';
import { weighed } from '../weighed';
import { symbolOf, texPart, withWorkings } from '../working';

/**
 * The area between a series and zero, a level, the mean of another region, or the line between its own ends. Its uncertainty is what the noise of the readings does to the sum, of those along the
 * axis too, carried through the weights and, for a derived series, through its filter. Where readings over time jump from one to the next,
 * the jump may have been anywhere between them, which counts too; how well another shape between readings is met is not in it.
 */
export const area = defineKind({
  kind: 'area',
  title: 'area',
  yields: 'results',
  offered: 'region',
  offers: [{ title: 'area', preset: {} }],
  fields: { of: seriesField(), against: axisField(), region: regionField(), ...baselineFields },
  idle: idleOfBaseline,
  sentence: ({ against, ...rest }, nameOf) =>
    `area under ${nameOf(rest.of)}${against === 't' ? '' : ` against ${nameOf(against)}`}${baselineWords(rest)}`,
  evaluate({ of, against, region: regionId, ...rest }, context) {
    const series = context.series(of);
    const other = atTimesOf(context.series(against, series), series);
    const region = context.region(regionId);
    const [first, past] = rangeIn(series, region);
    const plain = against === 't' && (region === null || region.along === 't');
    const areaUnder = (values: Float64Array): Area => {
      if (plain)
        return areaBetween({ ...series, values }, region?.start ?? -Infinity, region?.end ?? Infinity);
      const x = valuesAtTimesOf(other, series);
      const cutAlong = region !== null && region.along === against && region.along !== 't';
      const y =
        region === null || region.along === 't' || cutAlong
          ? values
          : within(values, valuesAtTimesOf(context.series(region.along, series), series), region);
      return areaAlongPath(series.sampling, x, y, { first, past, within: cutAlong ? region : null });
    };
    const level = levelUnder(series, rest, context);
    const found =
      rest.baseline === 'ends'
        ? fromLineBetweenEnds(areaUnder, series.values, valuesAtTimesOf(other, series))
        : level === null
          ? areaUnder(series.values)
          : fromLevel(areaUnder, series.values, level);
    const { value, bridged, passes } = found;
    const own = weighed(value, multiplyUnits(series.unit, other.unit), [
      [series, found.byValues],
      [other, found.byAbscissas],
    ]);
    const ofJumps = plain ? influenceOfJumps(series, first, past) : null;
    const quantity = ofJumps === null ? own : withFurther(own, ofJumps);
    return {
      kind: 'results',
      results: withWorkings([{ key: 'area', name: 'area', quantity, roundTo: null, main: true }], {
        area: () => workingOfArea(series, other, found, { isAbove: rest.baseline !== 'zero' }),
      }),
      notes: [
        ...scaleNote(series, rest),
        ...(bridged === 0
          ? []
          : [
              `${bridged} missing ${bridged === 1 ? 'reading was' : 'readings were'} bridged by a straight line.`,
            ]),
        ...(passes > 1 ? [`${passes} passes through the region were added.`] : []),
        ...reachNote(series, region),
      ],
      fitted: null,
    };
  },
});

/**
 * What jumps between two readings do to an area over regular times: each is off by up to half of the jump times the interval, evenly
 * (GUM 4.3.7). Null where there is none.
 */
function influenceOfJumps(
  { noise, sampling, symbol }: Series,
  first: number,
  past: number,
): Influence | null {
  if (noise === null || !noise.independent || sampling.kind !== 'regular') return null;
  const jumps = Math.sqrt(noise.root.level.jumpsIn(first, past));
  if (!(jumps > 0)) return null;
  return {
    root: `${noise.root.key}/jumps/${first}/${past}`,
    label: `where between two readings ${symbol} jumps`,
    effect: { first: 0, weights: Float64Array.of((jumps * sampling.interval) / Math.sqrt(12)) },
  };
}

/** A quantity with one more thing that it is uncertain by. */
const withFurther = (quantity: Quantity, further: Influence): Quantity => ({
  ...quantity,
  ...withShared(quantity, [further]),
  influences: () => [...quantity.influences(), further],
});

/** The trapezoidal rule, and its sum as the mean height over the whole width. */
function workingOfArea(
  series: Series,
  other: Series,
  { value, byValues }: Area,
  { isAbove }: { isAbove: boolean },
): Working {
  const [y, x] = [symbolOf(series.symbol), symbolOf(other.symbol)];
  const base = isAbove ? `-${y}_{\\text{base}}` : '';
  const width = totalOf(byValues);
  // There and back again, there is no mean height.
  const isClosed =
    Math.abs(width) <= 1e-6 * byValues.weights.reduce((sum, weight) => sum + Math.abs(weight), 0);
  return {
    formula: `\\int ${isAbove ? `\\left(${y}${base}\\right)` : y}\\,\\mathrm{d}${x} = \\sum_i ${
      isAbove ? `\\left(\\frac{{${y}}_i+{${y}}_{i+1}}{2}${base}\\right)` : `\\frac{{${y}}_i+{${y}}_{i+1}}{2}`
    }\\left({${x}}_{i+1}-{${x}}_i\\right)`,
    putIn:
      // Above a base, the readings at its ends weigh on their own.
      isAbove || isClosed
        ? ''
        : `= ${texPart({ value: value / width, unit: series.unit })}\\cdot ${texPart({ value: width, unit: other.unit })}`,
    ...(isAbove
      ? { says: 'Each height is counted from the base that was chosen.' }
      : isClosed
        ? {}
        : { says: 'The sum is the mean height times the whole width.' }),
  };
}

const totalOf = ({ weights }: WeightSpan) => weights.reduce((sum, weight) => sum + weight, 0);

/** The area is linear in the values: all of them together move it by its width. */
function fromLevel(
  areaUnder: (values: Float64Array) => Area,
  values: Float64Array,
  level: WeightedValue,
): Area {
  const found = aboveBase(areaUnder, areaUnder(values), values, () => level.value);
  return { ...found, byValues: addSpans(found.byValues, level.weights, -totalOf(found.byValues)) };
}

/** The same area above something else than zero. Readings are taken from it one by one, so that no digits get lost. */
function aboveBase(
  areaUnder: (values: Float64Array) => Area,
  plain: Area,
  values: Float64Array,
  baseAt: (i: number) => number,
): Area {
  // What readings along the axis do to it hangs on the heights.
  if (plain.byAbscissas !== null) return areaUnder(values.map((value, i) => value - baseAt(i)));
  const { first, weights } = plain.byValues;
  let value = 0;
  for (let k = 0; k < weights.length; k++)
    if (weights[k] !== 0) value += weights[k] * (values[first + k] - baseAt(first + k));
  return { ...plain, value };
}

/** The area from the straight line between the first and the last reading that counts. */
function fromLineBetweenEnds(
  areaUnder: (values: Float64Array) => Area,
  values: Float64Array,
  x: Float64Array,
): Area {
  const plain = areaUnder(values);
  const { first, weights } = plain.byValues;
  const counts = (i: number) => weights[i - first] !== 0 && !Number.isNaN(values[i] + x[i]);
  let [a, b] = [first, first + weights.length - 1];
  while (a < b && !counts(a)) a++;
  while (b > a && !counts(b)) b--;
  const length = x[b] - x[a];
  if (!(length !== 0))
    throw new Refusal('The ends of this region lie at the same place, so that no line goes through both.');
  const [foot, from] = [values[a], x[a]];
  const rise = values[b] - foot;
  const found = aboveBase(areaUnder, plain, values, (i) => foot + ((x[i] - from) / length) * rise);
  // What moves an end moves the line with it.
  let total = 0;
  let byB = 0;
  for (let k = 0; k < weights.length; k++)
    if (weights[k] !== 0) {
      total += weights[k];
      byB -= weights[k] * ((x[first + k] - from) / length);
    }
  const byA = -total - byB;
  const byX = found.byAbscissas?.weights.slice();
  if (byX !== undefined)
    weights.forEach((weight, k) => {
      if (weight === 0) return;
      const share = (x[first + k] - from) / length;
      byX[k] -= (weight * rise) / length;
      byX[a - first] -= (weight * rise * (share - 1)) / length;
      byX[b - first] += (weight * rise * share) / length;
    });
  const atEnds = (place: number, weight: number): WeightSpan => ({
    first: place,
    weights: Float64Array.of(weight),
  });
  return {
    ...found,
    byValues: sumOfSpans([
      [found.byValues, 1],
      [atEnds(a, byA), 1],
      [atEnds(b, byB), 1],
    ]),
    byAbscissas:
      byX === undefined || found.byAbscissas === null
        ? found.byAbscissas
        : { first: found.byAbscissas.first, weights: byX },
  };
}

/** Values outside a region along a third quantity, taken out. */
function within(values: Float64Array, along: Float64Array, { start, end }: { start: number; end: number }) {
  return values.map((value, i) => (along[i] >= start && along[i] <= end ? value : NaN));
}
