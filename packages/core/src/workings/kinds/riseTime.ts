import { intervalUnit } from '../../units/temperature';
import { type Told, crossingAt } from '../../calculus/cycles';
import { Refusal } from '../../refusal';
import { addStretches, scaledStretch, stretchAt } from '../../series/noisePath';
import { indexAtOrAfter, timeAt } from '../../series/sampling';
import { type Series } from '../../series/series';
import { choiceField, regionField, seriesField } from '../fields';
import { flatteningNote } from '../flatteningNote';
import { defineKind } from '../kind';
import { noted } from '../outcome';
import { reachNote, select } from '../selection';
import { toldOf } from '../told';
import { meanOfSymbol, withWorkings, workingBy } from '../working';

/** The levels of a step are told by this share of the region at either end. */
const endShare = 0.1;

/**
 * How long a step takes from one share of its height to another, 10 % to 90 % as IEEE Std 181 has it. Its two levels are the
 * means of the first and the last tenth of the region; a share is reached where the straight line between two readings meets it.
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
    const rise: Told = {
      value: high.value - low.value,
      weights: addStretches(high.weights, low.weights, -1),
    };
    const told = toldOf(series, indices[0], indices[indices.length - 1] + 1);
    return {
      kind: 'results',
      results: withWorkings(
        [
          told('riseTime', height > 0 ? 'rise time' : 'fall time', rise, series.timeUnit, true),
          told('base', 'level before', base, series.unit),
          told('top', 'level after', top, series.unit),
          told(
            'step',
            'height of the step',
            { value: height, weights: addStretches(top.weights, base.weights, -1) },
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
      ...noted(
        [...reachNote(series, region)],
        context.moving ? null : flatteningNote(series, indices[0], indices[indices.length - 1] + 1),
      ),
      fitted: null,
    };
  },
});

const meanAt = ({ values }: Series, indices: Int32Array): Told => ({
  value: indices.reduce((sum, i) => sum + values[i], 0) / indices.length,
  weights: stretchAt(indices, new Float64Array(indices.length).fill(1 / indices.length)),
});

/** When a share of the step is reached for good, seen from its middle. */
function reached(series: Series, indices: Int32Array, base: Told, top: Told, share: number): Told {
  const { values, sampling } = series;
  const level = base.value + share * (top.value - base.value);
  const sign = Math.sign(top.value - base.value);
  const isBeyond = (i: number) => sign * (values[i] - level) >= 0;
  // The middle of the step is passed once; from there the way to either share is not disturbed by noise at the levels.
  const half = (base.value + top.value) / 2;
  let place = indices.findIndex((i) => sign * (values[i] - half) >= 0);
  if (place <= 0) throw new Refusal('The step lies at the end of this region. Mark some of both levels too.');
  if (share < 0.5) while (place > 1 && isBeyond(indices[place - 1])) place--;
  else while (place < indices.length - 1 && !isBeyond(indices[place])) place++;
  const [left, right] = [indices[place - 1], indices[place]];
  const part = (level - values[left]) / (values[right] - values[left]);
  const [t0, t1] = [timeAt(sampling, left), timeAt(sampling, right)];
  const at = t0 + part * (t1 - t0);
  const slope = (values[right] - values[left]) / (t1 - t0);
  const crossing =
    indexAtOrAfter(sampling, at) === right && right - left === 1
      ? crossingAt(series, level, at, indices[0], indices[indices.length - 1] + 1)
      : { value: at, weights: { first: left, weights: new Float64Array(0) } };
  // The level itself hangs on the readings at both ends: it comes later by so much over the slope.
  return {
    value: at,
    weights: addStretches(
      addStretches(crossing.weights, scaledStretch(base.weights, (1 - share) / slope)),
      scaledStretch(top.weights, share / slope),
    ),
  };
}
