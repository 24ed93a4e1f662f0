import { exp, square } from '../elementary';
import { Refusal } from '../refusal';
import { type NoisePath, type WeightSpan, addSpans } from '../series/noisePath';
import { checkSampling } from '../series/sampling';
import { type Series } from '../series/series';
import { type Filtered } from './filter';

/** The variance of a median of many normal readings is π/2 times that of their mean. */
const loss = Math.PI / 2;

/**
 * The running median: each value is the median of the window of readings about it, shorter at the ends, where it stays
 * symmetric. It takes off single wrong readings whole and keeps edges; a missing reading stays missing.
 *
 * A median is not linear, so its noise is followed by weights that stand for it: readings that lie so near to the median that
 * noise could have made them the median share it, and the variance that the median loses against a mean (π/2 where all of them
 * share it, nothing where the series is steep) is put onto them.
 * @throws Refusal where the window is no odd number from 3 on, or longer than the series
 */
export function medianFilter(series: Series, symbol: string, windowPoints: number): Filtered {
  const { values, sampling } = series;
  checkSampling(sampling);
  const n = values.length;
  if (!Number.isInteger(windowPoints) || windowPoints < 3 || windowPoints % 2 === 0)
    throw new Refusal(`The window must be an odd number of readings from 3 upwards, not ${windowPoints}.`);
  if (n < windowPoints)
    throw new Refusal(
      `A window of ${windowPoints} readings needs at least ${windowPoints} readings; this run has ${n}.`,
    );
  const half = (windowPoints - 1) / 2;
  const out = new Float64Array(n);
  /** The readings of the window, in order. */
  const window: number[] = [];
  let [from, to] = [0, 0];
  const put = (value: number) => window.splice(placeOf(window, value), 0, value);
  for (let i = 0; i < n; i++) {
    const reach = Math.min(half, i, n - 1 - i);
    while (to <= i + reach) {
      if (!Number.isNaN(values[to])) put(values[to]);
      to++;
    }
    while (to > i + reach + 1) {
      to--;
      if (!Number.isNaN(values[to])) window.splice(placeOf(window, values[to]), 1);
    }
    while (from < i - reach) {
      if (!Number.isNaN(values[from])) window.splice(placeOf(window, values[from]), 1);
      from++;
    }
    out[i] = Number.isNaN(values[i]) ? NaN : middleOf(window);
  }
  const rowOf = (i: number, sigma: number): WeightSpan => {
    const reach = Math.min(half, i, n - 1 - i);
    const weights = new Float64Array(2 * reach + 1);
    let sum = 0;
    for (let j = 0; j < weights.length; j++) {
      const off = (values[i - reach + j] - out[i]) / (shares * sigma);
      const near = Number.isNaN(off) ? 0 : sigma > 0 ? exp(-off * off) : off === 0 ? 1 : 0;
      weights[j] = near;
      sum += near;
    }
    if (!(sum > 0)) return { first: i, weights: Float64Array.of(1) };
    let squares = 0;
    for (let j = 0; j < weights.length; j++) squares += square((weights[j] /= sum));
    // From 1 where one reading alone is the median to π/2 where all share it.
    const spread = weights.length === 1 ? 0 : (1 - squares) / (1 - 1 / weights.length);
    const factor = Math.sqrt(1 + (loss - 1) * spread);
    for (let j = 0; j < weights.length; j++) weights[j] *= factor;
    return { first: i - reach, weights };
  };
  const through = (parent: NoisePath): NoisePath => {
    const { standardDeviation } = parent.root.level.between(0, n);
    const sigma = Number.isFinite(standardDeviation) ? standardDeviation : 0;
    const row = (i: number): WeightSpan | null => {
      const here = rowOf(i, sigma);
      return parent.independent ? here : parent.row(here.first) === null ? null : parent.spread(here);
    };
    return {
      root: parent.root,
      independent: false,
      row,
      isOrdinary: () => false,
      spread: ({ first, weights }) => {
        let sum: WeightSpan = { first, weights: new Float64Array(0) };
        const low = Math.max(first - half, 0);
        const gathered = new Float64Array(Math.min(first + weights.length + half, n) - low);
        weights.forEach((weight, k) => {
          if (weight === 0) return;
          const here = rowOf(first + k, sigma);
          for (let j = 0; j < here.weights.length; j++)
            gathered[here.first - low + j] += weight * here.weights[j];
        });
        sum = addSpans(sum, { first: low, weights: gathered });
        return parent.spread(sum);
      },
    };
  };
  return {
    values: out,
    noise: series.noise === null ? null : through(series.noise),
    ...(series.further === undefined ? {} : { further: series.further.map(through) }),
    made: [...series.made, { symbol, windowPoints, degree: 0, order: 0, isMedian: true }],
    lineage: {},
    settled: Math.max(Math.min(series.settled, n) - half, 0),
  };
}

/** So many standard deviations from the median a reading may well have been the median. */
const shares = 3;

/** Where a value stands, or would stand, among ascending ones. */
function placeOf(ascending: readonly number[], value: number): number {
  let [low, high] = [0, ascending.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (ascending[middle] < value) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The median of ascending values. */
function middleOf(ascending: readonly number[]): number {
  const half = ascending.length >> 1;
  return ascending.length % 2 === 1 ? ascending[half] : (ascending[half - 1] + ascending[half]) / 2;
}
