import { intervalUnit } from '../../units/temperature';
import { localPolynomialWeights } from '../../calculus/localPolynomial';
import { type WeightedValue, crossingAt } from '../../calculus/cycles';
import { Refusal } from '../../refusal';
import { addSpans, scaledSpan, spanAt } from '../../series/noisePath';
import { indexAtOrAfter, timeAt } from '../../series/sampling';
import { type Series } from '../../series/series';
import { choiceField, regionField, seriesField } from '../fields';
import { defineKind } from '../kind';
import { reachNote, select } from '../selection';
import { weightedQuantity } from '../weightedValues';
import { meanOfSymbol, withWorkings, workingBy } from '../working';

/** The levels of a step are taken from this share of the region at either end. */
const endShare = 0.1;

/**
 * How long a step takes from one share of its height to another, 10 % to 90 % as IEEE Std 181 has it. Its two levels are the
 * means of the first and the last tenth of the region; a share is reached where the parabola through the readings about it is there.
 */
export const riseTime = defineKind({
  kind: 'riseTime',
  title: 'rise time',
  yields: 'results',
  offered: 'region',
  offers: [{ title: 'rise time', preset: {} }],
  fields: {
    of: seriesField(),
    shares: choiceField('Between', [
      { key: '10', title: '10 % and 90 % of the step' },
      { key: '20', title: '20 % and 80 % of the step' },
    ]),
    region: regionField(),
  },
  sentence: ({ of, shares }, nameOf) =>
    `time in which ${nameOf(of)} goes from ${shares} % to ${100 - Number(shares)} %`,
  evaluate({ of, shares, region: regionId }, context) {
    const series = context.series(of);
    const region = context.region(regionId);
    const { indices } = select(context, series, 't', region);
    const count = Math.ceil(endShare * indices.length);
    if (indices.length < 10)
      throw new Refusal(
        'A step needs ten readings at least: its levels are told by the first and the last of them. Make the region longer.',
      );
    const [base, top] = [
      meanAt(series, indices.subarray(0, count)),
      meanAt(series, indices.subarray(indices.length - count)),
    ];
    const height = top.value - base.value;
    if (height === 0)
      throw new Refusal('There is no step here: it ends where it begins. Mark a region across the step.');
    const share = Number(shares) / 100;
    const [low, high] = [share, 1 - share].map((part) => reached(series, indices, base, top, part));
    const rise: WeightedValue = {
      value: high.value - low.value,
      weights: addSpans(high.weights, low.weights, -1),
    };
    const named = weightedQuantity(series, indices[0], indices[indices.length - 1] + 1);
    return {
      kind: 'results',
      results: withWorkings(
        [
          named('riseTime', height > 0 ? 'rise time' : 'fall time', rise, series.timeUnit, true),
          named('base', 'level before', base, series.unit),
          named('top', 'level after', top, series.unit),
          named(
            'step',
            'height of the step',
            { value: height, weights: addSpans(top.weights, base.weights, -1) },
            intervalUnit(series.unit),
          ),
        ],
        {
          riseTime: () =>
            workingBy(
              't_{\\mathrm{r}}',
              'b - a',
              {
                a: { value: low.value, unit: series.timeUnit },
                b: { value: high.value, unit: series.timeUnit },
              },
              { a: `t_{${shares}\\,\\%}`, b: `t_{${100 - Number(shares)}\\,\\%}` },
            ),
          step: () =>
            workingBy(
              'h',
              'b - a',
              { a: { value: base.value, unit: series.unit }, b: { value: top.value, unit: series.unit } },
              {
                a: `${meanOfSymbol(series.symbol)}_{\\text{before}}`,
                b: `${meanOfSymbol(series.symbol)}_{\\text{after}}`,
              },
            ),
        },
      ),
      notes: reachNote(series, region),
      fitted: null,
    };
  },
});

const meanAt = ({ values }: Series, indices: Int32Array): WeightedValue => ({
  value: indices.reduce((sum, i) => sum + values[i], 0) / indices.length,
  weights: spanAt(indices, new Float64Array(indices.length).fill(1 / indices.length)),
});

/** A share of a step is looked for among readings that lie within this share of its height from it, or a little more. */
const nearShare = 0.8;
const fewestNear = 5;
const rounds = 4;

/**
 * When a share of the step is reached, seen from its middle: where the parabola through the readings about that moment meets the
 * level. They are chosen by time, since those that are chosen by what they read would be those that noise has thrown there.
 */
function reached(
  series: Series,
  indices: Int32Array,
  base: WeightedValue,
  top: WeightedValue,
  share: number,
): WeightedValue {
  const { values, sampling } = series;
  const height = top.value - base.value;
  const level = base.value + share * height;
  const sign = Math.sign(height);
  const heightAt = (i: number) => (sign * (values[i] - base.value)) / Math.abs(height);
  // The middle of the step is passed once; from there the way to either share is not disturbed by noise at the levels.
  const middle = indices.findIndex((i) => heightAt(i) >= 0.5);
  if (middle <= 0)
    throw new Refusal('The step lies at the end of this region. Mark some of both levels too.');
  let inner = middle;
  let outer: number;
  // Noise lets a level be passed several times; the true moment lies between the first and the last.
  if (share < 0.5) {
    while (inner > 1 && heightAt(indices[inner - 1]) >= share) inner--;
    outer = inner;
    for (let k = inner; k > 0 && heightAt(indices[k]) > 0; k--) if (heightAt(indices[k]) >= share) outer = k;
  } else {
    while (inner < indices.length - 1 && heightAt(indices[inner]) < share) inner++;
    outer = inner;
    for (let k = inner; k < indices.length && heightAt(indices[k]) < 1; k++)
      if (heightAt(indices[k]) < share) outer = k + 1;
  }
  outer = Math.min(outer, indices.length - 1);
  const place = Math.round((inner + outer) / 2);
  const [left, right] = [indices[place - 1], indices[place]];
  const near = nearShare * Math.min(share, 1 - share);
  let at = (timeAt(sampling, left) + timeAt(sampling, right)) / 2;
  let slope =
    (values[indices[Math.min(place + 1, indices.length - 1)]] - values[indices[Math.max(place - 2, 0)]]) /
    (timeAt(sampling, indices[Math.min(place + 1, indices.length - 1)]) -
      timeAt(sampling, indices[Math.max(place - 2, 0)]));
  // From the middle to this share the step goes at about this pace, whatever one reading says.
  const halfTime = Math.abs(at - timeAt(sampling, indices[middle]));
  const pace = halfTime > 0 ? (sign * Math.abs(0.5 - share) * Math.abs(height)) / halfTime : slope;
  slope = sign * slope > 0.2 * Math.abs(pace) ? slope : pace;
  let crossing: WeightedValue | null = null;
  for (let round = 0; round < rounds; round++) {
    const reach = (near * Math.abs(height)) / Math.abs(slope);
    const some = present(series, indices, at - reach, at + reach);
    if (some.length < fewestNear) break;
    const times = Array.from(some, (i) => timeAt(sampling, i) - at);
    const weightedAt = (order: number) => {
      const weights = localPolynomialWeights(times, 0, 2, order);
      return { weights, value: some.reduce((sum, i, k) => sum + weights[k] * (values[i] - level), 0) };
    };
    const [off, rate] = [weightedAt(0), weightedAt(1)];
    if (!(sign * rate.value > 0)) break;
    const step = -off.value / rate.value;
    if (Math.abs(step) > reach) break;
    slope = rate.value;
    crossing = { value: at + step, weights: scaledSpan(spanAt(some, off.weights), -1 / rate.value) };
    at += step;
  }
  if (crossing === null) {
    const part = (level - values[left]) / (values[right] - values[left]);
    const [t0, t1] = [timeAt(sampling, left), timeAt(sampling, right)];
    const isBetween = part >= 0 && part <= 1;
    slope = (values[right] - values[left]) / (t1 - t0);
    at = isBetween ? t0 + part * (t1 - t0) : (t0 + t1) / 2;
    crossing =
      indexAtOrAfter(sampling, at) === right && right - left === 1
        ? crossingAt(series, level, at, indices[0], indices[indices.length - 1] + 1)
        : { value: at, weights: { first: left, weights: new Float64Array(0) } };
  }
  // The level itself hangs on the readings at both ends: it comes later by so much over the slope.
  return {
    value: crossing.value,
    weights: addSpans(
      addSpans(crossing.weights, scaledSpan(base.weights, (1 - share) / slope)),
      scaledSpan(top.weights, share / slope),
    ),
  };
}

/** The chosen readings between two times. */
const present = ({ sampling }: Series, indices: Int32Array, from: number, to: number): Int32Array =>
  indices.filter((i) => {
    const time = timeAt(sampling, i);
    return time >= from && time <= to;
  });
